import { px } from '../geometry/format.js';
import { intersect } from '../geometry/rect.js';
import { RectIndex } from '../geometry/rect-index.js';
import { signature } from '../identity/signature.js';
import { displacementOf } from '../layout/displace.js';
import { isGrid } from '../layout/displays.js';
import { isDrawn } from '../layout/paint.js';
import type { Scene } from '../layout/scene.js';
import { FLAG_CONTROL } from '../layout/snapshot.js';
import type { NodeIndex } from '../layout/view.js';
import { byCulprit } from './by-culprit.js';
import type { RenderView, Sighting } from './sighting.js';
import { onScreen, shortName } from './words.js';

/** Less may be a border or a rounding, CSS px. */
const LEAST_PX = 3;
/** What lies on most of its neighbour was put into its place: slides, the faces of a card. */
const MOST_SHARE = 0.8;

interface Over {
  readonly culprit: NodeIndex;
  readonly neighbour: NodeIndex;
  readonly axis: 'x' | 'y';
  readonly px: number;
}

/**
 * Items of a grid, alike and drawn, that run over the rim of the next one: wider or higher than their track. Nothing has moved them, so nobody
 * has laid them there.
 * @param told elements that something else was found of
 */
export function boxesOverNeighbours(
  scene: Scene,
  render: RenderView,
  told: ReadonlySet<NodeIndex>,
): Sighting[] {
  const { view } = scene;
  const found: Over[] = [];
  for (let grid = view.body; grid < view.count; grid++) {
    if (!isGrid(view, grid)) continue;
    const items = view
      .childrenOf(grid)
      // Controls on one another are control-overlap's.
      .filter(
        (i) =>
          !view.has(i, FLAG_CONTROL) &&
          scene.painted[i] &&
          displacementOf(view, i) === null &&
          isDrawn(view, i),
      );
    const index = new RectIndex(items.map((i) => view.box(i)));
    for (const [at, item] of items.entries()) {
      const [next] = index
        .search(view.box(item))
        .filter((other) => other > at)
        .flatMap((other) => overlap(scene, item, items[other]!) ?? []);
      if (next && !told.has(item)) found.push(next);
    }
  }
  return byCulprit(view, found).map(({ entries, fault }) => {
    const worst = entries.reduce((a, b) => (b.px > a.px ? b : a));
    return {
      ...fault,
      key: `neighbour ${fault.key}`,
      partners: entries.map(({ neighbour }) => neighbour),
      rect: view.box(worst.culprit),
      by: { axis: worst.axis, px: worst.px },
      severity: 'warning',
      message: `Its box runs ${px(worst.px)} over the rim of the next ${shortName(view, worst.neighbour)}, ${onScreen(render)}.`,
    };
  });
}

function overlap({ view }: Scene, a: NodeIndex, b: NodeIndex): Over | null {
  const [boxA, boxB] = [view.box(a), view.box(b)];
  const common = intersect(boxA, boxB);
  if (!common || signature(view, a) !== signature(view, b)) return null;
  const [across, down] = [common.width, common.height];
  if (Math.min(across, down) < LEAST_PX) return null;
  const shares = [across / Math.min(boxA.width, boxB.width), down / Math.min(boxA.height, boxB.height)];
  if (Math.min(...shares) >= MOST_SHARE) return null;
  const axis = shares[0]! < shares[1]! ? 'x' : 'y';
  return { culprit: a, neighbour: b, axis, px: axis === 'x' ? across : down };
}
