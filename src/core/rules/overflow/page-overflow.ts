import { drivers, isItemOfWideRow, namedFor, overfullRow } from '../../sightings/drivers.js';
import { signature } from '../../identity/signature.js';
import { px as pxText } from '../../geometry/format.js';
import { union, type Rect } from '../../geometry/rect.js';
import { isVertical } from '../../layout/text-ink.js';
import { holdsItems } from '../../layout/displays.js';
import { sceneOf } from '../../layout/scene.js';
import { endEscapes, frameEscapes, mainEscapes, type EndEscapes } from '../../layout/escape.js';
import { isOffCanvas, losesContent } from '../../intent/page-edge.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';
import { shortName } from '../../sightings/words.js';

/**
 * The page scrolls sideways, is cut off at its edge by a root that clips, or is shown shrunk because it is laid out
 * wider than the device. How it measures, what it leaves alone and how to repair: docs/rules/page-overflow.md.
 */
export const pageOverflow: Rule = {
  meta: {
    name: 'page-overflow',
    family: 'overflow',
    severity: 'error',
    summary: 'the page scrolls sideways, or is shown shrunk because its layout is wider than the device',
  },
  check(render) {
    const { view } = render;
    return [
      ...laidOutTooWide(render),
      ...sidewaysOverflow(view),
      ...framesTooNarrow(view),
      ...mainTooNarrow(view),
    ];
  },
};

/** Less sticks out of a frame, or of what scrolls in the page's place, by rounding, or is no more than a border, CSS px. */
const LEAST_INSIDE = 3;

/** A phone shows all that a page is wide, by showing it smaller or letting it be moved, even where its root clips: by less nobody sees it. CSS px. */
const LEAST_SHRUNK = 3;

/** The finding that a page is laid out wider than the device. */
export const LAID_OUT_TOO_WIDE = { rule: 'page-overflow', key: 'layout width' };

/** Mobile viewport rules laid the page out wider than the device: no viewport meta, or a fixed width in it. */
function laidOutTooWide({ device, view }: RenderView): Sighting[] {
  const { viewport, viewportMeta } = view.snapshot;
  const { width, height, scale } = viewport;
  const px = width - device.width;
  if (!device.mobile || px < 1) return [];
  return [
    {
      node: view.root,
      related: [],
      key: LAID_OUT_TOO_WIDE.key,
      rect: { x: 0, y: 0, width, height },
      by: { axis: 'x', px },
      message: `The page is laid out ${width} px wide, ${pxText(px)} wider than the device, and shown at ${Math.round(scale * 100)} %: it ${viewportMeta === null ? 'has no viewport meta tag' : 'does not ask for the width of the device in its viewport meta tag'}.`,
    },
  ];
}

/** One place where an escape begins, with the elements at fault for it. */
interface Escape {
  readonly container: NodeIndex;
  readonly from: NodeIndex;
  readonly culprits: readonly NodeIndex[];
}

function rootClips({ snapshot: { rootOverflow } }: SnapshotView): boolean {
  return rootOverflow.x === 'hidden' || rootOverflow.x === 'clip';
}

function sidewaysOverflow(view: SnapshotView): Sighting[] {
  const { document: page, viewport } = view.snapshot;
  // On a desktop, what is shown is as wide as the window, its scroll bar with it.
  const isShrunk = viewport.shownWidth - viewport.width - viewport.scrollbar >= LEAST_SHRUNK;
  const clips = rootClips(view) && !isShrunk;
  const scrolled = page.width - viewport.width;
  // Pages whose lines run from top to bottom are read by scrolling sideways.
  if ((!clips && scrolled < 1) || isVertical(view, Math.max(view.body, view.root))) return [];

  const escapes = endEscapes(view);
  const begins = escapes
    .beginnings()
    .filter((i) => !clips || (!isOffCanvas(view, escapes, i) && losesContent(view, escapes, i)));
  if (begins.length === 0) return clips ? [] : [unattributed(view, scrolled)];

  return groupsOf(view, escapes, begins).map((group) =>
    sightingOf(escapes, group, (px, others) => sentence(px, others, clips, view)),
  );
}

/** What is too wide for a frame that can be scrolled: nobody does so in a window within a page that does not. */
function framesTooNarrow(view: SnapshotView): Sighting[] {
  return frameEscapes(view).flatMap((escapes) =>
    sightingsOf(escapes, groupsInside(view, escapes), frameSentence),
  );
}

/** What is too wide for the container in which an application scrolls as pages do: all of it moves sideways. */
function mainTooNarrow(view: SnapshotView): Sighting[] {
  const escapes = mainEscapes(view);
  const says: typeof frameSentence = (px, others, { window: { rtl, width, holder } }) =>
    `${sticksOut(others)} ${pxText(px)} past the ${endOf(rtl)} edge of ${shortName(view, holder)}, ${width} px wide, in which the page scrolls, and it scrolls sideways.`;
  if (!escapes) return [];
  const groups = groupsInside(view, escapes);
  const culprits = groups.flatMap((group) => group.culprits);
  return movesOtherWords(view, escapes.window.holder, culprits) ? sightingsOf(escapes, groups, says) : [];
}

/** A sheet of cells or a row of columns that is all there is scrolls sideways by itself; beside other words, it takes them along. */
function movesOtherWords(view: SnapshotView, holder: NodeIndex, culprits: readonly NodeIndex[]): boolean {
  const scene = sceneOf(view);
  const wide = culprits.map((i) => (hasItemBeside(view, i) ? view.containingElement(i) : i));
  for (let i = holder; i <= scene.lastOf(holder); i++)
    if (view.linesOf(i).length > 0 && !wide.some((around) => scene.contains(around, i))) return true;
  return false;
}

function groupsInside(view: SnapshotView, escapes: EndEscapes): Group[] {
  const begins = escapes.beginnings().filter((i) => escapes.past[i]! >= LEAST_INSIDE);
  return groupsOf(view, escapes, begins);
}

function sightingsOf(escapes: EndEscapes, groups: readonly Group[], says: typeof frameSentence): Sighting[] {
  return groups.map((group) => sightingOf(escapes, group, (px, others) => says(px, others, escapes)));
}

function hasItemBeside(view: SnapshotView, i: NodeIndex): boolean {
  const row = view.containingElement(i);
  const { y, height } = view.box(i);
  const isBeside = ({ y: top, height: of }: Rect) => top < y + height && top + of > y;
  return (
    row >= 0 &&
    holdsItems(view, row) &&
    view.childrenOf(row).some((other) => other !== i && view.isRendered(other) && isBeside(view.box(other)))
  );
}

/** What is at fault together. */
interface Group {
  readonly key: string;
  readonly escapes: readonly Escape[];
  /** In the page's order. */
  readonly culprits: readonly NodeIndex[];
}

function groupsOf(view: SnapshotView, escapes: EndEscapes, begins: readonly NodeIndex[]): Group[] {
  const groups = new Map<string, { escapes: Escape[]; culprits: Set<NodeIndex> }>();
  for (const escape of withoutConsequences(view, escapes, begins)) {
    for (const culprit of escape.culprits) {
      const key = groupKey(view, escape, culprit);
      let group = groups.get(key);
      if (!group) groups.set(key, (group = { escapes: [], culprits: new Set() }));
      group.escapes.push(escape);
      group.culprits.add(culprit);
    }
  }
  return [...groups].map(([key, group]) => ({
    key,
    escapes: group.escapes,
    culprits: [...group.culprits].sort((a, b) => a - b),
  }));
}

/** @param says what is to be told of so many px, and so many others like it */
function sightingOf(
  escapes: EndEscapes,
  group: Group,
  says: (px: number, others: number) => string,
): Sighting {
  const [first, ...others] = group.culprits;
  const px = Math.max(...group.escapes.map((escape) => escapes.past[escape.from]!));
  return {
    node: first!,
    related: others,
    key: group.key,
    rect: group.culprits.map((node) => escapes.extent(node)).reduce(union),
    by: { axis: 'x', px },
    message: says(px, others.length),
  };
}

/** Siblings stretched by one that is too wide escape with it; only the one that drives the width is at fault. */
function withoutConsequences(
  view: SnapshotView,
  escapes: EndEscapes,
  begins: readonly NodeIndex[],
): Escape[] {
  const found = begins.map((from) => ({
    container: view.containingElement(from),
    from,
    culprits: isItemOfWideRow(view, from) ? [from] : drivers(view, escapes, from),
  }));
  const driven = new Set(
    found.filter((escape) => escape.culprits.length > 0).map((escape) => escape.container),
  );
  return found
    .filter((escape) => escape.culprits.length > 0 || !driven.has(escape.container))
    .map((escape) => ({
      ...escape,
      culprits: (escape.culprits.length > 0 ? escape.culprits : [escape.from]).map((culprit) =>
        namedFor(view, culprit),
      ),
    }));
}

/** Items of one row that stick out together are one defect, whichever of them do so at a width. */
function groupKey(view: SnapshotView, escape: Escape, culprit: NodeIndex): string {
  const { container, from } = escape;
  const row = overfullRow(view, from);
  if (row >= 0) return `row ${signature(view, row)}`;
  // The one that sticks out, or another one of its row that pushes it out.
  if (container >= 0 && view.containingElement(culprit) === container) {
    const isInLine = culprit === from && /^inline/.test(view.style(from, 'display'));
    if (isInLine || holdsItems(view, container)) return `row ${signature(view, container)}`;
  }
  return signature(view, culprit);
}

function sentence(px: number, others: number, clips: boolean, view: SnapshotView): string {
  const { direction, viewport } = view.snapshot;
  const then = clips ? 'is cut off there' : `the page ${whatBecomesOf(view)}`;
  return `${sticksOut(others)} ${pxText(px)} past the ${endOf(direction === 'rtl')} edge of the ${viewport.width} px wide page, and ${then}.`;
}

/** Less than this share of its size is shrunk. */
const OWN_SCALE = 0.99;

/** Whether a root that clips has the page shown smaller or moved about in is up to its viewport meta tag (CSS Viewport 1, section 4.4). */
function whatBecomesOf(view: SnapshotView): string {
  const { scale } = view.snapshot.viewport;
  if (!rootClips(view)) return 'scrolls sideways';
  return scale < OWN_SCALE
    ? `is shown shrunk to ${Math.round(100 * scale)} %`
    : 'can be moved sideways on a phone';
}

function frameSentence(px: number, others: number, { window }: EndEscapes): string {
  const room = `the ${endOf(window.rtl)} edge of its ${Math.round(window.width)} px wide frame`;
  return `${sticksOut(others)} ${pxText(px)} past ${room}, and the frame scrolls sideways.`;
}

function sticksOut(others: number): string {
  return others > 0 ? `Sticks out, with ${others} like it,` : 'Sticks out';
}

function endOf(rtl: boolean): string {
  return rtl ? 'left' : 'right';
}

function unattributed(view: SnapshotView, px: number): Sighting {
  const { document: page, viewport } = view.snapshot;
  const what = rootClips(view)
    ? `The page is ${pxText(px)} too wide and ${whatBecomesOf(view)}`
    : `The page scrolls sideways by ${pxText(px)}`;
  return {
    node: view.root,
    related: [],
    key: 'unattributed',
    rect: { x: 0, y: 0, width: page.width, height: Math.min(page.height, viewport.height) },
    by: { axis: 'x', px },
    message: `${what}; no element's box reaches that far, so a margin or generated content is the likely cause.`,
  };
}
