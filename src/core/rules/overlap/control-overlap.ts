import { UNSEEN } from '../../css/colours.js';
import { sizeText } from '../../geometry/format.js';
import { area, intersect, meets, type Rect } from '../../geometry/rect.js';
import { isAdornment, isOnLargerControl } from '../../intent/controls.js';
import { fillsScreen, hangsFromControl, isDismissible, isLaidOverPage } from '../../intent/overlays.js';
import { isDecoration } from '../../intent/decoration.js';
import { displacementOf } from '../../layout/displace.js';
import { areAlternatives, areShingled } from '../../intent/stacks.js';
import { overlapCulprit } from '../../sightings/culprit.js';
import { controlAround } from '../../layout/ancestors.js';
import { isDrawn, isOpaque } from '../../layout/paint.js';
import { sceneOf, type Ink, type Scene } from '../../layout/scene.js';
import { areApart } from '../../layout/rotated.js';
import { isFreedInScroller } from '../../layout/scrollers.js';
import { FLAG_FIELD, FLAG_REPLACED } from '../../layout/snapshot.js';
import { passOneAnother } from '../../layout/sticking.js';
import { fixedRoot, isFixed, isFreedByScrolling } from '../../layout/viewport-layer.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import { stacked, takingPart, type Pair } from '../../sightings/overlap-pair.js';
import { contrastOnGround } from '../../sightings/unseen-words.js';
import { capital, nameOf, onScreen } from '../../sightings/words.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';
import { isContents, isInline } from '../../layout/displays.js';

/** Touching borders and rounding, CSS px. */
const LEAST_PX = 2.5;
/** So little may be meant, CSS px. */
const MILD_PX = 6;
/** Of words along their line, in which there are letters no wider. */
const MILD_ALONG_PX = 3;
/** Of a line that something opaque takes, this share of its height. */
const MILD_OF_LINE = 0.3;
/** Of a line of text, this share of its height must be overlapped, or of large letters so much, CSS px. */
const LEAST_TEXT_SHARE = 0.22;
const LEAST_TEXT_PX = 4;
/** Of the smaller of two controls, this share must be overlapped. */
const LEAST_SHARE = 0.06;

/** A control lies on another control or on text. How it measures and what it leaves alone: docs/rules/control-overlap.md. */
export const controlOverlap: Rule = {
  meta: {
    name: 'control-overlap',
    family: 'overlap',
    severity: 'error',
    summary: 'a control lies on another control or on text',
  },
  check(render) {
    const scene = sceneOf(render.view);
    const controls = scene.inks.filter((ink) => ink.kind === 'control' && ink.shown);
    const pairs = controls.flatMap((control) =>
      scene
        .inksIn(control.shown!)
        // Two controls meet once; a text has no turn of its own.
        .filter(({ kind, index }) => kind === 'text' || (kind === 'control' && index > control.index))
        .flatMap((other) => pairOf(scene, control, other) ?? []),
    );
    return byCulprit(scene.view, pairs).map((group) => sighting(scene, render, group));
  },
};

function pairOf(scene: Scene, control: Ink, other: Ink): Pair | null {
  const { view } = scene;
  if (scene.contains(control.node, other.node)) return null;
  // What stands in words, such as a box to be ticked in its label, keeps clear of them unless it was moved.
  // (What has no box of its own lays nothing out: its words and what stands in it are items of what holds it.)
  const isWithin = scene.contains(other.node, control.node) && !isContents(view, other.node);
  if (isWithin && (other.kind !== 'text' || displacementOf(view, control.node) === null)) return null;
  const common = intersect(control.shown!, other.shown!);
  if (!common || common.width < LEAST_PX || common.height < LEAST_PX || !scene.isOnPage(common, control.node))
    return null;
  if (areApart(view, control, other, LEAST_PX)) return null;
  if (isDecoration(scene, control.node) || isDecoration(scene, other.node)) return null;
  if (isLaidOverPage(scene, control.node, other.node)) return null;
  if (hangsFromControl(scene, control.node, other.node) || hangsFromControl(scene, other.node, control.node))
    return null;
  if (isFixed(view, control.node) !== isFixed(view, other.node) && comesFree(scene, control, other, common))
    return null;
  if (isPassing(scene, control.node, other.node) || isPassing(scene, other.node, control.node)) return null;
  if (passOneAnother(view, control.node, other.node)) return null;
  if (isFreedInScroller(view, other.node, common, control.node, control.shown!)) return null;
  if (isFreedInScroller(view, control.node, common, other.node, other.shown!)) return null;
  const found =
    other.kind === 'text' ? onText(scene, control, other, common) : onControl(scene, control, other, common);
  if (!found) return null;
  const [upper, lower] = stacked(control, other);
  return { upper, lower, common, culprit: overlapCulprit(scene, upper, lower, common) };
}

/** Whether of two, of which one stays on the screen, the other scrolls out from under it, or is hidden, which is another rule's. */
function comesFree(scene: Scene, a: Ink, b: Ink, common: Rect): boolean {
  const { view } = scene;
  const [still, moving] = isFixed(view, a.node) ? [a, b] : [b, a];
  if (isFreedByScrolling(view, moving.shown!, still.shown!)) return true;
  return still.rank > moving.rank && (isOpaque(view, still.node) || isHidden(scene, moving, still, common));
}

/** Whether something fixed to the screen lies over another such thing for a while, and is sent away by a visitor. */
function isPassing(scene: Scene, i: NodeIndex, other: NodeIndex): boolean {
  const { view } = scene;
  if (!isFixed(view, i) || fixedRoot(view, i) === fixedRoot(view, other)) return false;
  return isDismissible(scene, i, other) || fillsScreen(scene, i, other);
}

function onText(scene: Scene, control: Ink, text: Ink, common: Rect): boolean {
  const { view } = scene;
  // Words that belong to a control of their own are judged as that control.
  const own = controlAround(view, text.node);
  if (own >= 0 && !isInline(view, own)) return false;
  if (common.height < Math.min(LEAST_TEXT_PX, LEAST_TEXT_SHARE * text.full.height)) return false;
  if (view.has(control.node, FLAG_FIELD)) {
    // What is behind a field can't be read, wherever in it it stands.
    const isBehind = text.rank < control.rank && isOpaque(view, control.node);
    if (!isBehind && isAdornment(scene, control, text)) return false;
  } else if (!showsOn(scene, control, common)) {
    // A link over a whole card: nothing of it is seen on the words, and they are what it is for.
    return false;
  } else if (text.rank > control.rank && isBadgeText(scene, text)) return false;
  return !(text.rank < control.rank && isHidden(scene, text, control, common));
}

function onControl(scene: Scene, a: Ink, b: Ink, common: Rect): boolean {
  if (area(common) < LEAST_SHARE * Math.min(area(a.full), area(b.full))) return false;
  if (!meetSeen(scene, a, b, common)) return false;
  if (isOnLargerControl(scene, a, b) || areShingled(scene, a.node, b.node)) return false;
  if (isGroundOf(scene, ...stacked(a, b), common)) return false;
  return !areAlternatives(scene, a.node, b.node);
}

/** Of its box, what marks a control has so much under that. */
const MOST_OF_GROUND = 0.8;

/** Whether the lower one only marks the upper: it shows nothing but its ground, whose colour the words in it have. */
function isGroundOf(scene: Scene, upper: Ink, lower: Ink, common: Rect): boolean {
  if (area(common) < MOST_OF_GROUND * area(lower.full) || isDrawn(scene.view, upper.node)) return false;
  const shown = scene.inksWithin(lower).filter((ink) => ink.shown !== null);
  return shown.length > 0 && shown.every((ink) => (contrastOnGround(scene, ink) ?? Infinity) < UNSEEN);
}

/** Of an undrawn control, what it lies over on another counts only where it takes most clicks meant for that. */
const TAKES_SHARE = 0.3;

/** Whether something of both is seen where they meet, or one takes the place of the other. */
function meetSeen(scene: Scene, a: Ink, b: Ink, common: Rect): boolean {
  if (isDrawn(scene.view, a.node) || isDrawn(scene.view, b.node)) return true;
  const [inA, inB] = [a, b].map((control) => scene.inksWithin(control).filter(({ shown }) => shown !== null));
  if (inA!.some((x) => inB!.some((y) => meets(x.shown!, y.shown!, -LEAST_PX)))) return true;
  const isSeen = showsOn(scene, a, common) || showsOn(scene, b, common);
  return isSeen && area(common) >= TAKES_SHARE * Math.min(area(a.full), area(b.full));
}

/** Whether something of a control is seen in a place: its drawn box, or a word or picture of its own. */
function showsOn(scene: Scene, control: Ink, common: Rect): boolean {
  // A box to be ticked is drawn by the browser.
  if (isDrawn(scene.view, control.node) || scene.view.has(control.node, FLAG_REPLACED)) return true;
  return scene.inksIn(common).some((ink) => ink.kind !== 'control' && scene.contains(control.node, ink.node));
}

/** A count or mark with a background of its own, set on a control by design. */
function isBadgeText(scene: Scene, text: Ink): boolean {
  const { view } = scene;
  const box = view.box(text.node);
  return isDrawn(view, text.node) && box.height <= 32 && box.width <= 90;
}

/** Something opaque that holds the upper one hides the lower one: that is another rule's. */
function isHidden(scene: Scene, lower: Ink, upper: Ink, common: Rect): boolean {
  return scene
    .coversIn(common)
    .some(
      (cover) =>
        cover.rank > lower.rank &&
        cover.node !== upper.node &&
        scene.contains(cover.node, upper.node) &&
        !scene.contains(cover.node, lower.node),
    );
}

function isMild(view: SnapshotView, { upper, lower, common: { width, height } }: Pair): boolean {
  const isOnText = upper.kind === 'text' || lower.kind === 'text';
  const takesLine = lower.kind === 'text' && isOpaque(view, upper.node);
  const across = takesLine ? Math.min(MILD_PX, MILD_OF_LINE * lower.full.height) : MILD_PX;
  return height <= across || width <= (isOnText ? MILD_ALONG_PX : MILD_PX);
}

function sighting({ view }: Scene, render: RenderView, { entries, fault }: Culprits<Pair>): Sighting {
  const grave = entries.filter((pair) => !isMild(view, pair));
  const { upper, lower, common } = (grave.length > 0 ? grave : entries).reduce((a, b) =>
    area(b.common) > area(a.common) ? b : a,
  );
  const { width, height } = common;
  const what = `${capital(nameOf(view, upper))} lies on ${nameOf(view, lower)}`;
  const isHeld = isFixed(view, upper.node) !== isFixed(view, lower.node);
  const still = isHeld ? ', and scrolling does not free it' : '';
  return {
    ...fault,
    ...takingPart(entries),
    shows: { lost: entries.map((pair) => pair.common) },
    by: width < height ? { axis: 'x', px: width } : { axis: 'y', px: height },
    mild: grave.length === 0,
    message: `${what} by ${sizeText(common)}${still}, ${onScreen(render)}.`,
  };
}
