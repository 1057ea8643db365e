import { px } from '../../geometry/format.js';
import { outOf, sizeAlong, union, type Rect } from '../../geometry/rect.js';
import { losesRoomOnly } from '../../intent/controls.js';
import { leastAcross } from '../../intent/losses.js';
import { isDecoration } from '../../intent/decoration.js';
import { isLogo } from '../../intent/emblems.js';
import { isIndentedAway } from '../../intent/off-stage.js';
import { isUnderScreen } from '../../intent/overlays.js';
import { hasControl } from '../../layout/controls-within.js';
import { displacementOf } from '../../layout/displace.js';
import { isMoved } from '../../layout/transforms.js';
import { sceneOf, type Ink, type Scene } from '../../layout/scene.js';
import { mainScrollerOf } from '../../layout/main-scroller.js';
import { beginsAtFarEnd } from '../../layout/scroll-origin.js';
import { scrollerOf, scrollsAlong } from '../../layout/scrollers.js';
import { FLAG_CONTROL, FLAG_PAGE_LINK, FLAG_PICTURE } from '../../layout/snapshot.js';
import { acrossLines } from '../../layout/text-ink.js';
import { hasHandle } from '../../intent/opened.js';
import { fixedRoot, screenOnPage, stickyRoot } from '../../layout/viewport-layer.js';
import { atScrollEnd, scrollerAlong } from '../../layout/scroll-end.js';
import { cut } from '../../layout/clips.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import { byCulprit, rowOrOwn, type Culprits } from '../../sightings/by-culprit.js';
import { collapsedScrollers } from '../../sightings/collapsed-scrollers.js';
import { andMore, capital, nameOf, onScreen, thingsAmong } from '../../sightings/words.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';

/** Rounding, side bearings, CSS px. */
const LEAST_PX = 3;
/** Of a logo's width. */
const LEAST_OF_LOGO = 0.15;
/** So far out of the page, words are hidden from sight on purpose, CSS px. */
const FAR_PX = 500;

type Side = 'left' | 'right' | 'top' | 'bottom';

interface Stranding {
  readonly ink: Ink;
  readonly culprit: NodeIndex;
  readonly side: Side;
  readonly px: number;
  /** `main`: the scroll container in which an application scrolls as a page. */
  readonly of: 'page' | 'screen' | 'scroller' | 'main';
}

/** Content lies where no scrolling reaches it. How it measures and what it leaves alone: docs/rules/unreachable.md. */
export const unreachable: Rule = {
  meta: {
    name: 'unreachable',
    family: 'clipped',
    severity: 'error',
    summary: 'content lies where no scrolling reaches it',
  },
  check(render) {
    const scene = sceneOf(render.view);
    const strandings: Stranding[] = [];
    for (const ink of scene.inks) {
      const isPicture = scene.view.has(ink.node, FLAG_PICTURE);
      if (isPicture && !isLogo(scene.view, ink.node)) continue;
      const stranding = strandingOf(scene, ink);
      if (
        !stranding ||
        (isPicture && stranding.px < LEAST_OF_LOGO * ink.full.width) ||
        isDecoration(scene, ink.node) ||
        isWaiting(scene, stranding)
      )
        continue;
      const axis = axisOf(stranding.side);
      if (
        losesRoomOnly(scene, ink, { px: stranding.px, axis }, (inner) => strandingOf(scene, inner) !== null)
      )
        continue;
      strandings.push(stranding);
    }
    return [
      ...byCulprit(scene.view, strandings, rowOrOwn).map((group) => sighting(scene, render, group)),
      ...collapsedScrollers(scene, render),
    ];
  },
};

function strandingOf(scene: Scene, ink: Ink): Stranding | null {
  const { view } = scene;
  const root = fixedRoot(view, ink.node);
  // Text stands in its element, and a box in the one around it.
  const from = ink.kind === 'text' ? ink.node : view.containingElement(ink.node);
  const holder = scrollerOf(view, from);
  if (holder < 0) return beyond(scene, ink, root);
  const found = inScroller(scene, ink, holder) ?? withScroller(scene, ink, holder);
  if (found || root < 0) return found;
  const atEnd = (axis: 'x' | 'y') => atEndOffScreen(scene, ink, root, scrollerAlong(view, from, axis), axis);
  return atEnd('y') ?? atEnd('x');
}

/** @param root what it is fixed to the screen with; −1 where it scrolls with the page */
function beyond(scene: Scene, ink: Ink, root: NodeIndex): Stranding | null {
  // What is cut off before it gets there is another rule's.
  if (!ink.shown) return null;
  return root >= 0 ? offScreen(scene, ink, root) : onPage(scene, ink);
}

/**
 * In a scroll container, or one in another, that reaches off the page itself: at the first scroll position of each, it can't be scrolled into the
 * page from its start.
 */
function withScroller(scene: Scene, ink: Ink, holder: NodeIndex): Stranding | null {
  const { view } = scene;
  const found = beyond(scene, ink, fixedRoot(view, holder));
  if (!found) return null;
  const { side } = found;
  for (let at = holder; at >= 0; at = scrollerOf(view, view.containingElement(at)))
    if (mayBringBack(view, at, side)) return null;
  return found;
}

/** Whether scrolling a container may bring back what has left it at a side: what is past its start, at its first scroll position, it never does. */
function mayBringBack(view: SnapshotView, holder: NodeIndex, side: Side): boolean {
  const axis = axisOf(side);
  if (!scrollsAlong(view, holder, axis)) return false;
  const [start] = startAndEnd(view, holder, axis);
  return view.scrolledBy(holder)[axis] !== 0 || side !== start;
}

/** The sides at which what a container scrolls along an axis begins and ends. */
function startAndEnd(view: SnapshotView, holder: NodeIndex, axis: 'x' | 'y'): readonly [Side, Side] {
  const [first, last] = axis === 'x' ? (['left', 'right'] as const) : (['top', 'bottom'] as const);
  return beginsAtFarEnd(view, holder)[axis] ? [last, first] : [first, last];
}

/**
 * Off the screen even when its scroll container is scrolled to its end, since that is fixed to the screen and reaches off it: a side bar
 * as high as the screen that begins below a bar.
 */
function atEndOffScreen(
  scene: Scene,
  ink: Ink,
  root: NodeIndex,
  holder: NodeIndex,
  axis: 'x' | 'y',
): Stranding | null {
  const { view } = scene;
  if (scrollerOf(view, view.containingElement(holder)) >= 0) return null;
  const screen = screenOnPage(view);
  const [, side] = startAndEnd(view, holder, axis);
  // What is cut off before the edge of the screen is another rule's.
  const seen = cut(view.paddingBox(holder), scene.clips.shownBox(holder));
  if (!seen || outOf(seen, screen)[side] <= LEAST_PX) return null;
  const isStill = stickyRoot(view, ink.node) > holder;
  const shown = isStill ? ink.shown : atScrollEnd(view, holder, ink.full, axis);
  if (!shown) return null;
  const over: Record<Side, number> = { left: 0, right: 0, top: 0, bottom: 0 };
  over[side] = outOf(shown, screen)[side];
  return worst(view, ink, over, 'screen', () => (outOf(view.box(root), screen)[side] > 1 ? root : holder));
}

/** Beyond where a page scrolls to (CSS Overflow 3, section 3.2): above it, before its start, and past its end. */
function onPage(scene: Scene, ink: Ink): Stranding | null {
  const { view } = scene;
  const { viewport, direction, rootOverflow, document: page } = view.snapshot;
  const rect = ink.shown!;
  const end = rect.x + rect.width;
  // Nearly everything on a page is on the page.
  const isInside = rect.y >= -LEAST_PX && rect.x >= -LEAST_PX && end <= viewport.width + LEAST_PX;
  if (isInside && rootOverflow.y !== 'hidden' && rootOverflow.y !== 'clip') return null;
  const over: Record<Side, number> = { left: 0, right: 0, top: -rect.y, bottom: 0 };
  if (direction === 'rtl') over.right = end - viewport.width;
  else {
    over.left = -rect.x;
    // Past a box with layout containment a page can't be scrolled to what leaves it (CSS Containment 2, section 3.3).
    if (!/hidden|clip/.test(rootOverflow.x)) over.right = end - Math.max(page.width, viewport.width);
  }
  const locked = rootOverflow.y === 'hidden' || rootOverflow.y === 'clip';
  // Under a dialog a page does not scroll for as long as that is open.
  if (locked && page.height >= viewport.shownHeight && !isUnderScreen(scene, ink))
    over.bottom = rect.y + rect.height - viewport.shownHeight;
  return worst(view, ink, over, 'page', (side) =>
    side === 'bottom' ? lockedBy(scene) : escapesFrom(scene, ink, side),
  );
}

/** Fixed to the screen, and beyond its edge. */
function offScreen(scene: Scene, ink: Ink, root: NodeIndex): Stranding | null {
  const { view } = scene;
  const screen = screenOnPage(view);
  return worst(view, ink, outOf(ink.shown!, screen), 'screen', (side) => {
    const isPast = (i: NodeIndex) => outOf(view.box(i), screen)[side] > 1;
    if (isPast(root)) return root;
    let outermost = root;
    for (let at = ink.node; at > root; at = view.containingElement(at)) {
      if (!isPast(at)) continue;
      if (displacementOf(view, at) !== null) return at;
      outermost = at;
    }
    return outermost;
  });
}

/** Before the start of a scroll container, at its first scroll position. */
function inScroller(scene: Scene, ink: Ink, holder: NodeIndex): Stranding | null {
  const { view } = scene;
  const { x, y } = view.scrolledBy(holder);
  const out = outOf({ ...ink.full, x: ink.full.x + x, y: ink.full.y + y }, view.paddingBox(holder));
  const over: Record<Side, number> = { left: 0, right: 0, top: 0, bottom: 0 };
  for (const axis of ['x', 'y'] as const) {
    const [side] = startAndEnd(view, holder, axis);
    if (scrollsAlong(view, holder, axis)) over[side] = out[side];
  }
  const of = holder === mainScrollerOf(view) ? 'main' : 'scroller';
  return worst(view, ink, over, of, (side) => escapesFrom(scene, ink, side, holder));
}

function worst(
  view: SnapshotView,
  ink: Ink,
  over: Record<Side, number>,
  of: Stranding['of'],
  culprit: (side: Side) => NodeIndex,
): Stranding | null {
  const side = (Object.keys(over) as Side[]).reduce((a, b) => (over[b] > over[a] ? b : a));
  if (over[side] <= LEAST_PX) return null;
  const axis = axisOf(side);
  const isAcross = ink.kind === 'text' && axis === acrossLines(view, ink.node);
  if (isAcross && over[side] < leastAcross(view, ink.line)) return null;
  return { ink, side, of, px: over[side], culprit: culprit(side) };
}

/** What was moved past the side, or else the outermost element that reaches past it. */
function escapesFrom(scene: Scene, ink: Ink, side: Side, holder = -1): NodeIndex {
  const { view } = scene;
  const page = { x: 0, y: 0, width: view.snapshot.viewport.width, height: Infinity };
  const edge = holder >= 0 ? view.paddingBox(holder) : page;
  let found = ink.node;
  let moved = -1;
  for (let at = ink.node; at > holder && at > view.body; at = view.containingElement(at)) {
    if (outOf(view.box(at), edge)[side] <= 1) continue;
    found = at;
    if (displacementOf(view, at) !== null) moved = at;
  }
  return moved >= 0 ? moved : found;
}

/** Whichever of the root and the body keeps the page from scrolling. */
function lockedBy({ view }: Scene): NodeIndex {
  return /hidden|clip/.test(view.style(view.root, 'overflow-y')) || view.body < 0 ? view.root : view.body;
}

/** Put out of sight until it is wanted: drawers, skip links, words for assistive technology. */
function isWaiting(scene: Scene, { ink, side, of, px: past, culprit }: Stranding): boolean {
  const { view } = scene;
  const isOfPage = of === 'page' || of === 'main';
  if (past >= sizeAlong(ink.full, axisOf(side)) && isIndentedAway(scene, ink.node)) return true;
  for (let at = ink.node; at > 0; at = view.parent(at)) {
    const displacement = displacementOf(view, at);
    if (displacement === null) continue;
    const box = view.box(at);
    if (displacement === 'negative-margin') {
      if (isPutAside(view, at, side)) return true;
      continue;
    }
    if (isOfPage && displacement === 'absolute' && hangsFromText(scene, at, side)) continue;
    // A link that skips to the content waits as a whole; the links of an open menu are in sight for the most part.
    const isSkip = view.has(ink.node, FLAG_PAGE_LINK) || view.has(at, FLAG_PAGE_LINK);
    if (isSkip && outsideShare(scene, box, side) >= 0.5) return true;
    // What stands in the flow and is moved by an offset is not waiting, unless it was sent far away.
    const isSentAway = displacement !== 'offset' || outsidePx(scene, box, side) >= FAR_PX;
    // A button of something that is on the screen was not left with its edge in sight, as a drawer with its handle is.
    const isOfShown = of === 'screen' && at !== fixedRoot(view, at) && view.has(at, FLAG_CONTROL);
    // What comes down from above stays on the screen, or is taken out of the flow: else a hole is left where it stood.
    if (side === 'top' && isOfPage && displacement === 'transform' && leavesHole(view, at)) continue;
    if (isSentAway && outsideShare(scene, box, side) >= (isOfShown ? 1 : 0.85)) return true;
    // With its edge in sight waits a drawer, and no part of a bar that is on the screen.
    const isDrawer = of === 'scroller' || (of === 'screen' && at === fixedRoot(view, at));
    const isPut = isMoved(view, at) || hasHandle(view, at);
    if (isPut && isDrawer && outsideShare(scene, box, side) >= 0.5) return true;
  }
  return isOfPage && side === 'top' && view.has(culprit, FLAG_PAGE_LINK);
}

/** A side bar whose margin is as wide as itself, or a banner above the page, takes no room, and comes in when that goes. */
function isPutAside(view: SnapshotView, i: NodeIndex, side: Side): boolean {
  const [top, right, , left] = view.margins(i);
  const margin = { left, right, top, bottom: 0 }[side];
  return margin < 0 && Math.abs(margin + sizeAlong(view.box(i), axisOf(side))) <= LEAST_PX;
}

/** Whether an element's place in the flow of the page, or of what scrolls in its stead, is kept for it. */
function leavesHole(view: SnapshotView, i: NodeIndex): boolean {
  for (let at = i; at > view.body && at !== mainScrollerOf(view); at = view.parent(at))
    if (/absolute|fixed|sticky/.test(view.style(at, 'position'))) return false;
  return true;
}

/**
 * Words that hang beside those of the block that they are placed in, and would be in its margin on a wider screen, or above them. What waits is
 * placed by the page or its screen, has something to press in it, or is far away.
 */
function hangsFromText(scene: Scene, i: NodeIndex, side: Side): boolean {
  const { view } = scene;
  const block = view.containingElement(i);
  if (block <= view.body || side === 'bottom' || outsidePx(scene, view.box(i), side) >= FAR_PX) return false;
  // What comes down from above is moved there.
  if (hasControl(scene, i) || (side === 'top' && isMovedLater(view, i))) return false;
  const around = view.box(block);
  const isInSight = around.x >= 0 && around.x + around.width <= view.snapshot.viewport.width;
  const isBeside = (node: NodeIndex) => scene.contains(block, node) && !scene.contains(i, node);
  return isInSight && scene.inksIn(around).some(({ kind, node }) => kind === 'text' && isBeside(node));
}

/** Whether it has a transition of its own from one place to another. */
function isMovedLater(view: SnapshotView, i: NodeIndex): boolean {
  return /\b(top|inset|transform|translate|margin-top)\b/.test(view.style(i, 'transition-property'));
}

function axisOf(side: Side): 'x' | 'y' {
  return side === 'left' || side === 'right' ? 'x' : 'y';
}

/** How far a box reaches past a side of the screen, CSS px. */
function outsidePx({ view }: Scene, box: Rect, side: Side): number {
  const { width, shownHeight } = view.snapshot.viewport;
  return outOf(box, { x: 0, y: 0, width, height: shownHeight })[side];
}

/** Of its size, the part that is past that side. */
function outsideShare(scene: Scene, box: Rect, side: Side): number {
  return Math.min(1, outsidePx(scene, box, side) / Math.max(1, sizeAlong(box, axisOf(side))));
}

const BEFORE_SCROLLER = {
  left: 'before the start of its scroll container',
  right: 'before the start of its scroll container',
  top: 'above its scroll container',
  bottom: '',
} as const;

const BEYOND = {
  page: {
    left: 'left of the page',
    right: 'right of the page',
    top: 'above the page',
    bottom: 'below a page that does not scroll',
  },
  screen: {
    left: 'left of the screen',
    right: 'right of the screen',
    top: 'above the screen',
    bottom: 'below the screen',
  },
  scroller: BEFORE_SCROLLER,
  main: BEFORE_SCROLLER,
} as const;

function sighting({ view }: Scene, render: RenderView, { entries, fault }: Culprits<Stranding>): Sighting {
  const first = entries.reduce((a, b) => (b.px > a.px ? b : a));
  const { more, isMany } = andMore(
    thingsAmong(
      view,
      entries.map(({ ink }) => ink),
    ) - 1,
  );
  const fixed = first.of === 'screen' ? ', to which it is fixed' : '';
  const where = `${BEYOND[first.of][first.side]}${fixed}`;
  return {
    ...fault,
    affected: entries.map(({ ink }) => ink.node),
    rect: entries.map(({ ink }) => ink.full).reduce(union),
    by: { axis: axisOf(first.side), px: first.px },
    message: `${capital(nameOf(view, first.ink))}${more} ${isMany ? 'reach' : 'reaches'} ${px(first.px)} ${where}, where no scrolling gets to, ${onScreen(render)}.`,
  };
}
