import { columnsIn, rowsOf } from '../../layout/rows.js';
import type { NodeIndex } from '../../layout/view.js';
import { count } from '../../geometry/format.js';
import { longestRising } from '../in-order.js';
import { shownPairs, type Pairing } from '../pairing.js';
import type { Single } from './difference.js';

/** How the parts of what both layouts show stand beside, below and after one another. */
export function arrangementChanges(pairing: Pairing): Single[] {
  const { a, b, toB } = pairing;
  const numbersB = Int32Array.from({ length: b.view.count }, (_, j) => j);
  return shownPairs(pairing).flatMap(([i, j]) => {
    const reordered = reorderedIn(pairing, i, j);
    if (reordered.length > 0) return reordered;
    const [was, is] = [rowsOf(a.view, i, toB), rowsOf(b.view, j, numbersB)];
    const rows = rowsChange(i, j, was.rows, is.rows);
    if (rows) return [rows];
    // The same parts in the same order of the document, shown in another one.
    const isOneSet = was.order.split(' ').sort().join() === is.order.split(' ').sort().join();
    if (was.order !== is.order && (isOneSet || was.order === '' || is.order === ''))
      return [orderChange(i, j)];
    return [];
  });
}

function orderChange(a: NodeIndex, b: NodeIndex): Single {
  return {
    kind: 'reordered',
    a,
    b,
    from: null,
    to: null,
    one: 'shows its parts in another order',
    many: 'show their parts in another order',
  };
}

/** Children that stand elsewhere among those that both layouts have: as few as explain it. */
function reorderedIn({ a, b, toB }: Pairing, i: NodeIndex, j: NodeIndex): Single[] {
  const kept = a.children[i]!.filter((child) => toB[child]! >= 0 && b.view.parent(toB[child]!) === j);
  const places = kept.map((child) => toB[child]!);
  if (places.every((place, at) => at === 0 || place > places[at - 1]!)) return [];
  const inOrder = new Set(longestRising(places));
  const sorted = [...places].sort((x, y) => x - y);
  return kept.flatMap((child, at) => {
    if (inOrder.has(at) || !a.isShown[child]) return [];
    const [from, to] = [at + 1, sorted.indexOf(toB[child]!) + 1];
    return [
      {
        kind: 'reordered' as const,
        a: child,
        b: toB[child]!,
        from,
        to,
        one: `stands as number ${to} among its neighbours where it was number ${from}`,
        many: `stand as number ${to} among their neighbours where they were number ${from}`,
      },
    ];
  });
}

function rowsChange(
  a: NodeIndex,
  b: NodeIndex,
  was: readonly number[],
  is: readonly number[],
): Single | null {
  if (was.join() === is.join()) return null;
  const [from, to] = [columnsIn(was), columnsIn(is)];
  if (from !== to) {
    const end = `${from} to ${count(to, 'column')}`;
    return { kind: 'columns', a, b, from, to, one: `goes from ${end}`, many: `go from ${end}` };
  }
  // What stands in no rows stands in one column, one below the other.
  if (was.length === 0 || is.length === 0) return null;
  const end =
    was.length === is.length
      ? ''
      : `: ${count(is.length, 'row')} where there ${was.length === 1 ? 'was' : 'were'} ${was.length}`;
  return {
    kind: 'rows',
    a,
    b,
    from: was.length,
    to: is.length,
    one: `breaks its row elsewhere${end}`,
    many: `break their rows elsewhere${end}`,
  };
}
