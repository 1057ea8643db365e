import { FLAG_CONTROL, FLAG_PICTURE } from '../layout/snapshot.js';
import type { NodeIndex } from '../layout/view.js';
import type { Pairing } from './pairing.js';
import type { Side } from './side.js';

/** What a reader goes by counts: what is said or shown, how it looks, and where it stands. */
const SHARES = { said: 0.4, looks: 0.2, stands: 0.4 } as const;

/**
 * How unlike two renders of a page are, 0 to 1: 0 where everything that is to be read, seen or used is in both, says and looks the same and stands at the same share
 * of the window; 1 where nothing is. Of elements with words of their own, pictures and controls each counts once; what only one has counts as wholly unlike.
 * `1 − 2·Σs / (n + m)`, after Dice (1945), with `s` the likeness of a pair and `n`, `m` the elements of both.
 */
export function unlikeness(pairing: Pairing): number {
  const { a, b, toB } = pairing;
  const [counted, others] = [a, b].map((side) => side.rows.filter((i) => isCounted(side, i)));
  const total = counted!.length + others!.length;
  if (total === 0) return 0;
  let sum = 0;
  for (const i of counted!) {
    const j = toB[i]!;
    if (j >= 0 && isCounted(b, j)) sum += likenessOf(a, i, b, j);
  }
  return Math.max(0, Math.min(1, 1 - (2 * sum) / total));
}

function isCounted({ view, isShown }: Side, i: NodeIndex): boolean {
  return isShown[i] === 1 && (view.textOf(i) !== '' || view.has(i, FLAG_CONTROL | FLAG_PICTURE));
}

const LOOKS = ['color', 'background-color', 'font-size', 'font-family'] as const;

function likenessOf(a: Side, i: NodeIndex, b: Side, j: NodeIndex): number {
  const isSaid = a.view.textOf(i) === b.view.textOf(j) && a.view.sourceOf(i) === b.view.sourceOf(j);
  const looks =
    LOOKS.filter((property) => a.view.style(i, property) === b.view.style(j, property)).length / LOOKS.length;
  return (isSaid ? SHARES.said : 0) + SHARES.looks * looks + SHARES.stands * standing(a, i, b, j);
}

/** 1 where a box stands at the same share of the window and takes the same share of its width, and is as high. */
function standing(a: Side, i: NodeIndex, b: Side, j: NodeIndex): number {
  const [was, is] = [a.view.box(i), b.view.box(j)];
  const [from, to] = [a.view.snapshot.viewport.width, b.view.snapshot.viewport.width];
  const across = Math.abs(was.x / from - is.x / to) + Math.abs(was.width / from - is.width / to);
  const high = Math.abs(was.height - is.height) / Math.max(1, was.height, is.height);
  return Math.max(0, 1 - across - high / 2);
}
