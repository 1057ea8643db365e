import { likeness } from '../../identity/signature.js';
import { tidy } from '../../geometry/format.js';
import type { Raster } from '../../layout/pictures.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import { enlargement, seenPictures } from '../../sightings/seen-pictures.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';

/** More pixels than two for one px are not told apart at reading distance. */
const MOST_ASKED = 2;
/** Of the pixels asked for, along one side: less is seen. */
const LEAST_SHARE = 0.75;
/** Fewer pixels than px: soft on every screen. */
const SOFT_EVERYWHERE = 0.6;
/** Smaller ones are signs, CSS px. */
const LEAST_SIZE = 48;

interface Soft {
  readonly raster: Raster;
  readonly density: number;
  readonly culprit: NodeIndex;
}

/** A picture has fewer pixels than the screen shows it with. How it measures: docs/rules/picture-soft.md. */
export const pictureSoft: Rule = {
  meta: {
    name: 'picture-soft',
    family: 'media',
    severity: 'notice',
    summary: 'a picture has fewer pixels than the screen asks for',
  },
  check(render) {
    const asked = Math.min(render.device.dpr, MOST_ASKED) * enlargement(render);
    const soft = seenPictures(render).flatMap((raster) => softOf(render.view, raster, asked) ?? []);
    return byCulprit(render.view, soft, likeness).map((group) => sighting(render, group, asked));
  },
};

function softOf(view: SnapshotView, raster: Raster, asked: number): Soft | null {
  const { node, width, height, paintedWidth, paintedHeight } = raster;
  if (paintedWidth < LEAST_SIZE || paintedHeight < LEAST_SIZE) return null;
  if (/pixelated|crisp-edges/.test(view.style(node, 'image-rendering'))) return null;
  const density = Math.min(width / paintedWidth, height / paintedHeight);
  return density < LEAST_SHARE * asked ? { raster, density, culprit: node } : null;
}

function sighting(render: RenderView, { entries, fault }: Culprits<Soft>, asked: number): Sighting {
  const worst = entries.reduce((a, b) => (b.density < a.density ? b : a));
  const { node, width, height, paintedWidth, paintedHeight } = worst.raster;
  const pixels = `${Math.round(width)} × ${Math.round(height)} pixels`;
  const shown = `${Math.round(paintedWidth)} × ${Math.round(paintedHeight)} px`;
  return {
    ...fault,
    rect: render.view.box(node),
    by: null,
    ...(worst.density < SOFT_EVERYWHERE && { severity: 'warning' as const }),
    message: `A picture of ${pixels} is shown at ${shown}: ${tidy(worst.density)} for each px, where this screen asks for ${tidy(asked)}.`,
  };
}
