import { isFixed } from '../layout/viewport-layer.js';
import { intersect, meets, type Rect } from '../geometry/rect.js';
import type { Cover, Ink, Scene } from '../layout/scene.js';
import { scrollerOf } from '../layout/scrollers.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** A slit beside what lies over a scroll container is no place to read in, share of the container. */
const SLIT = 0.2;

/**
 * What stands at the end of a scroll container, below what it shows at first, where it lies once that is scrolled to its end,
 * with what lies over the container and keeps it from coming free: a bar fixed to the foot of the screen, over a list that
 * scrolls by itself.
 */
export function inksAtScrollEnds(scene: Scene): { ink: Ink; cover: Cover }[] {
  const { view } = scene;
  return scrollersDown(scene).flatMap((holder) => {
    const window = view.paddingBox(holder);
    const over = scene
      .coversIn(window)
      .filter(({ node, rank }) => !scene.contains(holder, node) && rank > scene.order.box[holder]!)
      .filter(({ node }) => !scene.contains(node, holder))
      .flatMap((cover) => {
        const rect = intersect(cover.rect, window);
        return rect && isAtFoot(rect, window) ? [cover] : [];
      });
    if (over.length === 0) return [];
    const [, clientHeight, , scrollHeight] = view.scrollSizes(holder);
    const rest = scrollHeight - clientHeight - view.scrolledBy(holder).y;
    return inksOf(scene, holder).flatMap((ink) => {
      const full = { ...ink.full, y: ink.full.y - rest };
      const shown = intersect(full, window);
      // What is in sight at first is judged there.
      if (ink.shown || !shown || shown.height < ink.full.height - 1) return [];
      return over
        .filter(({ rect }) => meets(rect, shown, 0))
        .map((cover) => ({ ink: { ...ink, full, shown }, cover }));
    });
  });
}

function scrollersDown({ view, painted }: Scene): NodeIndex[] {
  const found: NodeIndex[] = [];
  for (let i = 1; i < view.count; i++) {
    if (!painted[i] || !/auto|scroll/.test(view.style(i, 'overflow-y'))) continue;
    const [, clientHeight, , scrollHeight] = view.scrollSizes(i);
    if (clientHeight > 0 && scrollHeight > clientHeight + 1 && isOnScreen(view, i)) found.push(i);
  }
  return found;
}

/** A container that the page scrolls past can be brought out from under what is fixed to the screen. */
function isOnScreen(view: SnapshotView, i: NodeIndex): boolean {
  const { document: page, viewport } = view.snapshot;
  return page.height <= viewport.shownHeight + 1 || isFixed(view, i);
}

/** At the foot of the container there is no scrolling past it. */
function isAtFoot(rect: Rect, window: Rect): boolean {
  const below = window.y + window.height - (rect.y + rect.height);
  return below < SLIT * window.height && rect.y > window.y + SLIT * window.height;
}

function inksOf(scene: Scene, holder: NodeIndex): Ink[] {
  const { view } = scene;
  return scene.inks.filter(({ node }) => scene.contains(holder, node) && scrollerOf(view, node) === holder);
}
