import { outAlong, type Rect } from '../geometry/rect.js';
import { FLAG_FIELD, FLAG_REPLACED, LINE_UNBREAKABLE } from '../layout/snapshot.js';
import { blockAround } from '../layout/ancestors.js';
import { clipsAxis } from '../layout/clip.js';
import { holdsItems, isInline, isInlineText } from '../layout/displays.js';
import { endEscapes, type EndEscapes } from '../layout/escape.js';
import { hasOwnColumns, hasOwnWidth } from '../layout/own-size.js';
import { sceneOf } from '../layout/scene.js';
import { isOutOfFlow } from '../layout/displace.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { unwrapped } from '../layout/wrappers.js';

/** A box grown by its content ends where that content ends; borders of a hair's breadth are allowed for. */
const SLACK = 1.5;
/** Room that a word could still be broken into, CSS px: less is left at the end of any line. */
const ROOM = 40;

/**
 * The innermost elements that make `start` as wide as it is. Where an element's width comes from its content (a grid or
 * flex item that can't shrink, a float, a table), the defect is what stands in it: the picture, the unbreakable word,
 * the box of fixed width. Where the width is the element's own, it is the element itself.
 * @returns an empty list when the element is content-sized and nothing in it explains its width
 */
export function drivers(view: SnapshotView, escapes: EndEscapes, start: NodeIndex): NodeIndex[] {
  const pushing = pushedBy(view, start);
  if (pushing >= 0) return drivers(view, escapes, pushing);
  if (!isContentSized(view, start)) return [start];
  return drive(view, escapes, start);
}

function drive(view: SnapshotView, escapes: EndEscapes, i: NodeIndex): NodeIndex[] {
  if (view.has(i, FLAG_REPLACED)) return isCompressible(view, i) && !outgrowsBlock(view, i) ? [] : [i];
  if (hasOwnWidth(view, i) || hasOwnColumns(view, i)) return [i];
  if (/table$/.test(view.style(i, 'display'))) return driveTable(view, escapes, i);
  if (cutsOwnLines(view, i) || holdsMoreThanItShows(view, i)) return [];
  if (ownLinesReachEnd(view, escapes, i)) return [i];
  const children = view.childrenOf(i).filter((child) => isInFlow(view, child));
  if (isSingleRow(view, i)) {
    // Side by side they are too wide together; only one that is too wide alone is at fault by itself.
    const tooWide = children.filter((child) => view.box(child).width > escapes.window.width);
    if (tooWide.length === 0) {
      const isStretched =
        hasRoomBetween(view, i, children) ||
        children.some((child) => hasSlack(view, i, child) || couldShrink(view, i, child));
      return isStretched ? [] : [i];
    }
    return tooWide.flatMap((child) => drive(view, escapes, child));
  }
  const content = view.contentBox(i);
  return children
    .filter((child) => escapes.reachesEnd(view.box(child), content, SLACK))
    .flatMap((child) => drive(view, escapes, child));
}

/** Of the room that a table has, a cell that takes so much with what can't be broken is what makes it too wide. */
const MOST_OF_TABLE = 0.75;

/** A table is at fault itself where its columns are too wide together, and not where one cell is by what stands in it. */
function driveTable(view: SnapshotView, escapes: EndEscapes, table: NodeIndex): NodeIndex[] {
  const room = view.contentBox(Math.max(0, view.containingElement(table))).width;
  const cells = cellsOf(view, table);
  for (const cell of cells) {
    if (hasOwnWidth(view, cell) || view.box(cell).width < MOST_OF_TABLE * room) continue;
    const [found] = drive(view, escapes, cell);
    if (found !== undefined) return [found];
  }
  // It takes its share of room that something else has made, and more than any of its columns asks for.
  const isStretched =
    view.style(table, 'width').endsWith('%') && cells.every((cell) => hasSlack(view, table, cell));
  return isStretched ? [] : [table];
}

function cellsOf(view: SnapshotView, table: NodeIndex): NodeIndex[] {
  const cells: NodeIndex[] = [];
  const last = sceneOf(view).lastOf(table);
  for (let at = table + 1; at <= last; at++) if (view.style(at, 'display') === 'table-cell') cells.push(at);
  return cells;
}

/** Words that are cut off, shortened for instance, have not made their box as wide as they are. */
function cutsOwnLines(view: SnapshotView, i: NodeIndex): boolean {
  if (!clipsAxis(view, i, 'x')) return false;
  const { x, width } = view.contentBox(i);
  return view.linesOf(i).some((line) => {
    const box = view.lineBox(line);
    return box.x + box.width > x + width + SLACK || box.x < x - SLACK;
  });
}

/** What scrolls or cuts off what is in it has not become as wide as that. */
function holdsMoreThanItShows(view: SnapshotView, i: NodeIndex): boolean {
  if (!clipsAxis(view, i, 'x')) return false;
  const [width, , scrollWidth] = view.scrollSizes(i);
  return width > 0 && scrollWidth > width + SLACK;
}

/**
 * Whether an item of a flex row has words on one line that could stand on two: items shrink as far as they can before their row is too
 * wide (CSS Flexbox 1, section 9.7), so it is as wide as it is for another reason.
 */
function couldShrink(view: SnapshotView, row: NodeIndex, item: NodeIndex): boolean {
  if (!/flex/.test(view.style(row, 'display')) || view.style(item, 'flex-shrink') === '0') return false;
  if (hasOwnWidth(view, item) || view.has(item, FLAG_REPLACED)) return false;
  const last = sceneOf(view).lastOf(item);
  for (let at = item; at <= last; at++) {
    const lines = view.linesOf(at);
    if (lines.length === 0) continue;
    const isFixed = lines.some((line) => (view.snapshot.lines.flags[line]! & LINE_UNBREAKABLE) !== 0);
    const words = view.lineText(lines[0]!).trim().split(/\s+/).length;
    if (!isFixed && words > lines.length) return true;
  }
  return false;
}

/** A gap between two items that is set, and not left over, is seldom wider, CSS px. */
const WIDEST_GAP = 32;

/** Whether a row has more room than its items and the gaps between them take: then it is as wide as it is for another reason. */
function hasRoomBetween(view: SnapshotView, row: NodeIndex, items: readonly NodeIndex[]): boolean {
  const taken = items.reduce((sum, item) => {
    const [, right, , left] = view.margins(item);
    return sum + view.box(item).width + Math.max(0, left) + Math.max(0, right);
  }, 0);
  return view.contentBox(row).width > taken + WIDEST_GAP * (items.length - 1) + SLACK;
}

/**
 * Whether an item of a row is wider than what stands in it, though it may shrink: then the row has been stretched from
 * outside, and is not what needs the room.
 */
function hasSlack(view: SnapshotView, row: NodeIndex, item: NodeIndex): boolean {
  if (view.has(item, FLAG_REPLACED) || hasOwnWidth(view, item)) return false;
  if (/flex/.test(view.style(row, 'display')) && view.style(item, 'flex-shrink') === '0') return false;
  const scene = sceneOf(view);
  const { width } = view.contentBox(item);
  if (width < 1) return false;
  let left = Infinity;
  let right = -Infinity;
  for (let at = item; at <= scene.lastOf(item); at++) {
    const isBox = at > item && (view.has(at, FLAG_REPLACED) || hasOwnWidth(view, at));
    const boxes = view.linesOf(at).map((line) => view.lineBox(line));
    for (const box of isBox ? [...boxes, view.box(at)] : boxes) {
      left = Math.min(left, box.x);
      right = Math.max(right, box.x + box.width);
    }
  }
  return right - left < width - ROOM;
}

/** Whether an element's used width comes from its content and not from its container or its own declaration. */
function isContentSized(view: SnapshotView, i: NodeIndex): boolean {
  if (view.has(i, FLAG_REPLACED) || hasOwnWidth(view, i)) return false;
  // Of an inline box the width does not apply; a fieldset is never narrower than its content.
  if (isInline(view, i) || /content/.test(view.style(i, 'min-width'))) return true;
  const width = view.style(i, 'width');
  if (width !== 'auto' && !/content/.test(width)) return false;
  const display = view.style(i, 'display');
  if (/^inline/.test(display) || /table/.test(display)) return true;
  if (view.style(i, 'float') !== 'none') return true;
  if (isOutOfFlow(view, i)) {
    return view.style(i, 'left') === 'auto' || view.style(i, 'right') === 'auto';
  }
  const container = view.containingElement(i);
  return container >= 0 && holdsItems(view, container);
}

/**
 * CSS Sizing 3, section 5.2.2: a replaced element sized in percent gives way, so it makes nothing wider. Of fields,
 * Chromium holds that of `width` alone.
 */
function isCompressible(view: SnapshotView, i: NodeIndex): boolean {
  if (view.style(i, 'width').includes('%')) return true;
  return view.style(i, 'max-width').includes('%') && !view.has(i, FLAG_FIELD);
}

/** Whether a share of the room, with padding and border added to it, comes to more than the room. */
function outgrowsBlock(view: SnapshotView, i: NodeIndex): boolean {
  const block = blockAround(view, view.parent(i));
  return view.box(i).width > view.contentBox(block).width + SLACK;
}

function ownLinesReachEnd(view: SnapshotView, escapes: EndEscapes, i: NodeIndex): boolean {
  const content = view.contentBox(i);
  const inline = isInline(view, i);
  return view.linesOf(i).some((line) => {
    const unbreakable = (view.snapshot.lines.flags[line]! & LINE_UNBREAKABLE) !== 0;
    return unbreakable && (inline || escapes.reachesEnd(view.lineBox(line), content, SLACK));
  });
}

function isInFlow(view: SnapshotView, i: NodeIndex): boolean {
  return view.isRendered(i) && !isOutOfFlow(view, i);
}

/**
 * One of two or more items of a row that stick out of it, each of which would fit it: together they are too wide, not what
 * is in one of them.
 */
export function isItemOfWideRow(view: SnapshotView, i: NodeIndex): boolean {
  const row = flexRowAround(view, i);
  if (row < 0) return false;
  const room = view.contentBox(row);
  const out = view
    .childrenOf(row)
    .filter((item) => isInFlow(view, item) && outAlong(view.box(item), room, 'x') > SLACK);
  return (
    out.length >= 2 && out.includes(i) && out.every((item) => view.box(item).width <= room.width + SLACK)
  );
}

/** The row that is too narrow for its items together, of one that sticks out of it and would fit it alone; −1 where that is not so. */
export function overfullRow(view: SnapshotView, i: NodeIndex): NodeIndex {
  const row = flexRowAround(view, i);
  if (row < 0 || !isInFlow(view, i)) return -1;
  const room = view.contentBox(row);
  const isOut = outAlong(view.box(i), room, 'x') > SLACK && view.box(i).width <= room.width + SLACK;
  return isOut && (isItemOfWideRow(view, i) || pushedBy(view, i) < 0) ? row : -1;
}

/** The flex row that can't wrap whose item an element is; −1 where it is none's. */
function flexRowAround(view: SnapshotView, i: NodeIndex): NodeIndex {
  const row = view.containingElement(i);
  return row >= 0 && /flex/.test(view.style(row, 'display')) && isSingleRow(view, row) ? row : -1;
}

/** An item that is so much wider than another, and takes so much of the row, is what leaves the other no room; among several, so much. */
const MUCH_WIDER = 1.5;
const MOST_OF_ROW = 0.5;
const MOST_AMONG_SEVERAL = 0.75;

/**
 * The item of a row that pushes another one out: too wide for the row alone, or by far the wider of the two; −1 where none is. A row of a width
 * of its own is too narrow by itself for what would fit it alone.
 */
function pushedBy(view: SnapshotView, i: NodeIndex): NodeIndex {
  const row = flexRowAround(view, i);
  if (row < 0) return -1;
  const room = view.contentBox(row);
  const { width } = view.box(i);
  if (width > room.width + SLACK || outAlong(view.box(i), room, 'x') <= SLACK) return -1;
  const beside = view.childrenOf(row).filter((item) => item !== i && isInFlow(view, item));
  const share = beside.length > 1 ? MOST_AMONG_SEVERAL : MOST_OF_ROW;
  const least = Math.max(MUCH_WIDER * width, (hasOwnWidth(view, row) ? 1 : share) * room.width);
  const others = beside.filter((item) => !hasShareOfRow(view, item));
  const widest = others.reduce((a, b) => (a < 0 || view.box(b).width > view.box(a).width ? b : a), -1);
  return widest >= 0 && view.box(widest).width >= least ? widest : -1;
}

/** Of items that have their shares of a row, none takes what is another's; one that begins with none of it (`flex: 1`) grows by its content. */
function hasShareOfRow(view: SnapshotView, i: NodeIndex): boolean {
  const shares = [view.style(i, 'width'), view.style(i, 'flex-basis')].filter((size) => size.includes('%'));
  return shares.some((share) => Number.parseFloat(share) !== 0);
}

/** A container that sets two or more items in one row that can't wrap. */
function isSingleRow(view: SnapshotView, i: NodeIndex): boolean {
  const display = view.style(i, 'display');
  const items = view.childrenOf(i).filter((child) => isInFlow(view, child) && view.box(child).width > 0);
  if (items.length < 2) return false;
  if (/flex/.test(display)) {
    return /^row/.test(view.style(i, 'flex-direction')) && view.style(i, 'flex-wrap') === 'nowrap';
  }
  if (!/grid/.test(display)) return false;
  const [first, second] = items.map((item) => view.box(item));
  return second!.y < first!.y + first!.height && second!.x !== first!.x;
}

/** The element that is named for one that is too wide: what leaves it no room, or keeps its lines from breaking; no nameless wrapper of words. */
export function namedFor(view: SnapshotView, i: NodeIndex): NodeIndex {
  return squeezedAround(view, blockOfUnbroken(view, unwrapped(view, i)));
}

/** In less room than this no word stands, em: whatever is written there runs out. */
const NO_ROOM_EM = 1.5;

/** The outermost block that is left no room by what stands around it; the element itself where there is room. */
function squeezedAround(view: SnapshotView, i: NodeIndex): NodeIndex {
  let found = i;
  for (let at = view.containingElement(i); at > 0 && isSqueezed(view, at); at = view.containingElement(at))
    found = at;
  return found;
}

/** A block as wide as its surroundings let it be, which is next to nothing. */
export function isSqueezed(view: SnapshotView, i: NodeIndex): boolean {
  if (isInline(view, i) || !isInFlow(view, i) || hasOwnWidth(view, i)) return false;
  const em = Number.parseFloat(view.style(i, 'font-size')) || 16;
  return view.style(i, 'width') === 'auto' && view.contentBox(i).width < NO_ROOM_EM * em;
}

/** Formulas break nowhere, whatever they are made of. */
function formulaAround(view: SnapshotView, i: NodeIndex): NodeIndex {
  for (let at = i; at >= 0; at = view.parent(at)) if (view.tag(at) === 'math') return at;
  return -1;
}

/** Code in a `pre`: it is the block that keeps its lines from breaking, and that can scroll them. */
function blockOfUnbroken(view: SnapshotView, i: NodeIndex): NodeIndex {
  const formula = formulaAround(view, i);
  if (formula >= 0) return formula;
  if (!isInlineText(view, i)) return i;
  const block = blockAround(view, i);
  return view.tag(block) === 'pre' ? block : i;
}

/**
 * What makes an item of a grid or column as wide as it is, though nothing in it does: the column was made for what stands above or below it. An
 * empty list where that is not so.
 */
function stretchersOf(view: SnapshotView, escapes: EndEscapes, item: NodeIndex): NodeIndex[] {
  const holder = view.containingElement(item);
  if (holder < 0 || !holdsItems(view, holder) || !isInFlow(view, item)) return [];
  const box = view.box(item);
  return view
    .childrenOf(holder)
    .filter((other) => other !== item && isInFlow(view, other) && isInColumnOf(view.box(other), box))
    .flatMap((other) => drivers(view, escapes, other));
}

/** Whether two boxes begin and end at the same edges, from side to side. */
function isInColumnOf(a: Rect, b: Rect): boolean {
  return Math.abs(a.x - b.x) <= SLACK && Math.abs(a.width - b.width) <= SLACK;
}

/** What in `start` makes it as wide as it is, on the way to `holding`, or in its column; `start` itself where nothing there does. */
export function driverTowards(view: SnapshotView, start: NodeIndex, holding: NodeIndex): NodeIndex {
  const scene = sceneOf(view);
  const escapes = endEscapes(view);
  const own = drivers(view, escapes, start);
  const found = own.length > 0 ? own : stretchersOf(view, escapes, start);
  // What stands beside a single one that is too wide is pushed out by it.
  const driver = found.find((at) => scene.contains(at, holding)) ?? (found.length === 1 ? found[0]! : start);
  return namedFor(view, driver);
}
