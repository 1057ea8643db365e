import { count } from '../../geometry/format.js';
import { perSnapshot } from '../../layout/memo.js';
import { textRowsOf } from '../../layout/text-rows.js';
import type { NodeIndex } from '../../layout/view.js';
import { shownPairs, type Pairing } from '../pairing.js';
import type { Single } from './difference.js';

/** By the block, how many rows its words take. */
const rowCounts = perSnapshot(
  (view) => new Map<NodeIndex, number>(textRowsOf(view).map(({ block, rows }) => [block, rows.length])),
);

/** The same words in more lines, or in fewer. */
export function lineChanges(pairing: Pairing): Single[] {
  const { a, b } = pairing;
  const [was, is] = [rowCounts(a.view), rowCounts(b.view)];
  return shownPairs(pairing).flatMap(([i, j]) => {
    const [from, to] = [was.get(i), is.get(j)];
    if (from === undefined || to === undefined || from === to || a.words[i] !== b.words[j]) return [];
    return [
      {
        kind: 'wrapped' as const,
        a: i,
        b: j,
        from,
        to,
        one: `takes ${count(to, 'line')} where it took ${from}`,
        many: `take ${count(to, 'line')} where they took ${from}`,
      },
    ];
  });
}
