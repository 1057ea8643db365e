import { area, intersect, union, type Rect } from '../geometry/rect.js';
import { isSymbols } from './typography.js';
import { controlAround } from '../layout/ancestors.js';
import { perNode, perSnapshot } from '../layout/memo.js';
import { sceneOf, type Cover, type Ink, type Scene } from '../layout/scene.js';
import {
  FLAG_CONTROL,
  FLAG_FIELD,
  FLAG_OPENER,
  FLAG_OVERLAY,
  FLAG_TEXT,
  FLAG_TOP_LAYER,
} from '../layout/snapshot.js';
import { emOf } from '../layout/text-ink.js';
import { fixedRoot } from '../layout/viewport-layer.js';
import { hasControl } from '../layout/controls-within.js';
import { outermostLifted } from '../layout/displace.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/**
 * An open dialog or popover lies over the page by design, until it is closed, and so does what stands before something that is laid over the
 * whole screen; what stands in it may still lie on its own words.
 */
export function isLaidOverPage(scene: Scene, i: NodeIndex, other: NodeIndex): boolean {
  const { view } = scene;
  if (topLayerRoot(view, i) !== topLayerRoot(view, other)) return true;
  return screensOf(view).some((root) => isBefore(scene, i, root) !== isBefore(scene, other, root));
}

/** Whether an element is painted over another one, or stands in it. */
function isBefore(scene: Scene, i: NodeIndex, root: NodeIndex): boolean {
  return scene.contains(root, i) || scene.order.box[i]! > scene.order.box[root]!;
}

/** The dialog or popover that an element stands in; −1 on the page. */
function topLayerRoot(view: SnapshotView, i: NodeIndex): NodeIndex {
  let at = i;
  while (at >= 0 && !view.has(at, FLAG_TOP_LAYER)) at = view.parent(at);
  return at;
}

/**
 * Something fixed over nearly the whole screen: a dialog's backdrop, a full-screen menu. With nothing to press in it nobody gets past it,
 * unless it is bare and something lies on it.
 * @param other what is under it: what stands in it itself is not under it
 */
export function fillsScreen(scene: Scene, i: NodeIndex, other: NodeIndex = -1): boolean {
  const root = fixedRoot(scene.view, i);
  if (root < 0 || scene.contains(root, other)) return false;
  let [hasWords, hasControl] = [false, false];
  for (let at = root; at <= scene.lastOf(root); at++) {
    hasWords ||= scene.painted[at] === 1 && scene.view.has(at, FLAG_TEXT);
    hasControl ||= scene.painted[at] === 1 && scene.view.has(at, FLAG_CONTROL);
  }
  if (!hasControl && (hasWords || !isLainOn(scene.view, root))) return false;
  const screen = firstScreen(scene.view);
  const common = intersect(scene.view.box(root), screen);
  return common !== null && area(common) >= 0.85 * area(screen);
}

/** Whether an ink lies under an open dialog or a menu over the whole screen: readers get to it when they are done with that. */
export function isUnderScreen(scene: Scene, ink: Ink): boolean {
  return screensOf(scene.view).some((root) => !isBefore(scene, ink.node, root));
}

/** What lies over the whole screen, or over all of the page as a modal dialog does. */
const screensOf = perSnapshot((view): readonly NodeIndex[] => {
  const scene = sceneOf(view);
  const found: NodeIndex[] = [];
  for (let i = 1; i < view.count; i++) {
    const isRoot = fixedRoot(view, i) === i;
    const isDialog = isRoot && view.tag(i) === 'dialog' && view.has(i, FLAG_TOP_LAYER);
    if (isRoot && scene.painted[i] && (isDialog || fillsScreen(scene, i))) found.push(i);
  }
  return found;
});

function firstScreen({ snapshot }: SnapshotView): Rect {
  const { shownWidth: width, shownHeight: height } = snapshot.viewport;
  return { x: 0, y: 0, width, height };
}

/** By element: whether something that does not stand in it is painted over it on the first screen. */
const isLainOn = perNode((view, root): boolean => {
  const scene = sceneOf(view);
  const rank = scene.order.box[root]!;
  return scene.inksIn(firstScreen(view)).some((ink) => ink.rank > rank && !scene.contains(root, ink.node));
});

/** A count or a dot is at most so large, CSS px. */
const MARK_HEIGHT = 26;
const MARK_WIDTH = 64;
/** Of the words' height and width, what counts as their rim. */
const RIM = 0.2;

/** A mark may lie on a letter of the words, not on more of them, em. */
const MARK_ON_WORDS_EM = 0.75;

/** As small as a count or a dot. */
export function isMark({ rect }: Pick<Cover, 'rect'>): boolean {
  return rect.height <= MARK_HEIGHT && rect.width <= MARK_WIDTH;
}

/** A count or a dot on the rim of an element's own words or icon, where badges are put: not on the first letter of words. */
export function isMarkAtCorner(scene: Scene, owner: NodeIndex, mark: Pick<Cover, 'rect'>): boolean {
  const { rect } = mark;
  if (!isMark(mark)) return false;
  const lines = scene.view.linesOf(owner);
  const words = lines.map((line) => scene.view.lineBox(line));
  if (words.length === 0) return false;
  const hidden = words.map((box) => intersect(box, rect)?.width ?? 0);
  if (Math.max(...hidden) > MARK_ON_WORDS_EM * emOf(scene.view, lines[0]!)) return false;
  const { x, y, width, height } = words.reduce(union);
  const [across, down] = [rect.x + rect.width / 2 - x, rect.y + rect.height / 2 - y];
  const isOnRim = (at: number, size: number) => at <= RIM * size || at >= (1 - RIM) * size;
  const isRtl = scene.view.style(owner, 'direction') === 'rtl';
  const isAtStart = (isRtl ? width - across : across) < width / 2;
  const areWords = lines.some((line) => !isSymbols(scene.view, { kind: 'text', line }));
  if (isAtStart && areWords) return false;
  return isOnRim(across, width) && isOnRim(down, height);
}

/** Of a sign, a badge leaves so much to be seen. */
const MOST_OF_SIGN = 0.5;

/**
 * A count or a dot on a sign that stands in one link, button or box with it.
 * @param common where the two meet
 */
export function isBadgeOnSign(scene: Scene, sign: Ink, mark: Cover, common: Rect): boolean {
  const { view } = scene;
  if (sign.kind !== 'text' || !isMark(mark) || !isSymbols(view, sign)) return false;
  const control = controlAround(view, sign.node);
  const holder = control >= 0 ? control : view.parent(sign.node);
  return scene.contains(holder, mark.node) && area(common) <= MOST_OF_SIGN * area(sign.full);
}

/** What is gone as soon as a visitor is done with what it hangs from. */
const NAMED_PASSING = /popover|popup|dropdown/i;
/** The same, unless it is a single line of words: hints show when they are asked for, and what is there from the start is a label. */
const NAMED_HINT = /tooltip/i;
/** What is gone once it was answered. */
const NAMED_ANSWERED = /cookie|consent|gdpr|dialog|modal|lightbox|toast|snackbar|notification/i;

/**
 * A notice that a visitor sends away: a cookie bar, a dialog, a toast. Told by its role, by a button to close it, or by its name
 * where something in it can be pressed: nothing sends a notice without that away.
 * @param other what is under it: what stands in it itself is not under it
 */
export function isDismissible(scene: Scene, i: NodeIndex, other: NodeIndex = -1): boolean {
  const { view } = scene;
  const root = fixedRoot(view, i);
  if (root >= 0 && !scene.contains(root, other) && holdsCloseButton(scene, root)) return true;
  const lifted = outermostLifted(view, i);
  for (let at = i; at >= 0 && !scene.contains(at, other); at = view.parent(at)) {
    if (view.has(at, FLAG_OVERLAY)) return true;
    // What merely bears such a name, or stands in a page that does, lies over nothing for a while.
    if (at < lifted) continue;
    const name = `${view.id(at)} ${view.classes(at).join(' ')} ${view.tag(at)}`;
    if (NAMED_PASSING.test(name) || (NAMED_HINT.test(name) && hasMoreThanALine(scene, at))) return true;
    if (NAMED_ANSWERED.test(name) && hasControl(scene, at)) return true;
  }
  return false;
}

const CLOSES = /(^|[-_ ])(close|dismiss)([-_ ]|$)/i;

/** A button in sight that closes what it stands in: by its sign, or by its name. */
function holdsCloseButton(scene: Scene, root: NodeIndex): boolean {
  const { view } = scene;
  for (let at = root + 1; at <= scene.lastOf(root); at++) {
    if (!view.has(at, FLAG_CONTROL) || !scene.painted[at] || view.has(at, FLAG_FIELD)) continue;
    if (CLOSES.test(`${view.id(at)} ${view.classes(at).join(' ')}`)) return true;
    const words = linesIn(scene, at).map((line) => view.lineText(line).trim());
    if (words.length === 1 && /^[×✕✖✗⨉╳]$/.test(words[0]!)) return true;
  }
  return false;
}

function linesIn(scene: Scene, i: NodeIndex): number[] {
  const lines: number[] = [];
  for (let at = i; at <= scene.lastOf(i); at++) lines.push(...scene.view.linesOf(at));
  return lines;
}

/**
 * A menu or a hint that hangs from the control it belongs to: wholly above or below the box that holds both, or beside a
 * control that says it has opened it.
 * @param other what is under it: what stands in it itself is not under it
 */
export function hangsFromControl(scene: Scene, i: NodeIndex, other: NodeIndex = -1): boolean {
  const { view } = scene;
  for (let at = i; at > 0 && !scene.contains(at, other); at = view.parent(at)) {
    if (view.style(at, 'position') !== 'absolute') continue;
    if (view.childrenOf(view.parent(at)).some((each) => each !== at && view.has(each, FLAG_OPENER)))
      return true;
    const holder = view.containingElement(at);
    if (holder <= 0 || holder === view.body) return false;
    const panel = view.box(at);
    const around = view.box(holder);
    const isOutside = panel.y >= around.y + around.height - 4 || panel.y + panel.height <= around.y + 4;
    // A part of a menu may be placed in it.
    if (isOutside && hasControl(scene, holder, [at]) && hasMoreThanALine(scene, at)) return true;
  }
  return false;
}

/** Of two lines, the second begins so far below the first, em. */
const LINE_EM = 0.8;

/** Whether something opened holds more than a line of words: a single one is a label, a count or a message that was put there for good. */
function hasMoreThanALine(scene: Scene, i: NodeIndex): boolean {
  const { view } = scene;
  const lines = linesIn(scene, i);
  if (lines.length === 0 || hasControl(scene, i)) return true;
  const tops = lines.map((line) => view.lineBox(line).y);
  return Math.max(...tops) - Math.min(...tops) > LINE_EM * emOf(view, lines[0]!);
}
