import { alphaOf, alphasIn } from '../css/colours.js';
import { solidShadowsIn } from '../css/solid-shadow.js';
import { grown, type Rect } from '../geometry/rect.js';
import { isInline } from './displays.js';
import { fillsLetters } from './letters.js';
import { perNode, perStyle } from './memo.js';
import { FLAG_PICTURE, FLAG_SOLID } from './snapshot.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** Whether what is under an element's box is not seen through it. */
export function isOpaque(view: SnapshotView, i: NodeIndex): boolean {
  if (hasOpaqueBackground(view, i) || view.has(i, FLAG_SOLID)) return true;
  return view.has(i, FLAG_PICTURE) && /^(img|video|iframe|meter|progress)$/.test(view.tag(i));
}

/** A border this thick, CSS px, is a shape of its own. */
const THICK = 3;

/** Whether an element without room in it is drawn by thick borders alone: a triangle, an arrow, a corner that is turned down. */
export const isMadeOfBorders = perNode((view, i): boolean => {
  const { width, height } = view.paddingBox(i);
  if (width >= 1 && height >= 1) return false;
  return view.borders(i).some((border, side) => border >= THICK && opaqueBorders(view, i)[side]!);
});

const hasOpaqueBackground = perStyle(
  (view, i): boolean =>
    groundAlpha(view, i) >= (blursWhatIsUnder(view, i) ? 0.4 : 0.9) ||
    (hasBackgroundImage(view, i) &&
      isOpaqueImage(view.style(i, 'background-image'), view.style(i, 'background-size'))),
);

/** How solid the colour is that an element draws behind what it holds: 0 is clear, or there is none. */
export const groundAlpha = perStyle((view, i) =>
  fillsLetters(view, i) ? 0 : alphaOf(view.style(i, 'background-color')),
);

/** Behind frosted glass letters can't be read, though colours shine through. */
function blursWhatIsUnder(view: SnapshotView, i: NodeIndex): boolean {
  const radius = /blur\(([\d.]+)px\)/.exec(view.style(i, 'backdrop-filter'))?.[1];
  return radius !== undefined && Number.parseFloat(radius) >= 4;
}

/** Gradients without see-through stops, and pictures that fill the box. */
function isOpaqueImage(image: string, size: string): boolean {
  return isGradient(image) ? leastAlphaIn(image) >= 0.9 : /cover|100%/.test(size);
}

const isGradient = (image: string) => /gradient\(/.test(image);

/** How solid a gradient is where it is most see-through; 0 where it has no colours. */
function leastAlphaIn(gradient: string): number {
  const alphas = alphasIn(gradient);
  return alphas.length === 0 ? 0 : Math.min(...alphas);
}

/** Whether nothing but gradients, each as large as the box, is drawn behind what an element holds (CSS Images 3, section 4.3). */
export const isGradientAllOver = perStyle((view, i): boolean => {
  const image = view.style(i, 'background-image');
  if (!hasBackgroundImage(view, i) || !isGradient(image) || image.includes('url(')) return false;
  return !/\d/.test(view.style(i, 'background-size'));
});

/** How solid the ground of an element is where it is most see-through, be it a colour or a gradient. */
export const leastGroundAlpha = perStyle((view, i): number => {
  const ofColour = groundAlpha(view, i);
  if (!isGradientAllOver(view, i)) return ofColour;
  return Math.max(ofColour, leastAlphaIn(view.style(i, 'background-image')));
});

/** Whether a box is drawn: a reader sees its edge, by a border all round, a background of its own, or a shadow. */
export const isDrawn = perNode((view, i): boolean => {
  if (isInline(view, i)) return hasOwnBackground(view, i);
  return hasShadow(view, i) || hasBorderAllRound(view, i) || hasOwnBackground(view, i);
});

const solidShadows = perStyle((view, i) => solidShadowsIn(view.style(i, 'box-shadow')));

/** What solid shadows draw beside an upright box: nothing is drawn of them under it. */
export function shadowsOf(view: SnapshotView, i: NodeIndex): readonly Rect[] {
  const shadows = solidShadows(view, i);
  if (shadows.length === 0 || isInline(view, i)) return NONE;
  const box = view.box(i);
  return shadows.flatMap(({ x, y, spread }) => {
    const shadow = grown({ ...box, x: box.x + x, y: box.y + y }, spread);
    return around(shadow, box);
  });
}

const NONE: readonly Rect[] = [];

/** The parts of a rectangle above, below, left and right of another one. */
function around(rect: Rect, box: Rect): Rect[] {
  const [right, bottom] = [rect.x + rect.width, rect.y + rect.height];
  const [boxRight, boxBottom] = [box.x + box.width, box.y + box.height];
  return [
    { ...rect, height: Math.min(bottom, box.y) - rect.y },
    { ...rect, y: Math.max(rect.y, boxBottom), height: bottom - Math.max(rect.y, boxBottom) },
    { ...rect, width: Math.min(right, box.x) - rect.x },
    { ...rect, x: Math.max(rect.x, boxRight), width: right - Math.max(rect.x, boxRight) },
  ].filter(({ width, height }) => width > 0 && height > 0);
}

const hasShadow = perStyle((view, i): boolean => {
  const shadow = view.style(i, 'box-shadow');
  return shadow !== '' && shadow !== 'none' && !/inset/.test(shadow);
});

/** The sides of a box, in the order in which CSS has them. */
export const SIDES = ['top', 'right', 'bottom', 'left'] as const;

/** Of each side, whether a border there is seen. */
const seenBorders = perStyle((view, i) =>
  SIDES.map((side) => alphaOf(view.style(i, `border-${side}-color`)) > 0.1),
);

/** The same, whether nothing is seen through it. */
const opaqueBorders = perStyle((view, i) =>
  SIDES.map((side) => alphaOf(view.style(i, `border-${side}-color`)) >= 0.9),
);

export function hasBorderAllRound(view: SnapshotView, i: NodeIndex): boolean {
  return SIDES.filter((side) => hasBorderAt(view, i, side)).length >= 3;
}

/** Whether a border is seen at one side of a box. */
export function hasBorderAt(view: SnapshotView, i: NodeIndex, side: (typeof SIDES)[number]): boolean {
  const at = SIDES.indexOf(side);
  return view.snapshot.nodes.border[4 * i + at]! > 0 && seenBorders(view, i)[at]!;
}

/** Whether a picture or gradient is drawn behind what an element holds. */
export const hasBackgroundImage = perStyle((view, i): boolean => {
  const image = view.style(i, 'background-image');
  return image !== '' && image !== 'none' && !fillsLetters(view, i);
});

const hasBackgroundColour = (view: SnapshotView, i: NodeIndex) => groundAlpha(view, i) >= 0.04;

/** A background that differs from what it lies on. */
function hasOwnBackground(view: SnapshotView, i: NodeIndex): boolean {
  if (hasBackgroundImage(view, i)) return true;
  if (!hasBackgroundColour(view, i)) return false;
  const colour = view.style(i, 'background-color');
  for (let at = view.parent(i); at >= 0; at = view.parent(at)) {
    if (hasBackgroundColour(view, at)) return view.style(at, 'background-color') !== colour;
    if (hasBackgroundImage(view, at)) return true;
  }
  return !/^rgb\(255, 255, 255\)$/.test(colour);
}
