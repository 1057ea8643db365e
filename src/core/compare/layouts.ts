import { digest } from '../identity/digest.js';
import { rowsOf } from '../layout/rows.js';
import { perSnapshot } from '../layout/memo.js';
import type { SnapshotView } from '../layout/view.js';
import { pairingOf } from './pairing.js';
import { sideOf } from './side.js';
import type { DifferenceKind } from './structure/difference.js';
import { differencesOf } from './structure/differences.js';
import { ROUNDING } from './structure/parts.js';

/** Renders of a page that are one layout: the same things shown, in the same columns, rows and order. */
export interface OneLayout {
  /** Names of the renders, in their order. */
  readonly names: readonly string[];
  /** What sets it apart from the layout of most renders, in sentences; empty for that. */
  readonly apart: readonly string[];
  /** How many differences there are in all. */
  readonly differences: number;
}

/** What makes another layout; the rest is the same layout in another size. */
const OF_FORM: ReadonlySet<DifferenceKind> = new Set([
  'control',
  'removed',
  'hidden',
  'inserted',
  'shown',
  'replaced',
  'columns',
  'rows',
  'reordered',
  'positioned',
]);
/** Differences of a layout that are told. */
const MOST_TOLD = 4;

/** The layouts that renders of one page come to, that of most renders first. */
export function layoutsOf(
  renders: readonly { readonly name: string; readonly view: SnapshotView }[],
): OneLayout[] {
  const groups = new Map<string, { readonly name: string; readonly view: SnapshotView }[]>();
  for (const render of renders) {
    const form = formOf(render.view);
    groups.set(form, [...(groups.get(form) ?? []), render]);
  }
  const sorted = [...groups.values()].sort((x, y) => y.length - x.length);
  const [most] = sorted;
  return sorted.map((group) => {
    const names = group.map(({ name }) => name);
    if (group === most) return { names, apart: [], differences: 0 };
    const found = differencesOf(pairingOf(most![0]!.view, group[0]!.view), {
      tolerance: ROUNDING,
      without: { a: new Set(), b: new Set() },
      kinds: OF_FORM,
    });
    return {
      names,
      apart: found.slice(0, MOST_TOLD).map(({ message }) => message),
      differences: found.length,
    };
  });
}

/** Equal for renders that are one layout. */
const formOf: (view: SnapshotView) => string = perSnapshot((view) => {
  const { rows, own, isShown } = sideOf(view);
  const numbers = Int32Array.from({ length: view.count }, (_, i) => i);
  const place = new Map(rows.map((i, at) => [i, at]));
  return digest(
    rows
      .filter((i) => isShown[i])
      .map((i) => {
        const { rows: counts, order } = rowsOf(view, i, numbers);
        const parts = order === '' ? '' : order.split(' ').map((row) => place.get(Number(row)));
        return `${own[i]!} ${view.style(i, 'position')} ${counts.join()} ${String(parts)}`;
      })
      .join('\n'),
  );
});
