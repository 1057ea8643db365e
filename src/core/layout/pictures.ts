import type { NodeIndex, SnapshotView } from './view.js';

/** A picture with pixels and how they are spread over the page. */
export interface Raster {
  readonly node: NodeIndex;
  /** Pixels of the file. */
  readonly width: number;
  readonly height: number;
  /** CSS px that the whole picture takes, what its box crops included. */
  readonly paintedWidth: number;
  readonly paintedHeight: number;
}

/** Loaded pictures that are made of pixels, by `object-fit` (CSS Images 3, section 5.5). */
export function rastersOf(view: SnapshotView): Raster[] {
  const { pictures } = view.snapshot;
  const found: Raster[] = [];
  for (let at = 0; at + 3 < pictures.length; at += 4) {
    const [node, naturalWidth, naturalHeight, density] = pictures.subarray(at, at + 4) as unknown as [
      number,
      number,
      number,
      number,
    ];
    if (density === 0 || naturalWidth === 0 || naturalHeight === 0 || !view.isRendered(node)) continue;
    const box = view.contentBox(node);
    const painted = paintedSize(view.style(node, 'object-fit'), box, naturalWidth, naturalHeight);
    found.push({
      node,
      width: naturalWidth * density,
      height: naturalHeight * density,
      paintedWidth: painted.width,
      paintedHeight: painted.height,
    });
  }
  return found;
}

interface Size {
  readonly width: number;
  readonly height: number;
}

function paintedSize(fit: string, box: Size, width: number, height: number): Size {
  const scales = [box.width / width, box.height / height] as const;
  const contain = Math.min(...scales);
  const scale =
    fit === 'cover'
      ? Math.max(...scales)
      : fit === 'contain'
        ? contain
        : fit === 'none'
          ? 1
          : fit === 'scale-down'
            ? Math.min(1, contain)
            : null;
  return scale === null ? box : { width: width * scale, height: height * scale };
}
