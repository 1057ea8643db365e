import { sizeText } from '../../geometry/format.js';
import { area, intersect, union, type Rect } from '../../geometry/rect.js';
import { isCopy, isDecoration } from '../../intent/decoration.js';
import {
  fillsScreen,
  hangsFromControl,
  isBadgeOnSign,
  isDismissible,
  isLaidOverPage,
  isMarkAtCorner,
} from '../../intent/overlays.js';
import { isEllipsisMark } from '../../intent/shortened.js';
import { areAlternatives, areShingled, isStandIn } from '../../intent/stacks.js';
import { isSymbols } from '../../intent/typography.js';
import { clingingOf } from '../../layout/clinging.js';
import { coverCulprit } from '../../sightings/culprit.js';
import { isWatermark } from '../../intent/watermark.js';
import { displacedRoot } from '../../layout/branches.js';
import { displacementOf } from '../../layout/displace.js';
import { isOnLineBefore, linesUnderOwnGround } from '../../layout/painted-lines.js';
import { sceneOf, type Cover, type Ink, type Scene } from '../../layout/scene.js';
import { areApart, isOfUnknownSides } from '../../layout/rotated.js';
import { isFreedInScroller, nearestScrollerOf } from '../../layout/scrollers.js';
import { FLAG_CONTROL } from '../../layout/snapshot.js';
import { perSnapshot } from '../../layout/memo.js';
import { fixedRoot, isFreedByScrolling, stickyRoot, isFixed } from '../../layout/viewport-layer.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import { coveredAnchors } from '../../sightings/covered-anchors.js';
import { coveredColumns } from '../../sightings/covered-columns.js';
import { marksOnWords } from '../../sightings/marks-on-words.js';
import { hidesPicture } from '../../sightings/hidden-pictures.js';
import { inksAtScrollEnds } from '../../sightings/covered-scrollers.js';
import { coveredSticking } from '../../sightings/covered-sticking.js';
import { heldOver, isFreedBySticking } from '../../sightings/freed-by-sticking.js';
import { passingDoubts, passingWords } from '../../sightings/passing.js';
import { partDoubts, partsUnderWords } from '../../sightings/words-on-parts.js';
import { markersOnPictures } from '../../sightings/markers-on-pictures.js';
import { signDoubts, signsUnderWords } from '../../sightings/signs-under-words.js';
import { strokesOnWords } from '../../sightings/strokes-on-words.js';
import { sunkIn } from '../../sightings/sunk.js';
import {
  asDoubt,
  doubtOf,
  inkGone,
  isMild,
  LEAST_WIDTH,
  lookedAt,
  markDoubt,
  type Hiding,
} from '../../sightings/hiding.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import { andMore, capital, nameOf, onScreen, shortName } from '../../sightings/words.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';
import { isContents, isInline } from '../../layout/displays.js';

/**
 * Something opaque hides text or a control, and scrolling does not free it. How it measures, what it leaves alone and how
 * to repair: docs/rules/covered.md.
 */
export const covered: Rule = {
  meta: {
    name: 'covered',
    family: 'overlap',
    severity: 'error',
    summary: 'something opaque hides text or a control, and scrolling does not free it',
  },
  check(render) {
    const scene = sceneOf(render.view);
    const hidings = hidingsOf(render.view).filter(({ doubt, cover, ink, common }) => {
      if (doubt === 'none') return true;
      const hidden = lookedAt(render.view, { cover, ink, common, doubt });
      return hidden === null ? doubt === 'shape' || doubt === 'little' : hidden > 0;
    });
    const grave = hidings.filter((hiding) => !isMild(render.view, hiding));
    return [
      ...byCulprit(scene.view, agreed(hidings)).map((group) => sighting(scene, render, group)),
      ...coveredAnchors(scene, render),
      ...coveredSticking(scene, render),
      ...coveredColumns(scene, render),
      ...signsUnderWords(scene, render),
      ...strokesOnWords(scene, render, grave),
      ...markersOnPictures(scene, render),
      ...partsUnderWords(scene, render),
      ...passingWords(scene, render, 'over'),
    ];
  },
  doubts: ({ view }) => [
    ...hidingsOf(view)
      .filter(({ doubt }) => doubt !== 'none')
      .map(asDoubt),
    ...signDoubts(view),
    ...partDoubts(view),
    ...passingDoubts(view, 'over'),
  ],
};

/** What hides something that has not left its own place is at fault for all that it hides. */
function agreed(hidings: readonly Hiding[]): Hiding[] {
  const atFault = new Set(
    hidings.filter(({ culprit, cover }) => culprit === cover.node).map(({ culprit }) => culprit),
  );
  return hidings.map((hiding) =>
    atFault.has(hiding.cover.node) ? { ...hiding, culprit: hiding.cover.node } : hiding,
  );
}

/** Everything that lies under something by their boxes. */
const hidingsOf = perSnapshot((layout): readonly Hiding[] => {
  const scene = sceneOf(layout);
  const hidings: Hiding[] = [];
  const look = (ink: Ink, cover: Cover, as: Meeting = 'boxes') => {
    const hiding = hidingOf(scene, ink, cover, as);
    if (hiding) hidings.push(hiding);
  };
  for (const { ink, cover } of scene.coveredInks()) look(ink, cover);
  for (const { ink, cover } of linesUnderOwnGround(scene)) look(ink, cover);
  for (const cover of coversAtEnd(scene)) {
    for (const ink of scene.inksIn(cover.rect)) if (!isFixed(scene.view, ink.node)) look(ink, cover);
  }
  for (const { ink, cover } of inksAtScrollEnds(scene)) look(ink, cover, 'at-end');
  for (const { ink, cover } of marksOnWords(scene)) look(ink, cover, 'mark');
  return hidings;
});

/** What is fixed to the screen or sticks to it, where it lies on the page once that is scrolled to its end. */
function coversAtEnd(scene: Scene): Cover[] {
  const { viewport, document: page, scroll, rootOverflow } = scene.view.snapshot;
  const most = page.height - viewport.shownHeight;
  if (most <= 0 || /hidden|clip/.test(rootOverflow.y)) return [];
  return scene.covers.flatMap((cover): Cover[] => {
    const moved = (by: number) => [
      { ...cover, rect: { ...cover.rect, y: cover.rect.y + by }, scrolled: most },
    ];
    if (isFixed(scene.view, cover.node)) return moved(most - scroll.y);
    const sticky = stickyRoot(scene.view, cover.node);
    const clinging = sticky < 0 ? null : clingingOf(scene.view, sticky);
    return clinging && clinging.in.node < 0 ? moved(clinging.at(most) - clinging.at(scroll.y)) : [];
  });
}

/**
 * How two come to lie on one another: by their boxes as the page stands; where the ink is once its scroll container is scrolled to the
 * end; or by what a sign or a drawing fills of its box.
 */
type Meeting = 'boxes' | 'at-end' | 'mark';

function hidingOf(scene: Scene, ink: Ink, cover: Cover, as: Meeting): Hiding | null {
  const { view } = scene;
  if (ink.kind === 'picture' && (as !== 'boxes' || !hidesPicture(scene, ink, cover))) return null;
  if (isDecoration(scene, ink.node)) return null;
  if (ink.node === view.parent(cover.node) && isCopy(view, cover.node)) return null;
  const isWithin = scene.contains(cover.node, ink.node);
  const isAround = scene.contains(ink.node, cover.node) && !isContents(view, ink.node);
  const isOfLineAfter = (isWithin || isAround) && isOnLineBefore(scene, ink, cover);
  if (cover.rank <= ink.rank && !(isWithin && isOfLineAfter)) return null;
  const isInside = isWithin && !isOfLineAfter;
  const sunk = isInside ? sunkIn(scene, ink, cover.node) : -1;
  if (isInside && sunk < 0) return null;
  if (isAround && !isOfLineAfter && as !== 'mark' && !isLaidOnOwnText(scene, ink, cover)) return null;
  // A control that lies on something and scrolls with it is control-overlap's; a link in a line is words to that rule.
  const isControl = as !== 'at-end' && view.has(cover.node, FLAG_CONTROL) && !isInline(view, cover.node);
  if (
    isControl &&
    (ink.kind === 'text' || isOfControl(view, ink.node)) &&
    movesWith(view, cover.node, ink.node)
  )
    return null;
  const common = intersect(ink.shown!, cover.rect);
  if (!common || !scene.isOnPage(common, ink.node)) return null;
  if (isBadgeOnSign(scene, ink, cover, common)) return null;
  // What is fixed with what it lies on is no further away from it than on the page.
  const isFixedAlone =
    (isFixed(view, cover.node) || isFixed(view, ink.node)) && !movesWith(view, cover.node, ink.node);
  const isAway = isFixedAlone || cover.scrolled !== undefined || as === 'at-end';
  let doubt = as === 'mark' ? markDoubt(view, cover.node, common) : doubtOf(view, ink, cover, common);
  if (areApart(view, ink, { node: cover.node, line: -1 }, LEAST_WIDTH))
    doubt = doubt !== null && isOfUnknownSides(view, cover.node) ? 'slight' : null;
  // Where the page stands after loading, a look can tell.
  const needsLook = doubt === 'slight' || doubt === 'mark';
  const isToBeSeen = (needsLook || doubt === 'little') && as !== 'at-end' && cover.scrolled === undefined;
  if (doubt === null || (isAway && needsLook && !isToBeSeen)) return null;
  if (isLaidOverPage(scene, cover.node, ink.node)) return null;
  const isPassing = [fillsScreen, isDismissible, hangsFromControl].some((is) =>
    is(scene, cover.node, ink.node),
  );
  if (isPassing) return null;
  if (as !== 'at-end' && isFreedInScroller(view, ink.node, common, cover.node, cover.rect)) return null;
  if (isEllipsisMark(view, cover.node) || isWatermark(scene, ink)) return null;
  if (areAlternatives(scene, cover.node, ink.node) || areShingled(scene, cover.node, ink.node)) return null;
  if (isStandIn(scene, ink, cover.node)) return null;
  const held = heldOver(scene, cover, ink);
  const isBeside = stickyRoot(view, cover.node) !== stickyRoot(view, ink.node);
  if (as !== 'at-end' && held < 0 && isBeside && isFreedBySticking(scene, cover, ink)) return null;
  const [fixedCover, fixedInk] = [fixedRoot(view, cover.node), fixedRoot(view, ink.node)];
  const isScrolledBeneath = fixedCover >= 0 && fixedInk >= 0 && nearestScrollerOf(view, ink.node) >= 0;
  if (fixedCover !== fixedInk && (fixedCover < 0 || fixedInk < 0 || isScrolledBeneath)) {
    const [still, moving] = fixedCover >= 0 ? [view.box(fixedCover), ink.shown!] : [ink.shown!, cover.rect];
    if (isFreedByScrolling(view, moving, still)) return null;
  }
  const settled = isAway && !isToBeSeen ? 'none' : doubt;
  const misplaced = Math.max(sunk, held);
  const culprit = misplaced >= 0 ? misplaced : culpritOf(scene, ink, cover, common, as);
  return { cover, ink, common, culprit, doubt: settled };
}

/** Boxes stand where they are before scrolling: what is hidden at its end has not run out of any, and what lies over that end is at fault. */
function culpritOf(scene: Scene, ink: Ink, cover: Cover, common: Rect, as: Meeting): NodeIndex {
  if (as !== 'at-end') return coverCulprit(scene, cover.node, ink, common);
  const moved = displacedRoot(scene, cover.node, ink.node);
  return moved >= 0 ? moved : cover.node;
}

/** What stands in an element and was moved onto the words of that element itself; a mark at their corner is no harm. */
function isLaidOnOwnText(scene: Scene, ink: Ink, cover: Cover): boolean {
  const { view } = scene;
  if (ink.kind !== 'text' || isSymbols(view, ink) || isMarkAtCorner(scene, ink.node, cover)) return false;
  for (let at = cover.node; at !== ink.node; at = view.parent(at))
    if (displacementOf(view, at) !== null) return true;
  return false;
}

function movesWith(view: SnapshotView, a: NodeIndex, b: NodeIndex): boolean {
  return isFixed(view, a) === isFixed(view, b) && stickyRoot(view, a) === stickyRoot(view, b);
}

/** A control with a box of its own, or something in one. */
function isOfControl(view: SnapshotView, i: NodeIndex): boolean {
  for (let at = i; at >= 0; at = view.parent(at)) {
    if (view.has(at, FLAG_CONTROL) && !isInline(view, at)) return true;
  }
  return false;
}

function sighting(scene: Scene, render: RenderView, { entries, fault }: Culprits<Hiding>): Sighting {
  const { view } = scene;
  const { cover, ink, common, culprit } = entries.reduce((a, b) => (area(b.common) > area(a.common) ? b : a));
  const hidden = new Set(entries.map((hiding) => hiding.ink)).size;
  const looked = inkGone(view, entries);
  const { more, isMany } = andMore(hidden - 1);
  const isHeld = isFixed(view, cover.node) && !movesWith(view, cover.node, ink.node);
  const still = isHeld ? `, and scrolling does not free ${isMany ? 'them' : 'it'}` : '';
  const size = sizeText(common);
  const what = `${nameOf(view, ink)}${more}`;
  // What is at fault may be what got under something else.
  const isUnder =
    culprit !== cover.node && scene.contains(culprit, ink.node) && !scene.contains(culprit, cover.node);
  const said = isUnder
    ? `${capital(what)} ${isMany ? 'lie' : 'lies'} hidden under ${shortName(view, cover.node)} over ${size}`
    : `${entries.every(({ doubt }) => doubt === 'mark') ? 'Lies on' : 'Hides'} ${what} over ${size}`;
  return {
    ...fault,
    affected: entries.map((hiding) => hiding.ink.node),
    partners: entries.map((hiding) => hiding.cover.node),
    rect: entries.map((hiding) => hiding.ink.shown!).reduce(union, cover.rect),
    by: { axis: 'y', px: common.height },
    shows: {
      lost: entries.map((hiding) => hiding.common),
      ...(isFixed(view, cover.node) || stickyRoot(view, cover.node) >= 0
        ? { scrolled: cover.scrolled ?? view.snapshot.scroll.y }
        : {}),
      ...(culprit === cover.node && { fault: cover.rect }),
    },
    mild: entries.every((entry) => isMild(view, entry)),
    message: `${said}${still}, ${onScreen(render)}.${looked > 0 ? ` By pixels, ${Math.round(looked)} px² of ink lie under it.` : ''}`,
  };
}
