import { isDrawn } from '../../layout/paint.js';
import { sceneOf, type Scene } from '../../layout/scene.js';
import type { Rect } from '../../geometry/rect.js';
import { FLAG_CONTROL, FLAG_PICTURE } from '../../layout/snapshot.js';
import type { NodeIndex } from '../../layout/view.js';
import { rowOfItems } from '../../layout/item-rows.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import { onScreen } from '../../sightings/words.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';

/** In the row that it is missing from. */
const LEAST_BEFORE = 2;
/** An item that fills its row was meant to, of the row's width. */
const FILLS = 0.9;

interface Lone {
  readonly culprit: NodeIndex;
  readonly before: number;
  readonly rect: Rect;
}

/**
 * Of items that stand in one row on a wider screen, the last is left alone in a second one. How it measures and what it
 * leaves alone: docs/rules/lone-item.md.
 */
export const loneItem: Rule = {
  meta: {
    name: 'lone-item',
    family: 'flow',
    severity: 'notice',
    summary: 'one item of a row is left alone on the next',
    needsFreeWidth: true,
  },
  check(render) {
    const scene = sceneOf(render.view);
    const found: Lone[] = [];
    for (let i = 0; i < render.view.count; i++) {
      const lone = loneIn(scene, i);
      if (lone) found.push(lone);
    }
    return byCulprit(render.view, found).map((group) => sighting(render, group));
  },
};

function loneIn(scene: Scene, container: NodeIndex): Lone | null {
  const { view } = scene;
  if (!scene.painted[container]) return null;
  const rows = rowOfItems(scene, container);
  const [first, second] = rows;
  if (rows.length !== 2 || first!.length < LEAST_BEFORE || second!.length !== 1) return null;
  const item = second![0]!;
  const box = view.box(item);
  // Words in a row flow like text.
  if (!isDrawn(view, item) && !holdsMoreThanText(scene, item)) return null;
  if (box.width >= FILLS * view.contentBox(container).width) return null;
  return { culprit: item, before: first!.length, rect: view.box(container) };
}

function holdsMoreThanText(scene: Scene, item: NodeIndex): boolean {
  for (let at = item; at <= scene.lastOf(item); at++)
    if (scene.view.has(at, FLAG_CONTROL | FLAG_PICTURE) && scene.painted[at]) return true;
  return false;
}

function sighting(render: RenderView, { entries, fault }: Culprits<Lone>): Sighting {
  const [{ before, rect }] = entries as [Lone, ...Lone[]];
  return {
    ...fault,
    rect,
    by: null,
    message: `Stands alone in a second row, below ${before === 1 ? 'the first' : `${before} others that stand beside one another`}, ${onScreen(render)}.`,
  };
}
