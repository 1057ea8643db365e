import { driverTowards, isItemOfWideRow } from './drivers.js';
import { px } from '../geometry/format.js';
import { outAlong, union, type Rect } from '../geometry/rect.js';
import type { Loss } from '../intent/loss.js';
import { doubtfulLosses, lossesOf } from '../intent/losses.js';
import { FLAG_CONTROL } from '../layout/snapshot.js';
import { blockAround, controlAround } from '../layout/ancestors.js';
import { escapeRoot } from './culprit.js';
import { displacementOf } from '../layout/displace.js';
import { isSqueezedOut } from '../intent/squeezed.js';
import { pxOf } from '../css/lengths.js';
import { sceneOf, type Ink, type Scene } from '../layout/scene.js';
import { leavesEnough, shorteningOf, type Shortening } from '../intent/shortened.js';
import { isCroppedPicture } from '../intent/pictures.js';
import { signature } from '../identity/signature.js';
import { isInSentence } from '../layout/touch-areas.js';
import { isLabelPart } from '../layout/labels.js';
import { hasMaskWithEdges } from '../layout/outlines.js';
import { acrossLines, emOf } from '../layout/text-ink.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { hiddenInk, lookAt, type Doubt } from './doubt.js';
import { byCulprit, rowOrOwn, type Culprits } from './by-culprit.js';
import { andMore, capital, nameOf, onScreen, thingsAmong } from './words.js';
import type { RenderView, Sighting } from './sighting.js';
import { isInlineText } from '../layout/displays.js';

interface Clipping {
  readonly loss: Loss;
  readonly culprit: NodeIndex;
  readonly shortened: Shortening | null;
}

/** A control that clips its own label is cut off itself, as a person sees it. */
export type ClippedKind = 'text' | 'control';

/** What is cut off on a page, by the element at fault: losses of controls and pictures, or of text alone. */
export function clippedSightings(render: RenderView, kind: ClippedKind): Sighting[] {
  const scene = sceneOf(render.view);
  const clippings = [...lossesOf(scene), ...seenCuts(scene)]
    .filter((loss) => loss.ink.kind !== 'picture' || !isCroppedPicture(scene, loss))
    .map((loss): Clipping => {
      const isLegible = loss.ink.kind === 'text' && leavesEnough(scene, loss);
      return {
        loss,
        culprit: culpritOf(scene, loss),
        shortened: isLegible ? shorteningOf(scene, loss) : null,
      };
    });
  return byCulprit(scene.view, clippings, samePlace)
    .filter(({ entries }) => kindOf(scene, entries) === kind)
    .map((group) => sighting(scene, render, group));
}

/** Of a line's ink, CSS px²: a part of a letter that is gone is seen. */
const LEAST_CUT_SHARE = 0.04;
const LEAST_CUT = 10;
/** Of a longer line, em, a corner takes a part of one end: half a letter of so much of it. */
const END_EM = 6;

/** What a shape that only pixels tell hides nearly whole is waiting to be shown, unless it shows other words. */
const NEARLY = 0.9;
/** And what it takes less of can be read. */
const LEAST_ILLEGIBLE = 0.1;

/** Of the losses in doubt, those that pixels show. */
function seenCuts(scene: Scene): Loss[] {
  const { view } = scene;
  const doubtful = doubtfulLosses(scene);
  const isShown = (loss: Loss) => loss.byShape && hiddenShare(view, loss) < NEARLY;
  const showing = new Set(doubtful.filter(isShown).map(({ cutter }) => cutter));
  return doubtful.flatMap((loss): Loss | [] => {
    if ((hiddenInk(view, doubtOf(loss), leastShare(view, loss)) ?? 0) < LEAST_CUT) return [];
    if (!loss.byShape) return loss;
    const share = hiddenShare(view, loss);
    if (share >= NEARLY && !showing.has(loss.cutter)) return [];
    return { ...loss, px: share * loss.rect.width, whole: share === 1, doubt: share < LEAST_ILLEGIBLE };
  });
}

function leastShare(view: SnapshotView, { ink, byEdge, rect }: Loss): number {
  if (byEdge || ink.kind !== 'text') return LEAST_CUT_SHARE;
  return LEAST_CUT_SHARE * Math.min(1, (END_EM * emOf(view, ink.line)) / rect.width);
}

function hiddenShare(view: SnapshotView, loss: Loss): number {
  const look = lookAt(view, doubtOf(loss));
  return look && look.ink > 0 ? Math.min(1, look.hidden / look.ink) : 1;
}

function doubtOf({ ink, cutter, rect, byEdge }: Loss): Doubt {
  return { cover: cutter, under: ink.node, area: rect, cuts: byEdge ? 'edge' : 'shape' };
}

/** Lines that a round corner, a `clip-path` or a mask may take a part of a letter from, and signs at an edge. */
export function cutDoubts({ view }: RenderView): Doubt[] {
  return doubtfulLosses(sceneOf(view)).map(doubtOf);
}

/** Controls of one box that are cut off are one defect, whatever each of them is called. */
function samePlace(view: SnapshotView, i: NodeIndex): string {
  if (!view.has(i, FLAG_CONTROL) || displacementOf(view, i) === null) return rowOrOwn(view, i);
  return `${signature(view, view.parent(i))} ${view.tag(i)}`;
}

function kindOf(scene: Scene, group: readonly Clipping[]): ClippedKind {
  const isControl = group.some(
    ({ loss, shortened }) =>
      loss.ink.kind !== 'text' || (shortened === null && (controlWithin(scene, loss) || isLink(scene, loss))),
  );
  return isControl ? 'control' : 'text';
}

/** A label cut off by its own control, or by something in it. */
function controlWithin(scene: Scene, { cutter, ink }: Loss): boolean {
  const control = controlAround(scene.view, ink.node);
  return control >= 0 && scene.contains(control, cutter);
}

/** A link that is its words, wholly gone; one in a sentence goes with the sentence. */
function isLink({ view }: Scene, { ink, whole }: Loss): boolean {
  const control = controlAround(view, ink.node);
  return whole && control >= 0 && !isInSentence(view, control);
}

/** What is not too high for the cutter, and was pushed over its edge by an offset of its own, by as much as is lost. */
function pushedOut(view: SnapshotView, { ink, cutter, axis, px: lost, rect }: Loss): NodeIndex | undefined {
  if (axis !== 'y') return undefined;
  const window = view.paddingBox(cutter);
  const isBelow = rect.y + rect.height > window.y + window.height;
  for (let at = ink.node; at > cutter; at = view.containingElement(at)) {
    const displacement = displacementOf(view, at);
    if (displacement !== 'absolute' && displacement !== 'offset') continue;
    const offset = pxOf(view.style(at, isBelow ? 'bottom' : 'top')) ?? 0;
    const other = displacement === 'offset' ? (pxOf(view.style(at, isBelow ? 'top' : 'bottom')) ?? 0) : 0;
    if (view.box(at).height <= window.height && Math.max(-offset, other) >= lost - 2) return at;
  }
  return undefined;
}

/**
 * Across the reading direction the element at fault is what cuts: it is too low, or what was pushed over its edge. Along it, it is what is too wide in it,
 * where something is.
 */
function culpritOf(scene: Scene, loss: Loss): NodeIndex {
  const { view } = scene;
  const { ink, cutter, axis, rect } = loss;
  if (axis === acrossLines(view, ink.node)) return pushedOut(view, loss) ?? cutter;
  if (isSqueezedOut(view, cutter)) return cutter;
  const around = view.paddingBox(cutter);
  const chain: NodeIndex[] = [];
  for (let at = ink.node; at > cutter; at = view.containingElement(at)) {
    const isBox = !isInlineText(view, at) || displacementOf(view, at) !== null;
    if (isBox) chain.push(at);
  }
  const past = (box: Rect) => outAlong(box, around, axis);
  const root = escapeRoot(chain, (at) => past(view.box(at)), past(rect));
  if (root === undefined) return ranOutOfBlock(view, ink, cutter, axis) ?? cutter;
  if (isLabelPart(scene, cutter, root)) return cutter;
  return isItemOfWideRow(view, root) ? root : driverTowards(view, root, ink.node);
}

/** The block below the cutter whose words are too long for it, wherever they are cut off; a control keeps its label's fault. */
function ranOutOfBlock(
  view: SnapshotView,
  ink: Ink,
  cutter: NodeIndex,
  axis: 'x' | 'y',
): NodeIndex | undefined {
  if (ink.kind !== 'text' || view.has(cutter, FLAG_CONTROL)) return undefined;
  const block = blockAround(view, ink.node);
  return block > cutter && outAlong(ink.full, view.box(block), axis) > 2 ? block : undefined;
}

function sighting(scene: Scene, render: RenderView, { entries, fault }: Culprits<Clipping>): Sighting {
  const { view } = scene;
  const worth = ({ loss }: Clipping) => loss.px + (loss.ink.kind === 'text' ? 0 : 10_000);
  const worst = entries.reduce((a, b) => (worth(b) > worth(a) ? b : a));
  const { loss, shortened } = worst;
  const cut = entries.filter(({ culprit }) => culprit === worst.culprit).map((entry) => entry.loss.ink);
  const { more, isMany } = andMore(thingsAmong(view, cut) - 1);
  // It is named for what it does to something else, which has the room that it leaves.
  const isBeside = worst.culprit !== loss.cutter && !scene.contains(worst.culprit, loss.ink.node);
  const what = `${capital(nameOf(view, loss.ink))}${more}${isBeside ? ' beside it' : ''}`;
  const verb = isMany ? ['are', 'lose'] : ['is', 'loses'];
  const isMild = entries.every((entry) => entry.shortened !== null);
  const lost = isMild
    ? `${capital(nameOf(view, loss.ink))} is shortened by ${shortened === 'ellipsis' ? 'an ellipsis' : 'a line clamp'}`
    : loss.byShape && !loss.whole
      ? `${what} ${verb[1]} ${Math.round((100 * loss.px) / loss.rect.width)} % to ${shapeOf(view, loss.cutter)}`
      : `${what} ${loss.whole ? `${verb[0]} wholly` : `${verb[1]} ${px(loss.px)} and ${verb[0]}`} cut off`;
  return {
    ...fault,
    affected: entries.map((entry) => entry.loss.ink.node),
    rect: union(view.box(loss.cutter), bounded(loss.rect, view.box(loss.cutter))),
    by: { axis: loss.axis, px: loss.px },
    ...(isMild && { severity: 'notice' as const }),
    // The field can still be used; what a shape leaves of a picture or a letter can still be seen.
    ...(!isMild &&
      entries.every(
        ({ loss: { ink, inField, byShape, doubt, slight } }) =>
          inField || doubt || slight || (byShape && ink.kind === 'picture'),
      ) && {
        severity: 'warning' as const,
      }),
    message: `${lost}, ${onScreen(render)}.`,
  };
}

/** What cuts with its shape, in words. */
function shapeOf(view: SnapshotView, i: NodeIndex): string {
  if (view.style(i, 'clip-path') !== 'none') return 'a clip-path';
  return hasMaskWithEdges(view, i) ? 'a mask' : 'a rounded corner';
}

/** What is far outside would make a rectangle that shows nothing. */
function bounded(rect: Rect, around: Rect): Rect {
  const right = Math.min(rect.x + rect.width, around.x + around.width + 400);
  const bottom = Math.min(rect.y + rect.height, around.y + around.height + 400);
  const x = Math.max(rect.x, around.x - 400);
  const y = Math.max(rect.y, around.y - 400);
  return right > x && bottom > y ? { x, y, width: right - x, height: bottom - y } : around;
}
