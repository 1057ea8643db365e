import { likeness } from '../../identity/signature.js';
import type { Raster } from '../../layout/pictures.js';
import type { NodeIndex } from '../../layout/view.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import { onScreen } from '../../sightings/words.js';
import { enlargement, seenPictures } from '../../sightings/seen-pictures.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';

/** Along a side, so many times what the screen can show: a file for screens of ratio 3 is right on one of ratio 1. */
const MOST_TIMES = 4;
/** Fewer pixels too many cost nobody anything. */
const LEAST_EXCESS = 500_000;

interface Oversized {
  readonly raster: Raster;
  readonly times: number;
  readonly culprit: NodeIndex;
}

/** A picture has many times the pixels that the screen can show. How it measures: docs/rules/picture-oversized.md. */
export const pictureOversized: Rule = {
  meta: {
    name: 'picture-oversized',
    family: 'media',
    severity: 'notice',
    summary: 'a picture has many times the pixels that the screen can show',
  },
  check(render) {
    const perPx = render.device.dpr * enlargement(render);
    const found = seenPictures(render).flatMap((raster) => oversizedOf(raster, perPx) ?? []);
    return byCulprit(render.view, found, likeness).map((group) => sighting(render, group, perPx));
  },
};

/** @param perPx device px that one CSS px is shown with */
function oversizedOf(raster: Raster, perPx: number): Oversized | null {
  const { node, width, height, paintedWidth, paintedHeight } = raster;
  if (paintedWidth < 1 || paintedHeight < 1) return null;
  const times = Math.min(width / (paintedWidth * perPx), height / (paintedHeight * perPx));
  const excess = width * height - paintedWidth * paintedHeight * perPx * perPx;
  return times > MOST_TIMES && excess > LEAST_EXCESS ? { raster, times, culprit: node } : null;
}

function sighting(render: RenderView, { entries, fault }: Culprits<Oversized>, perPx: number): Sighting {
  const worst = entries.reduce((a, b) => (b.times > a.times ? b : a));
  const { node, width, height, paintedWidth, paintedHeight } = worst.raster;
  const shown = `${Math.round(paintedWidth * perPx)} × ${Math.round(paintedHeight * perPx)}`;
  return {
    ...fault,
    rect: render.view.box(node),
    by: null,
    message: `A picture of ${Math.round(width)} × ${Math.round(height)} pixels is shown with ${shown} of the screen's, ${onScreen(render)}.`,
  };
}
