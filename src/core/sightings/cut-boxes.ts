import { px } from '../geometry/format.js';
import { outAlong, outOf, sizeAlong } from '../geometry/rect.js';
import { boxLossOf, lossesOf } from '../intent/losses.js';
import type { Loss } from '../intent/loss.js';
import { isDecoration } from '../intent/decoration.js';
import { displacementOf } from '../layout/displace.js';
import { isInline } from '../layout/displays.js';
import { hasBorderAt, SIDES } from '../layout/paint.js';
import type { Ink, Scene } from '../layout/scene.js';
import { FLAG_CONTROL, FLAG_PICTURE, FLAG_REPLACED } from '../layout/snapshot.js';
import type { NodeIndex } from '../layout/view.js';
import { holdsWords } from './box-out-of-box.js';
import { byCulprit } from './by-culprit.js';
import type { RenderView, Sighting } from './sighting.js';
import { onScreen, shortName, sideWords } from './words.js';

/** Of its size, what is cut off a box leaves most of it: else it waits, or its words are gone as well. */
const MOST_SHARE = 0.5;

/**
 * Boxes with a border all round and words in them, of which one side is cut off though no letter is: a card that is wider than what
 * holds it. Pictures and controls are control-clipped's, and so are words.
 */
export function cutBoxes(scene: Scene, render: RenderView): Sighting[] {
  const { view } = scene;
  const lost = new Set(lossesOf(scene).map(({ ink }) => ink.node));
  const found = bordered(scene).flatMap((ink) => {
    const loss = boxLossOf(scene, ink);
    // Nearly all boxes are whole.
    if (!loss || !isEdgeGone(scene, loss) || !holdsWords(scene, ink.node, ink.full)) return [];
    const culprit = outermostPast(scene, loss);
    return holdsLost(scene, culprit, lost) ? [] : [{ loss, culprit }];
  });
  return byCulprit(view, found).map(({ entries, fault }) => {
    const { loss } = entries.reduce((a, b) => (b.loss.px > a.loss.px ? b : a));
    const side = sideWords(loss.rect, view.box(loss.cutter), loss.axis);
    return {
      ...fault,
      key: `edge ${fault.key}`,
      rect: loss.rect,
      by: { axis: loss.axis, px: loss.px },
      message: `Its edge is cut off: it reaches ${px(loss.px)} past ${side} of ${shortName(view, loss.cutter)}, ${onScreen(render)}.`,
    };
  });
}

/** Boxes in their place, with a border on all sides. */
function bordered(scene: Scene): Ink[] {
  const { view } = scene;
  const found: Ink[] = [];
  for (let i = view.body + 1; i < view.count; i++) {
    if (!scene.painted[i] || isInline(view, i) || view.has(i, FLAG_CONTROL | FLAG_PICTURE | FLAG_REPLACED))
      continue;
    if (!SIDES.every((side) => hasBorderAt(view, i, side)) || displacementOf(view, i) !== null) continue;
    if (isDecoration(scene, i)) continue;
    const full = view.box(i);
    const ink: Ink = {
      index: -1,
      kind: 'picture',
      node: i,
      line: -1,
      full,
      shown: full,
      rank: scene.order.box[i]!,
    };
    found.push(ink);
  }
  return found;
}

/** Lower boxes, as tabs are, may stand on the edge that cuts their lower border off, CSS px. */
const LEAST_HEIGHT = 80;

/** Whether one side of a box is gone, border and all, and the most of it is left. */
function isEdgeGone({ view }: Scene, { ink, cutter, axis, px: lost }: Loss): boolean {
  const size = sizeAlong(ink.full, axis);
  if (lost > MOST_SHARE * size || (axis === 'y' && size < LEAST_HEIGHT)) return false;
  const out = outOf(ink.full, view.paddingBox(cutter));
  const borders = view.borders(ink.node);
  return SIDES.some((side, at) => out[side] > borders[at]! + 1);
}

/** The outermost element below the cutter that reaches as far past it as the box: a table, and not its last cell. */
function outermostPast({ view }: Scene, { ink, cutter, axis, px: lost }: Loss): NodeIndex {
  const window = view.paddingBox(cutter);
  let found = ink.node;
  for (let at = ink.node; at > cutter; at = view.containingElement(at))
    if (outAlong(view.box(at), window, axis) >= lost - 2) found = at;
  return found;
}

function holdsLost(scene: Scene, i: NodeIndex, lost: ReadonlySet<NodeIndex>): boolean {
  for (let at = i; at <= scene.lastOf(i); at++) if (lost.has(at)) return true;
  return false;
}
