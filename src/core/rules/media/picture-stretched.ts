import { sizeText, tidy } from '../../geometry/format.js';
import { isUpright } from '../../layout/rotation.js';
import type { Raster } from '../../layout/pictures.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import { onScreen } from '../../sightings/words.js';
import { seenPictures } from '../../sightings/seen-pictures.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';

/** From here on circles are seen to be eggs. */
const LEAST_TIMES = 1.06;
/** Rounding of layout and of files, CSS px. */
const LEAST_PX = 3;
/** Smaller files are spacers and swatches, pixels. */
const LEAST_PIXELS = 4;

interface Stretched {
  readonly raster: Raster;
  /** Width over what the height asks for. */
  readonly times: number;
  readonly px: number;
  readonly culprit: NodeIndex;
}

/** A picture is drawn out of its proportions. How it measures and what it leaves alone: docs/rules/picture-stretched.md. */
export const pictureStretched: Rule = {
  meta: {
    name: 'picture-stretched',
    family: 'media',
    severity: 'warning',
    summary: 'a picture is stretched or squeezed out of its proportions',
  },
  check(render) {
    const found = seenPictures(render).flatMap((raster) => stretchedOf(render.view, raster) ?? []);
    return byCulprit(render.view, found).map((group) => sighting(render, group));
  },
};

function stretchedOf(view: SnapshotView, raster: Raster): Stretched | null {
  const { node, width, height, paintedWidth, paintedHeight } = raster;
  if (!isUpright(view, node)) return null;
  if (width < LEAST_PIXELS || height < LEAST_PIXELS || paintedWidth < 1 || paintedHeight < 1) return null;
  const wanted = (paintedHeight * width) / height;
  const times = paintedWidth / wanted;
  const off = Math.abs(paintedWidth - wanted);
  if (Math.max(times, 1 / times) < LEAST_TIMES || off < LEAST_PX) return null;
  return { raster, times, px: off, culprit: node };
}

function sighting(render: RenderView, { entries, fault }: Culprits<Stretched>): Sighting {
  const off = ({ times }: Stretched) => Math.max(times, 1 / times);
  const worst = entries.reduce((a, b) => (off(b) > off(a) ? b : a));
  const { node, width, height, paintedWidth, paintedHeight } = worst.raster;
  const how = worst.times > 1 ? 'stretched' : 'squeezed';
  return {
    ...fault,
    rect: render.view.box(node),
    by: { axis: 'x', px: worst.px },
    message: `A picture of ${Math.round(width)} × ${Math.round(height)} pixels is ${how} to ${sizeText({ width: paintedWidth, height: paintedHeight })}, ${tidy(off(worst))} times its proportions, ${onScreen(render)}.`,
  };
}
