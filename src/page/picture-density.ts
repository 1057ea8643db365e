import { parseSrcset } from 'srcset';
import { withoutQuery } from '../core/delivery/urls.js';

const VECTOR = /^data:image\/svg|\.svgz?([?#]|$)/i;

/**
 * How many pixels the file of a picture has for one px of its natural size, which is corrected for the density of the
 * candidate that was chosen. 0 for a drawing, which has no pixels.
 */
export function pictureDensity(image: HTMLImageElement): number {
  const { currentSrc, naturalWidth } = image;
  if (VECTOR.test(currentSrc)) return 0;
  const sources =
    image.parentElement?.localName === 'picture' ? image.parentElement.querySelectorAll('source') : [];
  for (const { srcset } of [...sources, image]) {
    for (const { url, width, density = 1 } of parseSrcset(srcset)) {
      if (absolute(url, image.baseURI) !== currentSrc) continue;
      const found = width === undefined ? density : width / Math.max(1, naturalWidth);
      if (found > 0) return found;
    }
  }
  return 1;
}

function absolute(address: string, base: string): string | null {
  try {
    return new URL(address, base).href;
  } catch {
    return null;
  }
}

/** An address without its query and fragment, which may carry tokens; of one that holds the picture itself, its kind. */
export function bareAddress(url: string): string {
  return url.startsWith('data:') ? url.slice(0, url.search(/[;,]/)) : withoutQuery(url);
}
