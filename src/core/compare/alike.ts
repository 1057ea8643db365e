import type { NodeIndex } from '../layout/view.js';
import type { Side } from './side.js';

/** From here on two elements are taken for one. */
export const LEAST_ALIKE = 0.45;

/** How much two elements are alike, 0 to 1, by what they are and say: equal ones are 1, those of other tags 0. */
export function alikeness(a: Side, i: NodeIndex, b: Side, j: NodeIndex): number {
  if (a.view.tag(i) !== b.view.tag(j)) return 0;
  if (a.whole[i] === b.whole[j]) return 1;
  const isOneName = a.own[i] === b.own[j];
  const names = isOneName ? 1 : shared(namesOf(a, i), namesOf(b, j));
  const said = wordsShared(a.words[i]!, b.words[j]!);
  // Where neither says anything, only names tell.
  if (said === null) return isOneName ? 0.7 : 0.2 + 0.4 * names;
  return 0.2 + 0.35 * names + 0.4 * said;
}

function namesOf(side: Side, i: NodeIndex): string[] {
  return side.own[i]!.split(/[#.]/).slice(1).filter(Boolean);
}

/** Null where neither has any words. */
function wordsShared(a: string, b: string): number | null {
  if (a === '' && b === '') return null;
  if (a === b) return 1;
  return shared(a.split(' '), b.split(' '));
}

/** Of two lists, the share that both have (Dice, 1945); of empty ones none tells. */
function shared(a: readonly string[], b: readonly string[]): number {
  if (a.length + b.length === 0) return 0.5;
  const left = new Map<string, number>();
  for (const each of a) left.set(each, (left.get(each) ?? 0) + 1);
  let both = 0;
  for (const each of b) {
    const count = left.get(each) ?? 0;
    if (count === 0) continue;
    left.set(each, count - 1);
    both++;
  }
  return (2 * both) / (a.length + b.length);
}
