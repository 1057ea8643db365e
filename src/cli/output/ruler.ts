import colors from 'picocolors';
import stringWidth from 'string-width';
import { middleCut, plainText } from './wrapped.js';

/** The widest name beside a bar, in columns. */
const LABEL = 26;
const GAP = 2;

/** Sizes from left to right in a terminal. */
export interface Ruler {
  /** As many of the sizes as have room, each where it is; the first and the last always. */
  scale(sizes: readonly number[]): string;
  /** A line from end to end with a tick at each size. */
  line(label: string, ticks: readonly number[]): string;
  /** Each range from a mark on, with as much of its name as has room. */
  names(
    label: string,
    ranges: readonly { readonly label: string; readonly span: readonly [number, number] }[],
  ): string;
  /** A bar over spans of sizes. */
  bar(label: string, spans: readonly (readonly [number, number])[], tone: (text: string) => string): string;
}

/** @param columns of the whole line, the label among them */
export function rulerOf(
  { from, to }: { readonly from: number; readonly to: number },
  columns: number,
): Ruler {
  const length = columns - LABEL - GAP;
  const at = (size: number) => Math.round(((size - from) / Math.max(1, to - from)) * (length - 1));
  const beside = (label: string, text: string) => {
    const cut = middleCut(label, LABEL);
    return `${cut}${' '.repeat(LABEL + GAP - stringWidth(cut))}${text}`;
  };
  return {
    scale: (sizes) => beside('px', colors.dim(scaleText(sizes, at, length))),
    line: (label, ticks) => {
      const chars = Array.from({ length }, () => '─');
      for (const size of ticks) chars[at(size)] = '┼';
      chars[0] = '├';
      chars[length - 1] = '┤';
      return beside(label, chars.join(''));
    },
    names: (label, ranges) => {
      const parts = ranges.map(({ label: name, span: [first, last] }) => {
        const start = at(first);
        const width = at(last + 1) - start;
        const text = plainText(name);
        return { start, text: stringWidth(text) > width - 2 ? '│' : `│${text}` };
      });
      let line = '';
      for (const { start, text } of parts) line += ' '.repeat(Math.max(0, start - stringWidth(line))) + text;
      return beside(label, colors.dim(line));
    },
    bar: (label, spans, tone) => {
      const chars = Array.from({ length }, () => ' ');
      for (const [min, max] of spans) chars.fill('█', at(min), at(max) + 1);
      return beside(label, tone(chars.join('').trimEnd()));
    },
  };
}

function scaleText(sizes: readonly number[], at: (size: number) => number, length: number): string {
  const text = Array.from({ length }, () => ' ');
  const put = (size: number) => {
    const digits = String(size);
    const start = Math.min(at(size), length - digits.length);
    const isFree = text
      .slice(Math.max(0, start - 1), start + digits.length + 1)
      .every((char) => char === ' ');
    if (isFree) for (let i = 0; i < digits.length; i++) text[start + i] = digits.charAt(i);
  };
  put(sizes[0]!);
  put(sizes.at(-1)!);
  for (const size of sizes.slice(1, -1)) put(size);
  return text.join('');
}
