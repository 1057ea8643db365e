import { isSymbols } from '../intent/typography.js';
import { controlAround } from '../layout/ancestors.js';
import { displacedRoot } from '../layout/branches.js';
import { hasBorderAt, isOpaque, SIDES } from '../layout/paint.js';
import { isUpright } from '../layout/rotation.js';
import type { Cover, Ink, Scene } from '../layout/scene.js';
import { FLAG_PICTURE, FLAG_PICTURE_CONTENT } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** A larger sign, or picture of a file, is a ground, CSS px. */
const MOST_SIDE = 48;
/** A quotation mark may be as high as some lines, CSS px. */
const MOST_HIGH = 200;
/** A larger drawing is no sign, CSS px. */
const MOST_DRAWN = 120;
/** A row of signs, stars for instance, CSS px. */
const MOST_ROW = 120;
/** A sign hardly shows through letters, nor they through it. */
const LEAST_OPACITY = 0.35;

/**
 * Signs and drawings that stand over words by their boxes, since one of the two was moved there: `▾` at the end of a label, a glass in
 * a field, a wave along the edge of a panel. How much of a box a sign or a drawing fills, nobody knows but pixels.
 */
export function marksOnWords(scene: Scene): { readonly cover: Cover; readonly ink: Ink }[] {
  return [...signsOf(scene), ...drawnSignsOf(scene)].flatMap((cover) =>
    scene
      .inksIn(cover.rect)
      .filter((ink) => isUnder(scene, ink, cover))
      .map((ink) => ({ cover, ink })),
  );
}

function signsOf(scene: Scene): Cover[] {
  return scene.inks
    .filter(
      (mark) => mark.shown !== null && isMark(scene, mark) && scene.opacity[mark.node]! >= LEAST_OPACITY,
    )
    .map(({ node, shown, rank }) => ({ node, rect: shown!, rank }));
}

/** Signs without letters: pictures that style sheets add, and boxes of which some borders are drawn and nothing else, and that are turned: a chevron, a tick. */
function drawnSignsOf(scene: Scene): Cover[] {
  const { view } = scene;
  const found: Cover[] = [];
  for (let i = 0; i < view.count; i++) {
    if (!scene.painted[i] || scene.opacity[i]! < LEAST_OPACITY) continue;
    if (!view.has(i, FLAG_PICTURE_CONTENT) && (isUpright(view, i) || !drawsBordersAlone(view, i))) continue;
    const rect = view.box(i);
    if (Math.max(rect.width, rect.height) <= MOST_SIDE)
      found.push({ node: i, rect, rank: scene.order.box[i]! });
  }
  return found;
}

function drawsBordersAlone(view: SnapshotView, i: NodeIndex): boolean {
  const isBordered = SIDES.some((side) => hasBorderAt(view, i, side));
  return isBordered && view.linesOf(i).length === 0 && !isOpaque(view, i);
}

/** Pictures of files are opaque boxes until they are looked at: they are there already. */
function isMark({ view }: Scene, mark: Ink): boolean {
  if (mark.kind === 'text') {
    const { width, height } = mark.full;
    return isSymbols(view, mark) && height <= MOST_HIGH && width <= MOST_ROW;
  }
  return isDrawing(view, mark.node);
}

/** What is clear where nothing is drawn. */
function isDrawing(view: SnapshotView, i: NodeIndex): boolean {
  return view.tag(i) === 'svg' || view.tag(i) === 'canvas';
}

/** A drawing of which words have to be hidden; a sign has only to lie on them. */
export function isLargeDrawing(view: SnapshotView, i: NodeIndex): boolean {
  const { width, height } = view.box(i);
  return isDrawing(view, i) && Math.max(width, height) > MOST_DRAWN;
}

/** A picture so small that it is a sign, most of whose box is clear. */
export function isSmallPicture(view: SnapshotView, i: NodeIndex): boolean {
  const { width, height } = view.box(i);
  return view.has(i, FLAG_PICTURE) && width <= MOST_SIDE && height <= MOST_SIDE;
}

function isUnder(scene: Scene, ink: Ink, mark: Cover): boolean {
  const { view } = scene;
  if (ink.kind !== 'text' || ink.rank >= mark.rank || isSymbols(view, ink)) return false;
  if (scene.contains(mark.node, ink.node)) return false;
  // A button with a sign on it is a control that lies there.
  const control = controlAround(view, mark.node);
  if (control >= 0 && !scene.contains(control, ink.node)) return false;
  return displacedRoot(scene, mark.node, ink.node) >= 0 || displacedRoot(scene, ink.node, mark.node) >= 0;
}
