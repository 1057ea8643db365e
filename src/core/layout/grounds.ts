import { alphaOf, coloursIn, contrastOf, UNSEEN } from '../css/colours.js';
import { meets, type Rect } from '../geometry/rect.js';
import { passedDown, perSnapshot, perStyle } from './memo.js';
import { groundAlpha, hasBackgroundImage, isGradientAllOver } from './paint.js';
import type { Ink, Scene } from './scene.js';
import { FLAG_PICTURE } from './snapshot.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** A ground that is this dense has its own colour. */
const DENSE = 0.9;

const hasColour = (view: SnapshotView, i: NodeIndex) => groundAlpha(view, i) >= DENSE;

/** The nearest element that draws the ground of an element's words, itself included: a colour or a picture; −1 where it is the page's. */
export const groundOf = passedDown<NodeIndex>(
  (view, i) => view.parent(i),
  (view, i, above) => (i > view.body && (hasColour(view, i) || hasBackgroundImage(view, i)) ? i : above),
  -1,
);

/** The colour of a gradient over the whole of an element whose stops nobody tells apart; null where there is none. */
const colourOfGradient = perStyle((view, i): string | null => {
  if (!isGradientAllOver(view, i)) return null;
  const stops = coloursIn(view.style(i, 'background-image'));
  const [first] = stops;
  if (first === undefined || stops.some((stop) => alphaOf(stop) < DENSE)) return null;
  return stops.every((stop) => contrastOf(first, stop) < UNSEEN) ? first : null;
});

/** Whether a picture, or a gradient that is seen to be one, is behind what an element holds. */
const hasPictureBehind = (view: SnapshotView, i: NodeIndex) =>
  hasBackgroundImage(view, i) && colourOfGradient(view, i) === null;

/** The one colour that an element draws its ground in; null where that is a picture. */
export function groundColour(view: SnapshotView, i: NodeIndex): string | null {
  if (hasPictureBehind(view, i) || view.has(i, FLAG_PICTURE)) return null;
  return colourOfGradient(view, i) ?? view.style(i, 'background-color');
}

/** The one colour on which an element's words stand by what holds them alone; null where that is a picture. */
export function colourAround(view: SnapshotView, i: NodeIndex): string | null {
  const ground = groundOf(view, i);
  return ground < 0 ? pageColour(view) : groundColour(view, ground);
}

/** The colour that shows where the picture of a ground ends: its own, or that around it; null where that is a picture. */
export function colourBehind(view: SnapshotView, ground: NodeIndex): string | null {
  return hasColour(view, ground)
    ? view.style(ground, 'background-color')
    : colourAround(view, view.parent(ground));
}

/** The one colour under an ink in the middle of a rectangle; null where a picture is drawn there, or that is not known. */
export function colourUnder(scene: Scene, ink: Ink, rect: Rect): string | null {
  const { view } = scene;
  const middle = middleOfRect(rect);
  // The ground of the page lies under everything, whose ever it is.
  const giver = canvasGiver(view);
  const under = scene.coversIn(middle).filter(({ rank, node }) => rank < ink.rank && node !== giver);
  const isPictured = pictured(view).some((i) => meets(view.box(i), middle, 0));
  if (isPictured) return null;
  if (under.length === 0) return pageColour(view);
  return groundColour(view, under.reduce((a, b) => (b.rank > a.rank ? b : a)).node);
}

/** A px in the middle of a rectangle. */
export function middleOfRect({ x, y, width, height }: Rect): Rect {
  return { x: x + width / 2 - 0.5, y: y + height / 2 - 0.5, width: 1, height: 1 };
}

const PICTURES = /^(svg|canvas|img|video|iframe|object|embed)$/;

/** What draws a picture, or has one behind its content. */
export const pictured = perSnapshot((view): readonly NodeIndex[] => {
  const found: NodeIndex[] = [];
  for (let i = 1; i < view.count; i++)
    if (view.isRendered(i) && (hasPictureBehind(view, i) || PICTURES.test(view.tag(i)))) found.push(i);
  return found;
});

/** Whose ground the page is drawn on: the root's, or its body's (CSS Backgrounds 3, section 2.11.2); −1 where neither has one. */
function canvasGiver(view: SnapshotView): NodeIndex {
  return [view.root, view.body].find((i) => hasBackgroundImage(view, i) || hasColour(view, i)) ?? -1;
}

/** The one colour that the page is drawn on; null where that is a picture. */
function pageColour(view: SnapshotView): string | null {
  const giver = canvasGiver(view);
  return giver < 0 ? 'rgb(255, 255, 255)' : groundColour(view, giver);
}
