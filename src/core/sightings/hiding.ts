import { area, sizeAlong, type Rect } from '../geometry/rect.js';
import { isMarkAtCorner } from '../intent/overlays.js';
import { displacedRoot } from '../layout/branches.js';
import { displacementOf } from '../layout/displace.js';
import { isInlineText } from '../layout/displays.js';
import { perStyle } from '../layout/memo.js';
import { isMadeOfBorders } from '../layout/paint.js';
import { isUpright } from '../layout/rotation.js';
import { sceneOf, type Cover, type Ink } from '../layout/scene.js';
import { FLAG_PICTURE, FLAG_SOLID } from '../layout/snapshot.js';
import { isVertical } from '../layout/text-ink.js';
import { isFixed } from '../layout/viewport-layer.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { hiddenInk, lookAt, type Doubt } from './doubt.js';
import { isLargeDrawing, isSmallPicture } from './marks-on-words.js';

/** Of a line's height, this share must be hidden before letters are lost, or of large letters so much, CSS px. */
const LEAST_HEIGHT_SHARE = 0.22;
const LEAST_HEIGHT = 4;
/** And this share of a control's area. */
const LEAST_CONTROL_SHARE = 0.3;
/** And along the line, CSS px. */
export const LEAST_WIDTH = 4;
/** Of a line's height, what may be hidden beyond doubt, and of a control's area. */
const SLIGHT_HEIGHT_SHARE = 0.12;
const SLIGHT_CONTROL_SHARE = 0.12;
/** Smaller corners hide what a box does, CSS px. */
const LEAST_RADIUS = 8;
/** Up to here it may be meant. */
const MILD_SHARE = 0.4;

/** What lies under something by their boxes. */
export interface Hiding {
  readonly cover: Cover;
  readonly ink: Ink;
  readonly common: Rect;
  readonly culprit: NodeIndex;
  /**
   * What pixels have to tell: nothing; whether the cover is there at all, since its shape is known roughly; whether so little counts;
   * whether letters are in the little of a line that boxes tell to be hidden; or whether a sign or drawing lies on letters.
   */
  readonly doubt: 'none' | 'shape' | 'slight' | 'little' | 'mark';
}

/** Of the letters under a sign or a drawing, which is mostly clear, it crosses so much where it lies on them. */
const MARK_SHARE = 0.08;
/** Of letters under a large drawing, between whose parts others are seen. */
const DRAWING_SHARE = 0.2;
/** Boxes of signs have room round them, CSS px. */
const LEAST_MARK = 3;

export function markDoubt(view: SnapshotView, i: NodeIndex, { width, height }: Rect): Hiding['doubt'] | null {
  if (Math.min(width, height) < LEAST_MARK) return null;
  return isLargeDrawing(view, i) ? 'slight' : 'mark';
}

/** Whether boxes tell that something is lost; null where they tell that nothing is. */
export function doubtOf(view: SnapshotView, ink: Ink, cover: Cover, common: Rect): Hiding['doubt'] | null {
  if (isLost(view, ink, common)) {
    if (isRoughlyKnown(view, cover.node)) return 'shape';
    return ink.kind === 'text' && isLittle(ink, common) ? 'little' : 'none';
  }
  const isSlight = isLost(view, ink, common, SLIGHT_HEIGHT_SHARE, SLIGHT_CONTROL_SHARE);
  return isSlight && isPutThere(view, ink.node, cover.node) ? 'slight' : null;
}

/** One of both was moved, or what lies over the other is drawn round words of a line with more room than the lines have between them. */
function isPutThere(view: SnapshotView, under: NodeIndex, cover: NodeIndex): boolean {
  if (displacementOf(view, cover) !== null || isInlineText(view, cover)) return true;
  const scene = sceneOf(view);
  return displacedRoot(scene, cover, under) >= 0 || displacedRoot(scene, under, cover) >= 0;
}

/** A picture may be see-through in parts; round, cut or turned boxes are smaller than they are. */
function isRoughlyKnown(view: SnapshotView, i: NodeIndex): boolean {
  return (
    view.has(i, FLAG_PICTURE | FLAG_SOLID) ||
    !isUpright(view, i) ||
    hasShape(view, i) ||
    isMadeOfBorders(view, i)
  );
}

const hasShape = perStyle(
  (view, i) =>
    (view.style(i, 'clip-path') !== 'none' && view.style(i, 'clip-path') !== '') ||
    Number.parseFloat(view.style(i, 'border-top-left-radius')) >= LEAST_RADIUS,
);

function isLost(
  view: SnapshotView,
  ink: Ink,
  common: Rect,
  heightShare = LEAST_HEIGHT_SHARE,
  controlShare = LEAST_CONTROL_SHARE,
): boolean {
  // What counts of a picture was held against the cover before (`hidesPicture`).
  if (ink.kind === 'picture') return true;
  if (ink.kind === 'control') return area(common) >= controlShare * area(ink.full);
  const [across, along] = isVertical(view, ink.node) ? (['x', 'y'] as const) : (['y', 'x'] as const);
  return (
    sizeAlong(common, along) >= LEAST_WIDTH &&
    sizeAlong(common, across) >= Math.min(LEAST_HEIGHT, heightShare * sizeAlong(ink.full, across))
  );
}

type Spot = Pick<Hiding, 'cover' | 'ink' | 'common' | 'doubt'>;

export const asDoubt = ({ cover, ink, common }: Spot): Doubt => ({
  cover: cover.node,
  under: ink.node,
  area: common,
});

/** What a look showed to be hidden, CSS px²; null where nobody looked. */
export function lookedAt(view: SnapshotView, spot: Spot): number | null {
  return hiddenInk(view, asDoubt(spot), shareHiddenBy(view, spot));
}

/** Of the ink in a spot, what has to be hidden; undefined for what is asked of any box. */
function shareHiddenBy(view: SnapshotView, { cover, ink, doubt }: Spot): number | undefined {
  const { node } = cover;
  if (isLargeDrawing(view, node)) return DRAWING_SHARE;
  // Where badges are put, a sign may touch a letter.
  if (isMarkAtCorner(sceneOf(view), ink.node, cover)) return undefined;
  return doubt === 'mark' || isSmallPicture(view, node) || isMadeOfBorders(view, node)
    ? MARK_SHARE
    : undefined;
}

/** What looks showed to be hidden, each once, CSS px². */
export function inkGone(view: SnapshotView, entries: readonly Hiding[]): number {
  const seen = new Map(entries.map((entry) => [lookAt(view, asDoubt(entry)), lookedAt(view, entry) ?? 0]));
  return [...seen.values()].reduce((sum, hidden) => sum + hidden, 0);
}

/** So little that it may be meant; not where pixels have shown that letters are lost in it, or that what is fixed to the screen keeps them from being read. */
export function isMild(view: SnapshotView, hiding: Hiding): boolean {
  const { cover, ink, common, doubt } = hiding;
  if (ink.kind === 'picture' || (doubt === 'slight' && isFixed(view, cover.node))) return false;
  if (doubt === 'little' && (lookedAt(view, hiding) ?? 0) > 0) return false;
  return isLittle(ink, common);
}

function isLittle(ink: Ink, common: Rect): boolean {
  return ink.kind === 'text'
    ? common.height < MILD_SHARE * ink.full.height
    : area(common) < MILD_SHARE * area(ink.full);
}
