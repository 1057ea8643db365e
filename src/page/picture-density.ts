import { withoutQuery } from '../core/delivery/urls.js';

const VECTOR = /^data:image\/svg|\.svgz?([?#]|$)/i;
/** HTML, section 4.8.4.2: a candidate of `srcset` is an address and a width or density descriptor. */
const CANDIDATE = /(\S*[^,\s])(?:\s+([\d.]+)([wx]))?\s*(?:,|$)/g;

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
    for (const [, address = '', value = '1', unit = 'x'] of srcset.matchAll(CANDIDATE)) {
      if (absolute(address, image.baseURI) !== currentSrc) continue;
      const density = unit === 'x' ? Number(value) : Number(value) / Math.max(1, naturalWidth);
      if (density > 0) return density;
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
