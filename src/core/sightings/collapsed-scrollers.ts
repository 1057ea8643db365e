import { px } from '../geometry/format.js';
import { isDecoration } from '../intent/decoration.js';
import type { Ink, Scene } from '../layout/scene.js';
import { scrollsAlong } from '../layout/scrollers.js';
import { emOf } from '../layout/text-ink.js';
import { isOutOfFlow } from '../layout/displace.js';
import { isGrid } from '../layout/displays.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { byCulprit } from './by-culprit.js';
import { inksScrolledBy } from './covered-scrollers.js';
import { nameOf, onScreen } from './words.js';
import type { RenderView, Sighting } from './sighting.js';

/** In less height nobody reads by scrolling, lines of the text in it. */
const LEAST_LINES = 1;
/** What the parts of a box leave of it is room that is not needed, lines. */
const LEFT_LINES = 1.5;

interface Collapsed {
  readonly culprit: NodeIndex;
  readonly height: number;
  readonly ink: Ink;
}

/**
 * Scroll containers of which the boxes above and below leave less than a line to scroll in: an entry list between a head and a foot of a set
 * height. One that is as low in a box with room is closed.
 */
export function collapsedScrollers(scene: Scene, render: RenderView): Sighting[] {
  const { view } = scene;
  const found: Collapsed[] = [];
  for (let i = 1; i < view.count; i++) {
    if (!scene.painted[i] || !scrollsAlong(view, i, 'y')) continue;
    const [, height, , scrollHeight] = view.scrollSizes(i);
    if (scrollHeight <= height + 1) continue;
    const ink = inksScrolledBy(scene, i).find(
      ({ kind, node }) => kind === 'text' && !isDecoration(scene, node),
    );
    if (!ink) continue;
    const line = 1.2 * emOf(view, ink.line);
    if (height < LEAST_LINES * line && isSqueezedBySiblings(view, i, LEFT_LINES * line))
      found.push({ culprit: i, height, ink });
  }
  return byCulprit(view, found).map(({ entries: [first], fault }) => ({
    ...fault,
    key: `collapsed ${fault.key}`,
    affected: [first!.ink.node],
    rect: view.box(view.parent(fault.node)),
    by: { axis: 'y', px: first!.ink.full.height },
    message: `Has ${px(first!.height)} of height left, too little to read ${nameOf(view, first!.ink)} in by scrolling, ${onScreen(render)}.`,
  }));
}

/** An item of a column or a grid whose other items take all of its height. */
function isSqueezedBySiblings(view: SnapshotView, i: NodeIndex, left: number): boolean {
  const parent = view.parent(i);
  const isColumn = /flex/.test(view.style(parent, 'display'))
    ? /^column/.test(view.style(parent, 'flex-direction'))
    : isGrid(view, parent);
  if (!isColumn) return false;
  const { x, width } = view.box(i);
  const others = view
    .childrenOf(parent)
    .filter((at) => at !== i && view.isRendered(at) && !isOutOfFlow(view, at))
    .map((at) => view.box(at))
    .filter((box) => box.x < x + width && box.x + box.width > x);
  const taken = others.reduce((sum, { height }) => sum + height, 0);
  return others.length > 0 && taken >= view.contentBox(parent).height - left;
}
