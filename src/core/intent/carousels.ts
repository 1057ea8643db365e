import { outAlong, sizeAlong, type Rect } from '../geometry/rect.js';
import type { Loss } from './loss.js';
import { likeness } from '../identity/signature.js';
import { blockAround } from '../layout/ancestors.js';
import { isOutOfFlow } from '../layout/displace.js';
import { isMoved } from '../layout/transforms.js';
import type { Ink, Scene } from '../layout/scene.js';
import { FLAG_CONTROL, FLAG_FIELD, FLAG_PAGE_LINK } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** Words that run by. */
const RUNS_BY = /marquee|ticker/i;

const NAMED = /carousel|slider|slides?\b|swipe|marquee|ticker|gallery-track|rotator/i;

/**
 * A row of slides seen through a window: what is beside the window comes when a button is pressed or by itself. Told by a
 * track that is moved by a transform, by its name, or by slides as wide as the window, one of them in it, with buttons beside it.
 * A name alone does not speak for what is cut through: somebody has to be able to move it.
 */
export function isPageOfCarousel(scene: Scene, { ink, cutter, axis, whole }: Loss): boolean {
  const { view } = scene;
  const chain: NodeIndex[] = [];
  for (let at = ink.node; at > cutter; at = view.parent(at)) chain.push(at);
  if (axis === 'y') return whole && chain.some((at) => isOneOfScreens(view, at, cutter));
  if (isButtonOnWindow(scene, ink, cutter)) return false;
  if (chain.some((at) => isWiderThanWindow(scene, at, cutter))) return false;
  const isSettled = whole || ink.kind === 'picture';
  if (chain.some((at) => isMoved(view, at) && (isSettled || hasMoreToShow(scene, at, cutter)))) return true;
  const around: NodeIndex[] = [];
  for (let at = cutter; at >= 0 && at >= cutter - 40; at = view.parent(at)) around.push(at);
  const isOfNamed =
    !hasLeftItsBlock(scene, ink, cutter) && [...chain, ...around].some((at) => isNamed(scene, at));
  if (isOfNamed && (whole || isDriven(scene, cutter, chain))) return true;
  const window = view.contentBox(cutter);
  const isSlide = (at: NodeIndex) => view.box(at).width >= 0.6 * window.width;
  const isBeside = (at: NodeIndex) => {
    const box = view.box(at);
    return box.x >= window.x + window.width - 2 || box.x + box.width <= window.x + 2;
  };
  const slide = chain.findLast((at) => isSlide(at) && isBeside(at));
  if (slide === undefined) return false;
  const slides = shownIn(view, view.parent(slide)).filter(
    (at) => isSlide(at) && view.tag(at) === view.tag(slide),
  );
  return slides.some((at) => !isBeside(at)) && hasButtonsBeside(scene, cutter, slides);
}

/**
 * Whether an element is one of several below one another that are each as high as the window which cuts them off, and of which one is shown at a
 * time: the window is the screen, or others have gone by above it (a wheel of digits).
 */
function isOneOfScreens(view: SnapshotView, i: NodeIndex, cutter: NodeIndex): boolean {
  const window = view.contentBox(cutter);
  const isAsHigh = (at: NodeIndex) => Math.abs(view.box(at).height - window.height) <= SLACK;
  if (!isAsHigh(i)) return false;
  const screens = shownIn(view, view.parent(i)).filter((at) => view.isElement(at) && !isOutOfFlow(view, at));
  const isAbove = (at: NodeIndex) => view.box(at).y + view.box(at).height <= window.y + SLACK;
  const isScreen = Math.abs(window.height - view.snapshot.viewport.height) <= SLACK;
  return screens.length > 1 && screens.every(isAsHigh) && (isScreen || screens.some(isAbove));
}

/** Rounding, and the border of a slide, CSS px. */
const SLACK = 4;

/** Whether an element is a slide in its place that its window is too narrow for: no button brings the rest of it. */
function isWiderThanWindow({ view }: Scene, slide: NodeIndex, cutter: NodeIndex): boolean {
  const [box, window] = [view.box(slide), view.contentBox(cutter)];
  const isInPlace = Math.abs(box.x - window.x) <= SLACK;
  if (!isInPlace || box.width <= window.width + SLACK || isMoved(view, slide)) return false;
  return othersLike(view, slide).some((at) => areBeside(view.box(at), box));
}

/** What is seen beside an element in the same holder, and is like it. */
function othersLike(view: SnapshotView, i: NodeIndex): NodeIndex[] {
  const alike = likeness(view, i);
  return shownIn(view, view.parent(i)).filter((at) => at !== i && likeness(view, at) === alike);
}

function shownIn(view: SnapshotView, holder: NodeIndex): NodeIndex[] {
  return view.childrenOf(holder).filter((at) => view.isRendered(at));
}

/**
 * Words that run out of a block that is cut off nowhere are no slide of something around that, nor are those in the lines of what cuts them
 * off; words that run by have no block of their width.
 */
function hasLeftItsBlock(scene: Scene, { kind, node, full }: Ink, cutter: NodeIndex): boolean {
  const { view } = scene;
  const block = blockAround(view, node);
  if (kind !== 'text' || [block, cutter].some((at) => RUNS_BY.test(nameOf(scene, at)))) return false;
  if (block === cutter) return !isNamed(scene, cutter);
  const [box, window] = [view.box(block), view.paddingBox(cutter)];
  return outAlong(box, window, 'x') <= 1 && outAlong(full, box, 'x') > 2;
}

/**
 * Whether moving an element brings other things into its window: it is one of several alike, or a row of which some stand in the window
 * and some beside it. What is alone and was moved, or set in the middle by a transform, has lost what is cut off.
 */
function hasMoreToShow({ view }: Scene, moved: NodeIndex, cutter: NodeIndex): boolean {
  if (othersLike(view, moved).length > 0) return true;
  const window = view.contentBox(cutter);
  const boxes = shownIn(view, moved).map((at) => view.box(at));
  const isWithin = ({ x, width }: Rect) => x + width > window.x + 1 && x < window.x + window.width - 1;
  return boxes.some(
    (one) => isWithin(one) && boxes.some((other) => areBeside(one, other) && isPast(other, window)),
  );
}

function areBeside(a: Rect, b: Rect): boolean {
  return a.x + a.width <= b.x + 1 || b.x + b.width <= a.x + 1;
}

function isPast({ x, width }: Rect, window: Rect): boolean {
  return x < window.x - 1 || x + width > window.x + window.width + 1;
}

/** Whether there is something that moves a row: it says that it will be moved, or buttons stand by its window. */
function isDriven(scene: Scene, cutter: NodeIndex, chain: readonly NodeIndex[]): boolean {
  const { view } = scene;
  if (chain.some((at) => view.style(at, 'will-change').includes('transform'))) return true;
  const part = chain.at(-1);
  if (part === undefined) return false;
  const isAlike = (at: NodeIndex) => likeness(view, at) === likeness(view, part);
  return hasButtonsBeside(scene, cutter, view.childrenOf(cutter).filter(isAlike));
}

/** Of the window's width, what a button is at most. */
const BUTTON_SHARE = 0.3;

/** A button that was placed on the window itself, and is seen in part: it moves the slides and is none of them. */
function isButtonOnWindow({ view }: Scene, { node, kind, shown }: Ink, cutter: NodeIndex): boolean {
  return (
    kind === 'control' &&
    shown !== null &&
    view.style(node, 'position') === 'absolute' &&
    view.containingElement(node) === cutter &&
    view.box(node).width <= BUTTON_SHARE * view.box(cutter).width
  );
}

/** Words that run by: an animation without end moves what is longer than the window, and brings every part of it into sight. */
export function isRunningBy({ view }: Scene, { ink, cutter, axis }: Loss): boolean {
  const window = sizeAlong(view.paddingBox(cutter), axis);
  for (let at = ink.node; at > cutter; at = view.parent(at)) {
    const isEndless = view.style(at, 'animation-iteration-count').includes('infinite');
    if (isEndless && sizeAlong(view.box(at), axis) > window) return true;
  }
  return false;
}

function isNamed(scene: Scene, i: NodeIndex): boolean {
  return NAMED.test(nameOf(scene, i));
}

function nameOf({ view }: Scene, i: NodeIndex): string {
  return `${view.id(i)} ${view.classes(i).join(' ')} ${view.tag(i) === 'marquee' ? 'marquee' : ''}`;
}

/** So near do the buttons of a window stand above or below it, CSS px. */
const NEAR_PX = 80;

/** Buttons by the window that are there at this size and not part of a slide; a link to another page and a field move nothing. */
function hasButtonsBeside(scene: Scene, cutter: NodeIndex, slides: readonly NodeIndex[]): boolean {
  const { view } = scene;
  const around = Math.max(0, view.parent(cutter));
  for (let at = around; at <= scene.lastOf(around); at++) {
    if (!view.has(at, FLAG_CONTROL) || view.has(at, FLAG_FIELD) || !view.isRendered(at)) continue;
    const moves = view.tag(at) !== 'a' || view.has(at, FLAG_PAGE_LINK);
    if (moves && isNear(view.box(at), view.box(cutter)) && !slides.some((each) => scene.contains(each, at)))
      return true;
  }
  return false;
}

function isNear(button: Rect, window: Rect): boolean {
  return button.y + button.height >= window.y - NEAR_PX && button.y <= window.y + window.height + NEAR_PX;
}
