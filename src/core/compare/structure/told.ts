import { repeatedSteps } from '../../identity/repeats.js';
import { SelectorWriter } from '../../identity/selector.js';
import { shortName } from '../../sightings/words.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import { perSnapshot } from '../../layout/memo.js';
import type { Pairing } from '../pairing.js';
import { DIFFERENCE_KINDS, MOST_PLACES, type Difference, type Single } from './difference.js';

const writerOf = perSnapshot((view) => new SelectorWriter(view));

/** An element as it is told: of repeated ones, the first. */
export function selectorIn(view: SnapshotView, i: NodeIndex): string {
  return writerOf(view).write(i);
}

/** Differences as readers are told them: those of repeated elements once, with how many there are, in their order of interest. */
export function told(
  { a, b }: Pairing,
  singles: readonly (Single & { readonly follows: readonly string[] })[],
): Difference[] {
  const groups = new Map<string, (Single & { readonly follows: readonly string[] })[]>();
  for (const each of singles) {
    const [view, node] = each.a >= 0 ? [a.view, each.a] : [b.view, each.b];
    // Of what left the first screen, the first is told and how many.
    const step = each.kind === 'first-screen' ? '' : repeatedSteps(view)[node]!;
    const key = `${each.kind}\n${step}\n${each.one}`;
    groups.set(key, [...(groups.get(key) ?? []), each]);
  }
  return [...groups.values()]
    .map((group): Difference => {
      const [first] = group as [(typeof group)[number]];
      const { kind, from, to, one, many } = first;
      const [view, node] = first.a >= 0 ? [a.view, first.a] : [b.view, first.b];
      const name = nameOf(view, node, kind, group.length);
      return {
        kind,
        a: first.a < 0 ? null : selectorIn(a.view, first.a),
        b: first.b < 0 ? null : selectorIn(b.view, first.b),
        from,
        to,
        count: group.length,
        message: `${name} ${group.length > 1 ? many : one}`,
        follows: [...new Set(group.flatMap(({ follows }) => follows))],
        places: group.slice(0, MOST_PLACES).map((each) => ({
          a: each.a < 0 ? null : a.view.box(each.a),
          b: each.b < 0 ? null : b.view.box(each.b),
        })),
      };
    })
    .sort((x, y) => DIFFERENCE_KINDS.indexOf(x.kind) - DIFFERENCE_KINDS.indexOf(y.kind));
}

function nameOf(view: SnapshotView, node: NodeIndex, kind: Single['kind'], count: number): string {
  if (count === 1) return selectorIn(view, node);
  return kind === 'first-screen'
    ? `${selectorIn(view, node)} and ${count - 1} more`
    : `${count} × ${shortName(view, node)}`;
}
