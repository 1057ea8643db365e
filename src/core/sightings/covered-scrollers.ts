import { fixedRoot, isFixed, stickyRoot } from '../layout/viewport-layer.js';
import { intersect, meets, type Rect } from '../geometry/rect.js';
import { clingingOf } from '../layout/clinging.js';
import { cut } from '../layout/clips.js';
import { perSnapshot } from '../layout/memo.js';
import { sceneOf, type Cover, type Ink, type Scene } from '../layout/scene.js';
import { restOf } from '../layout/scroll-end.js';
import { beginsAtFarEnd } from '../layout/scroll-origin.js';
import { isContentOf, movingScrollerOf, scrollsAlong } from '../layout/scrollers.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** A slit beside what lies over a scroll container is no place to read in, share of the container. */
const SLIT = 0.2;

type Axis = 'x' | 'y';
const SIZE = { x: 'width', y: 'height' } as const;

/**
 * What stands at the end of a scroll container, beyond what it shows at first, where it lies once that is scrolled to its end,
 * with what lies over the container and keeps it from coming free: a bar fixed to the foot of the screen, over a list that
 * scrolls by itself; the buttons of a panel over the end of what scrolls in it; an arrow over the end of a row of tabs.
 */
export function inksAtScrollEnds(scene: Scene): { ink: Ink; cover: Cover }[] {
  return (['y', 'x'] as const).flatMap((axis) =>
    scrollersAlong(scene, axis).flatMap((holder) => inksAtEnd(scene, holder, axis)),
  );
}

function inksAtEnd(scene: Scene, holder: NodeIndex, axis: Axis): { ink: Ink; cover: Cover }[] {
  const { view } = scene;
  // A container may wait beside what cuts it off.
  const window = cut(view.paddingBox(holder), scene.clips.shownBox(holder));
  if (!window) return [];
  const isHeld = axis === 'y' && isOnScreen(view, holder);
  const over = scene
    .coversIn(window)
    .filter(({ node, rank }) => !isContentOf(view, holder, node) && rank > scene.order.box[holder]!)
    .filter(({ node }) => !scene.contains(node, holder) && (movesWith(view, node, holder) || isHeld))
    .concat(axis === 'y' ? (stickingAtEnd(view).get(holder) ?? []) : [])
    .flatMap((cover) => {
      const rect = intersect(cover.rect, window);
      return rect && isAtEnd(rect, window, axis) ? [cover] : [];
    });
  if (over.length === 0) return [];
  const rest = restOf(view, holder, axis);
  const inks = inksScrolledBy(scene, holder).filter(({ node }) => stickyRoot(view, node) < 0);
  return inks.flatMap((ink) => {
    const full = { ...ink.full, [axis]: ink.full[axis] - rest };
    const shown = intersect(full, window);
    // What is in sight at first is judged there.
    const isInSight = axis === 'y' ? ink.shown !== null : over.every(({ rect }) => ink.full.x < rect.x);
    if (isInSight || !shown || shown[SIZE[axis]] < ink.full[SIZE[axis]] - 1) return [];
    return over
      .filter(({ rect }) => meets(rect, shown, 0))
      .map((cover) => ({ ink: { ...ink, full, shown }, cover }));
  });
}

/** By container, what sticks in it, where that lies once the container is scrolled to its end. */
const stickingAtEnd = perSnapshot((view): ReadonlyMap<NodeIndex, readonly Cover[]> => {
  const found = new Map<NodeIndex, Cover[]>();
  for (const cover of sceneOf(view).covers) {
    const sticky = stickyRoot(view, cover.node);
    const clinging = sticky < 0 ? null : clingingOf(view, sticky);
    if (!clinging || clinging.in.node < 0) continue;
    const { node, scrolled, most } = clinging.in;
    const by = clinging.at(most) - clinging.at(scrolled) - (most - scrolled);
    const moved = { ...cover, rect: { ...cover.rect, y: cover.rect.y + by } };
    const others = found.get(node);
    if (others) others.push(moved);
    else found.set(node, [moved]);
  }
  return found;
});

/** What stays on the screen while a container scrolls by with the page is passed. */
function movesWith(view: SnapshotView, cover: NodeIndex, holder: NodeIndex): boolean {
  return (
    fixedRoot(view, cover) === fixedRoot(view, holder) && stickyRoot(view, cover) === stickyRoot(view, holder)
  );
}

function scrollersAlong({ view, painted }: Scene, axis: Axis): NodeIndex[] {
  const found: NodeIndex[] = [];
  for (let i = 1; i < view.count; i++) {
    if (!painted[i] || !scrollsAlong(view, i, axis)) continue;
    const isEmpty = view.scrollSizes(i)[axis === 'x' ? 0 : 1] <= 0;
    // Rows that run from the right to the left, and talks that grow from below, are scrolled the other way.
    if (isEmpty || beginsAtFarEnd(view, i)[axis] || restOf(view, i, axis) <= 1) continue;
    found.push(i);
  }
  return found;
}

/** A container that the page scrolls past can be brought out from under what is fixed to the screen. */
function isOnScreen(view: SnapshotView, i: NodeIndex): boolean {
  const { document: page, viewport } = view.snapshot;
  return page.height <= viewport.shownHeight + 1 || isFixed(view, i);
}

/** At the end of the container there is no scrolling past it, nor anywhere past what is as high as that. Of a row, what is as long is beside it. */
function isAtEnd(rect: Rect, window: Rect, axis: Axis): boolean {
  const size = window[SIZE[axis]];
  const beyond = window[axis] + size - (rect[axis] + rect[SIZE[axis]]);
  const isWhole = axis === 'x' && rect[axis] <= window[axis] + SLIT * size;
  return beyond < SLIT * size && !isWhole;
}

/** What scrolls with a container, and with nothing that scrolls in it. */
export function inksScrolledBy(scene: Scene, holder: NodeIndex): Ink[] {
  const { view } = scene;
  return scene.inks.filter(
    ({ node }) => scene.contains(holder, node) && movingScrollerOf(view, node) === holder,
  );
}
