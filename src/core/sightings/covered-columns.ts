import { px } from '../geometry/format.js';
import { pxOf } from '../css/lengths.js';
import { isDecoration } from '../intent/decoration.js';
import { isOpaque } from '../layout/paint.js';
import type { Ink, Scene } from '../layout/scene.js';
import { scrollerOf } from '../layout/scrollers.js';
import { isSticky } from '../layout/sticking.js';
import { emOf } from '../layout/text-ink.js';
import type { NodeIndex } from '../layout/view.js';
import { stickyRoot } from '../layout/viewport-layer.js';
import { byCulprit } from './by-culprit.js';
import { inksScrolledBy } from './covered-scrollers.js';
import { andMore, nameOf, onScreen, shortName } from './words.js';
import type { RenderView, Sighting } from './sighting.js';

/** Of a line's width this share has to be seen at once, or so much, em: a slit to read long lines through. */
const LEAST_SHARE = 0.75;
const LEAST_EM = 3;
/** Larger letters than these are no column's, CSS px. */
const MOST_EM = 40;

interface Held {
  readonly culprit: NodeIndex;
  readonly holder: NodeIndex;
  /** What is left of the container's width beside the column, CSS px. */
  readonly left: number;
  readonly inks: readonly Ink[];
}

/**
 * Columns that stick to a side of a scroll container and leave no room in it: what stands beside them is under them, or past the other
 * side, however far the container is scrolled (CSS Positioned Layout 3, section 3.4).
 */
export function coveredColumns(scene: Scene, render: RenderView): Sighting[] {
  const { view } = scene;
  const found: Held[] = [];
  for (let i = 1; i < view.count; i++) {
    if (!isSticky(view, i) || !scene.painted[i] || !isOpaque(view, i)) continue;
    const holder = scrollerOf(view, view.parent(i));
    const start = pxOf(view.style(i, 'left')) ?? pxOf(view.style(i, 'right'));
    if (holder < 0 || start === null) continue;
    const [clientWidth, , scrollWidth] = view.scrollSizes(holder);
    const left = clientWidth - start - view.box(i).width;
    if (scrollWidth <= clientWidth + 1 || left > LEAST_EM * MOST_EM) continue;
    const inks = inksBeside(scene, i, holder).filter(
      (ink) => left < Math.min(LEAST_SHARE * ink.full.width, LEAST_EM * emOf(view, ink.line)),
    );
    if (inks.length > 0) found.push({ culprit: i, holder, left, inks });
  }
  return byCulprit(view, found).map(({ entries, fault }) => {
    const [{ holder, left, inks }] = entries as [Held];
    const others = new Set(entries.flatMap((entry) => entry.inks)).size - 1;
    const { more, isMany } = andMore(others);
    return {
      ...fault,
      key: `column ${fault.key}`,
      affected: entries.flatMap((entry) => entry.inks.map(({ node }) => node)),
      rect: view.box(holder),
      by: { axis: 'x', px: inks[0]!.full.width },
      message: `Stays where it is while ${shortName(view, holder)} scrolls, and leaves ${px(Math.max(0, left))} of its width: ${nameOf(view, inks[0]!)}${more} ${isMany ? 'are' : 'is'} under it or out of sight, ${onScreen(render)}.`,
    };
  });
}

/** Words in the same rows that scroll beside a column. */
function inksBeside(scene: Scene, column: NodeIndex, holder: NodeIndex): Ink[] {
  const { view } = scene;
  const { y, height } = view.box(column);
  return inksScrolledBy(scene, holder).filter(
    ({ kind, node, full }) =>
      kind === 'text' &&
      full.y < y + height &&
      full.y + full.height > y &&
      !scene.contains(column, node) &&
      stickyRoot(view, node) <= holder &&
      !isDecoration(scene, node),
  );
}
