import { isButton, LEAST_LINKS, linksIn } from '../../layout/menu-parts.js';
import type { NodeIndex } from '../../layout/view.js';
import { intersect, area } from '../../geometry/rect.js';
import { shortName } from '../../sightings/words.js';
import type { Pairing } from '../pairing.js';
import type { Side } from '../side.js';
import type { Single } from './difference.js';

/** What stands where something else stood covers so much of it. */
const SAME_PLACE = 0.5;

/** What is there, or seen, in one layout and not in the other: the topmost elements. */
export function seenChanges(pairing: Pairing): Single[] {
  const gone = unpaired(pairing.a, pairing.toB, pairing.toA, pairing.b);
  const come = unpaired(pairing.b, pairing.toA, pairing.toB, pairing.a);
  const { hidden, shown } = turned(pairing);
  const pairedTo = (i: NodeIndex) => pairing.toB[i]!;
  const menu = menuChange(pairing, [...gone.topmost, ...hidden], [...come.topmost, ...shown.map(pairedTo)]);
  const replaced = replacedIn(pairing, gone.topmost, come.topmost);
  const told = new Set([...replaced.flatMap(({ a }) => a), ...(menu ? [menu.a] : [])]);
  const toldB = new Set([...replaced.flatMap(({ b }) => b), ...(menu ? [menu.b] : [])]);
  return [
    ...(menu ? [menu] : []),
    ...replaced,
    ...gone.topmost.filter((i) => !told.has(i)).map((a) => single('removed', a, -1, 'is gone', 'are gone')),
    ...hidden
      .filter((i) => !told.has(i))
      .map((a) => single('hidden', a, pairedTo(a), 'is not seen any more', 'are not seen any more')),
    ...come.topmost.filter((j) => !toldB.has(j)).map((b) => single('inserted', -1, b, 'is new', 'are new')),
    ...shown
      .filter((i) => !toldB.has(pairedTo(i)))
      .map((a) => single('shown', a, pairedTo(a), 'is seen now', 'are seen now')),
    ...come.round.map(([b, child]) =>
      single(
        'enclosed',
        pairing.toA[child]!,
        b,
        'stands round what was there before',
        'stand round what was there before',
      ),
    ),
    ...gone.round.map(([a, child]) =>
      single(
        'released',
        a,
        pairing.toB[child]!,
        'stands no more round what is in it',
        'stand no more round what is in them',
      ),
    ),
  ];
}

function single(kind: Single['kind'], a: NodeIndex, b: NodeIndex, one: string, many: string): Single {
  return { kind, a, b, from: null, to: null, one, many };
}

interface Unpaired {
  readonly topmost: NodeIndex[];
  /** Elements that stand round others which both layouts have, each with one of these. */
  readonly round: [NodeIndex, NodeIndex][];
}

/** What of one side the other has not. */
function unpaired(side: Side, to: Int32Array, back: Int32Array, other: Side): Unpaired {
  const topmost: NodeIndex[] = [];
  const round: [NodeIndex, NodeIndex][] = [];
  const inside = new Uint8Array(side.view.count);
  for (const i of side.rows) {
    const parent = side.view.parent(i);
    if (parent >= 0 && inside[parent]) {
      inside[i] = to[i]! < 0 ? 1 : 0;
      if (inside[i]) continue;
    }
    if (to[i]! >= 0 || !side.isShown[i]) continue;
    const kept = keptIn(side, i, to, other, back);
    if (kept >= 0) round.push([i, kept]);
    else {
      topmost.push(i);
      inside[i] = 1;
    }
  }
  return { topmost, round };
}

/** A child of a new element that stood in its place before: in what the element stands in. −1 where there is none. */
function keptIn(side: Side, i: NodeIndex, to: Int32Array, other: Side, back: Int32Array): NodeIndex {
  let above = side.view.parent(i);
  while (above >= 0 && to[above]! < 0) above = side.view.parent(above);
  if (above < 0) return -1;
  const place = to[above]!;
  return (
    side.children[i]!.find((child) => {
      const was = to[child]!;
      if (was < 0) return false;
      let holder = other.view.parent(was);
      while (holder >= 0 && holder !== place && back[holder]! < 0) holder = other.view.parent(holder);
      return holder === place;
    }) ?? -1
  );
}

/** What both layouts have and only one shows. Rows of `a`. */
function turned({ a, b, toB }: Pairing): { hidden: NodeIndex[]; shown: NodeIndex[] } {
  const changeOf = (i: NodeIndex) => {
    const j = i < 0 ? -1 : toB[i]!;
    return j < 0 ? 0 : b.isShown[j]! - a.isShown[i]!;
  };
  const topmost = a.rows.filter((i) => changeOf(i) !== 0 && changeOf(a.view.parent(i)) !== changeOf(i));
  return {
    hidden: topmost.filter((i) => changeOf(i) < 0),
    shown: topmost.filter((i) => changeOf(i) > 0),
  };
}

/** Links make room for a button, or the other way round. @param gone rows of `a`. @param come rows of `b` */
function menuChange(
  { a, b }: Pairing,
  gone: readonly NodeIndex[],
  come: readonly NodeIndex[],
): Single | null {
  const links = gone.find((i) => linksIn(a.view, i) >= LEAST_LINKS);
  const button = come.find((j) => isButton(b.view, j));
  if (links !== undefined && button !== undefined) {
    const name = shortName(b.view, button);
    return controlChange(links, button, ['menu', 'button'], `the button ${name}`);
  }
  const was = gone.find((i) => isButton(a.view, i));
  const menu = come.find((j) => linksIn(b.view, j) >= LEAST_LINKS);
  if (was === undefined || menu === undefined) return null;
  return controlChange(was, menu, ['button', 'menu'], `the menu ${shortName(b.view, menu)}`);
}

function controlChange(
  a: NodeIndex,
  b: NodeIndex,
  [from, to]: readonly [string, string],
  what: string,
): Single {
  return { kind: 'control', a, b, from, to, one: `makes room for ${what}`, many: `make room for ${what}` };
}

/** Something else stands in the place of what is gone, in the same container. */
function replacedIn(
  { a, b, toB }: Pairing,
  gone: readonly NodeIndex[],
  come: readonly NodeIndex[],
): Single[] {
  const found: Single[] = [];
  const taken = new Set<NodeIndex>();
  for (const i of gone) {
    const parent = a.view.parent(i);
    const j = come.find((other) => {
      if (taken.has(other) || parent < 0 || toB[parent] !== b.view.parent(other)) return false;
      const isOneText = a.words[i] !== '' && a.words[i] === b.words[other];
      return isOneText || placeShared(a, i, b, other) >= SAME_PLACE;
    });
    if (j === undefined) continue;
    taken.add(j);
    found.push({
      ...single('replaced', i, j, '', ''),
      from: shortName(a.view, i),
      to: shortName(b.view, j),
      one: `is replaced by ${shortName(b.view, j)}`,
      many: `are replaced by ${shortName(b.view, j)}`,
    });
  }
  return found;
}

/** Of two boxes, what both take, as a share of the larger one. */
function placeShared(a: Side, i: NodeIndex, b: Side, j: NodeIndex): number {
  const [was, is] = [a.view.box(i), b.view.box(j)];
  const common = intersect(was, is);
  return common ? area(common) / Math.max(area(was), area(is)) : 0;
}
