import type { Rect } from '../geometry/rect.js';
import { perLine, perStyle } from './memo.js';
import { rotationOf } from './rotation.js';
import { LINE_READ } from './snapshot.js';
import type { Face, NodeIndex, SnapshotView } from './view.js';

/**
 * Where the letters of a line are, of the line's own box: that box is as high as the font's ascent and descent, of which
 * letters fill a part. Where the face was not measured, what most Latin text faces have: capitals reach 0.7 em over the
 * baseline, descenders 0.2 em below it; the baseline lies at 0.78 of the box, which fits faces with a box of 1.1 to 1.4 em.
 */
const USUAL: Face = { baseline: 0.78, rise: 0.7, drop: 0.2, height: 1.2 };
/** Round letters reach this far below the baseline, em. */
const OVERSHOOT = 0.04;

/** The letters of a line, descenders left out: what two texts share when they lie on one another. */
export const inkOf = perLine((view, line): Rect => letters(view, line, OVERSHOOT));

/** The letters of a line with their descenders, and the accents of its capitals: what is lost when a line is cut. */
export const lettersOf = perLine((view, line): Rect =>
  letters(
    view,
    line,
    hasNoDescenders(view, line) ? OVERSHOOT : (view.lineFace(line) ?? USUAL).drop,
    hasRaisedAccents(view, line) ? ACCENT : 0,
  ),
);

/** Whether all that stands on a line is known, and nothing else is told to stand there. */
export function isRead(view: SnapshotView, line: number): boolean {
  const { flags, node } = view.snapshot.lines;
  return (flags[line]! & LINE_READ) !== 0 || view.linesOf(node[line]!).length === 1;
}

/** Only letters that reach below the baseline can meet the line below. Of a text of several lines it is not known which has them. */
export function hasDescenders(view: SnapshotView, line: number): boolean {
  const node = view.snapshot.lines.node[line]!;
  return view.style(node, 'text-transform') !== 'uppercase' && /[gjpqyçQ,;()[\]{}]/.test(view.lineText(line));
}

/** Whether no letter of a line reaches below the baseline: of Latin letters and figures in a line of which all words are known. */
function hasNoDescenders(view: SnapshotView, line: number): boolean {
  return (
    isRead(view, line) &&
    /^[A-Za-z\d .:!?'"+=%&*–-]+$/.test(view.lineText(line)) &&
    !hasDescenders(view, line)
  );
}

/** The accents of capitals reach so far above them, em; never out of the line's own box. */
const ACCENT = 0.2;

/** Whether there are capitals with accents in a line, where all of its words are known. */
function hasRaisedAccents(view: SnapshotView, line: number): boolean {
  const text = view.lineText(line);
  if (!/[^\p{ASCII}]/u.test(text) || !isRead(view, line)) return false;
  return /\p{Lu}[\u0300-\u030c]/u.test(text.normalize('NFD'));
}

function letters(view: SnapshotView, line: number, below: number, accent = 0): Rect {
  const box = view.lineBox(line);
  const node = view.snapshot.lines.node[line]!;
  if (isVertical(view, node)) return column(box, emOf(view, line));
  const turn = rotationOf(view, node);
  if (Math.abs(Math.cos(turn)) < NEARLY_UPRIGHT) return turned(box, turn, fontSizeOf(view, line));
  const em = emOf(view, line);
  const face = view.lineFace(line) ?? USUAL;
  const { top, bottom } = spanOf(face, box.height, em, below, accent);
  return { x: box.x, y: box.y + top, width: box.width, height: Math.max(0.1, bottom - top) };
}

/**
 * Where letters are in a box of some height, from its top, CSS px.
 * @param below how far below the baseline they count, em
 * @param accent how far above capitals, em
 */
function spanOf(
  face: Face,
  height: number,
  em: number,
  below: number,
  accent = 0,
): { top: number; bottom: number } {
  const baseline = height * face.baseline;
  return {
    top: Math.max(0, baseline - (face.rise + accent) * em),
    bottom: Math.min(height, baseline + below * em),
  };
}

/** The height of a line's own box by its face and font size, CSS px: for text that is turned. */
export function lineHeightOf(view: SnapshotView, line: number): number {
  return (view.lineFace(line) ?? USUAL).height * fontSizeOf(view, line);
}

/** Where the letters of a line are in a box of some height round it, descenders left out, CSS px from its top. */
export function inkWithin(view: SnapshotView, line: number, height: number): { top: number; bottom: number } {
  const face = view.lineFace(line) ?? USUAL;
  return spanOf(face, height, height / face.height, OVERSHOOT);
}

/** Whether the lines of an element's text run from top to bottom (CSS Writing Modes 4, section 3.2). */
export const isVertical = perStyle((view, i): boolean =>
  /^(vertical|sideways)/.test(view.style(i, 'writing-mode')),
);

/** The computed font size, CSS px; NaN where it is not told. */
const sizeOf = perStyle((view, i): number => Number.parseFloat(view.style(i, 'font-size')));

/** The axis that leads from one line of an element's text to the next. */
export function acrossLines(view: SnapshotView, i: NodeIndex): 'x' | 'y' {
  return isVertical(view, i) ? 'x' : 'y';
}

/** Letters set upright fill their em square, and those laid on their side stay in it; it stands in the middle of a column. */
function column(box: Rect, em: number): Rect {
  const width = Math.min(box.width, COLUMN_EM * em);
  return { ...box, x: box.x + (box.width - width) / 2, width };
}

const COLUMN_EM = 0.9;

/** Cosine of some 10 degrees: text turned by less has next to no empty corners. */
const NEARLY_UPRIGHT = 0.985;

/** Of text that is turned, the upright rectangle round it without its empty corners; a quarter turn has none. */
function turned(box: Rect, turn: number, em: number): Rect {
  const corner = em * Math.min(Math.abs(Math.sin(turn)), Math.abs(Math.cos(turn)));
  const [dx, dy] = [Math.min(box.width - 1, corner) / 2, Math.min(box.height - 1, corner) / 2];
  return { x: box.x + dx, y: box.y + dy, width: box.width - 2 * dx, height: box.height - 2 * dy };
}

function fontSizeOf(view: SnapshotView, line: number): number {
  return sizeOf(view, view.snapshot.lines.node[line]!) || 16;
}

/** The font size as painted, CSS px: a transform scales the box and not the computed size. */
export const emOf = perLine((view, line): number => {
  const node = view.snapshot.lines.node[line]!;
  const box = view.lineBox(line);
  const face = view.lineFace(line);
  const height = isVertical(view, node) ? box.width : box.height;
  const size = sizeOf(view, node);
  if (face && size > 0) {
    // Ascent and descent are rounded to whole px, so only a marked difference is a transform's.
    const scale = height / (face.height * size);
    return Math.abs(scale - 1) < 0.15 ? size : size * scale;
  }
  const known = size || height / USUAL.height;
  return height < known * 0.9 || height > known * 2 ? height / USUAL.height : known;
});
