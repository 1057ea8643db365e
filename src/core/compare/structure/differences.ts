import { px } from '../../geometry/format.js';
import { repeatedSteps } from '../../identity/repeats.js';
import { SETTING_PROPERTIES } from '../../layout/snapshot.js';
import { isOutOfFlow } from '../../layout/displace.js';
import type { NodeIndex } from '../../layout/view.js';
import { isPositionChange, positionWords } from '../../sightings/position-words.js';
import { shownPairs, type Pairing } from '../pairing.js';
import { below, type Side } from '../side.js';
import { arrangementChanges } from './arrangement.js';
import { contentChanges } from './contents.js';
import type { Difference, Single } from './difference.js';
import { firstScreenChanges } from './first-screen.js';
import {
  followersOf,
  growthOf,
  shiftOrigins,
  shiftsOf,
  type Growth,
  type Shift,
  type Shifts,
} from './geometry.js';
import { lineChanges } from './lines.js';
import { Measures, type StructureOptions } from './parts.js';
import { seenChanges } from './seen.js';
import { stackingChanges } from './stacking.js';
import { ownStyles, stylesText, type StyleChange } from './styles.js';
import { selectorIn, told } from './told.js';

/**
 * What a person sees of a page in one render and not in another. In windows of equal width boxes are compared to the px against their containers,
 * and what follows from something else is told with that. In windows of different widths every box is another one: there the form of the layout is
 * told, and not its px.
 */
export function differencesOf(pairing: Pairing, options: StructureOptions): Difference[] {
  const [{ viewport }, other] = [pairing.a.view.snapshot, pairing.b.view.snapshot.viewport];
  const isSameWidth = viewport.width === other.width;
  const seen = seenChanges(pairing);
  const contents = contentChanges(pairing);
  const arranged = arrangementChanges(pairing);
  const stacked = stackingChanges(pairing);
  const restacked = new Set(stacked.map(({ a: i }) => i));
  const measures = new Measures(pairing, options, options.parts ?? []);
  const all = isSameWidth
    ? withGeometry(pairing, measures, { seen, contents, arranged, stacked, restacked })
    : [
        ...seen,
        ...contents,
        ...arranged,
        ...stacked,
        ...gathered(pairing, restyledOnly(pairing, restacked)),
        ...lineChanges(pairing),
        ...firstScreenChanges(pairing),
      ].map((single) => ({ ...single, follows: [] }));
  const isLeftOut = leftOutIn(pairing, options);
  return told(
    pairing,
    all.filter((single) => measures.tells(single) && !isLeftOut(single)),
  );
}

interface Found {
  readonly seen: readonly Single[];
  readonly contents: readonly Single[];
  readonly arranged: readonly Single[];
  readonly stacked: readonly Single[];
  /** Rows of `a` of which that was told. */
  readonly restacked: ReadonlySet<NodeIndex>;
}

type Followed = Single & { readonly follows: readonly string[] };

/** In windows of one width: what boxes do follows from something, or is told itself. */
function withGeometry(
  pairing: Pairing,
  measures: Measures,
  { seen, contents, arranged, stacked, restacked }: Found,
): Followed[] {
  const { a, b, toA } = pairing;
  const shifts = shiftsOf(pairing, measures);
  const styled = gathered(pairing, styleChanges(pairing, shifts, restacked));
  const changed = new Set(
    [...seen, ...contents, ...stacked, ...styled].flatMap(({ a: i }) => (i < 0 ? [] : [i])),
  );
  /** Containers of which some part is new or gone, shown or hidden. */
  const holders = new Set<NodeIndex>();
  for (const { a: i, b: j } of seen) {
    if (i >= 0 && a.view.parent(i) >= 0) holders.add(a.view.parent(i));
    for (let at = j < 0 ? -1 : b.view.parent(j); at >= 0; at = b.view.parent(at))
      if (toA[at]! >= 0) {
        holders.add(toA[at]!);
        break;
      }
  }
  const moved = arranged.filter(({ kind, a: i }) =>
    kind === 'reordered'
      ? true
      : !holders.has(i) && !changed.has(i) && !followsWidth(pairing, shifts, changed, i),
  );
  const causes = new Set([...changed, ...holders, ...moved.map(({ a: i }) => i)]);
  const following = followersOf(pairing, shifts, causes);
  const origins = shiftOrigins(pairing, shifts, (i) => !following.has(i) && !causes.has(i));
  const own = origins.map((i) => shiftSingle(pairing, shifts, i));
  const primary = [...seen, ...contents, ...moved, ...stacked, ...styled, ...own];
  return withFollows(pairing, shifts, primary);
}

/** A container whose width is another one because of something else has its rows broken by that. */
function followsWidth(
  { a }: Pairing,
  shifts: Shifts,
  changed: ReadonlySet<NodeIndex>,
  i: NodeIndex,
): boolean {
  if (Math.abs(shifts.get(i)?.dw ?? 0) > 1) return true;
  // Of parts that are themselves others, the rows are.
  return a.children[i]!.some((child) => changed.has(child));
}

/** Styles of elements that both layouts show, where they are seen: as they are, or by where boxes stand. */
function styleChanges(pairing: Pairing, shifts: Shifts, restacked: ReadonlySet<NodeIndex>): Single[] {
  const { a, b } = pairing;
  return shownPairs(pairing).flatMap(([i, j]): Single[] => {
    const { seen, laidOut } = ownStyles(pairing, i, restacked.has(i));
    const position = [a.view.style(i, 'position'), b.view.style(j, 'position')] as const;
    if (isPositionChange(...position)) return [positionChange(i, j, ...position)];
    if (seen.length > 0) return [restyle(i, j, [...seen, ...laidOut])];
    if (laidOut.length === 0 || followsRoom(pairing, shifts, i, laidOut)) return [];
    const shift = shifts.get(i);
    if (shift) return [shiftChange(pairing, i, shift, laidOut)];
    const areParts = a.children[i]!.some((child) => shifts.has(child));
    return areParts
      ? [
          {
            ...restyle(i, j, laidOut),
            kind: 'moved',
            one: `places its parts otherwise: ${stylesText(laidOut)}`,
            many: `place their parts otherwise: ${stylesText(laidOut)}`,
          },
        ]
      : [];
  });
}

/** Margins and paddings are known as they are used: those that share the room around are others where that is. */
function followsRoom(
  { a: { view } }: Pairing,
  shifts: Shifts,
  i: NodeIndex,
  laidOut: readonly StyleChange[],
): boolean {
  const isUsed = laidOut.every(({ property }) => property === 'margin' || property === 'padding');
  if (!isUsed) return false;
  const holder = shifts.get(view.containingElement(i)) ?? shifts.get(view.parent(i));
  const isOut = isOutOfFlow(view, i);
  return Math.abs(holder?.dw ?? 0) > 0.5 || (isOut && Math.abs(holder?.dh ?? 0) > 0.5);
}

/** Between windows of different widths, lengths that follow the width say nothing. */
function restyledOnly(pairing: Pairing, restacked: ReadonlySet<NodeIndex>): Single[] {
  const { a, b } = pairing;
  return shownPairs(pairing).flatMap(([i, j]): Single[] => {
    const position = [a.view.style(i, 'position'), b.view.style(j, 'position')] as const;
    if (isPositionChange(...position)) return [positionChange(i, j, ...position)];
    const { seen } = ownStyles(pairing, i, restacked.has(i));
    return seen.length > 0 ? [restyle(i, j, seen)] : [];
  });
}

function restyle(a: NodeIndex, b: NodeIndex, changes: readonly StyleChange[]): Single {
  const [first] = changes;
  const text = stylesText(changes);
  return {
    kind: 'restyled',
    a,
    b,
    from: first?.from ?? null,
    to: first?.to ?? null,
    one: `has another look: ${text}`,
    many: `have another look: ${text}`,
  };
}

function positionChange(a: NodeIndex, b: NodeIndex, from: string, to: string): Single {
  return { kind: 'positioned', a, b, from, to, ...positionWords(from, to) };
}

function shiftSingle(pairing: Pairing, shifts: Shifts, i: NodeIndex): Single {
  const shift = shifts.get(i);
  if (shift) return shiftChange(pairing, i, shift, []);
  return {
    kind: 'moved',
    a: i,
    b: pairing.toB[i]!,
    from: null,
    to: null,
    one: 'places its parts otherwise',
    many: 'place their parts otherwise',
  };
}

function shiftChange(
  { a, b, toB }: Pairing,
  i: NodeIndex,
  { dx, dy, dw, dh }: Shift,
  by: readonly StyleChange[],
): Single {
  const j = toB[i]!;
  const [was, is] = [a.view.box(i), b.view.box(j)];
  const why = by.length > 0 ? `: ${stylesText(by)}` : '';
  const sizes: string[] = [];
  if (Math.abs(dw) > 0.5) sizes.push(`${px(is.width)} wide where it was ${px(was.width)}`);
  if (Math.abs(dh) > 0.5) sizes.push(`${px(is.height)} high where it was ${px(was.height)}`);
  if (sizes.length > 0) {
    const many = sizes.map((text) => text.replace('it was', 'they were'));
    const isWidth = Math.abs(dw) > 0.5;
    return {
      kind: 'resized',
      a: i,
      b: j,
      from: Math.round(isWidth ? was.width : was.height),
      to: Math.round(isWidth ? is.width : is.height),
      one: `is ${sizes.join(' and ')}${why}`,
      many: `are ${many.join(' and ')}${why}`,
    };
  }
  const ways = [
    ...(Math.abs(dx) > 0.5 ? [`${px(Math.abs(dx))} to the ${dx > 0 ? 'right' : 'left'}`] : []),
    ...(Math.abs(dy) > 0.5 ? [`${px(Math.abs(dy))} ${dy > 0 ? 'down' : 'up'}`] : []),
  ].join(' and ');
  return {
    kind: 'moved',
    a: i,
    b: j,
    from: null,
    to: null,
    one: `moved ${ways}${why}`,
    many: `moved ${ways}${why}`,
  };
}

/**
 * With what comes of each difference: the part of the page that grew by it, and what is below. Where several make one part grow, it is told of the one
 * that did most.
 */
function withFollows(pairing: Pairing, shifts: Shifts, singles: readonly Single[]): Followed[] {
  const best = new Map<
    NodeIndex,
    { readonly single: Single; readonly by: number; readonly growth: Growth }
  >();
  for (const single of singles) {
    const from = placeIn(pairing, single);
    const growth = from < 0 ? null : growthOf(pairing, shifts, from);
    if (!growth) continue;
    const by = heightBy(pairing, shifts, single);
    if (by > (best.get(growth.node)?.by ?? -1)) best.set(growth.node, { single, by, growth });
  }
  const growths = new Map([...best.values()].map(({ single, growth }) => [single, growth]));
  return singles.map((single) => {
    const growth = growths.get(single);
    return { ...single, follows: growth ? followsText(pairing, single, growth) : [] };
  });
}

/** Where a difference is in the first layout: itself, or what it stands in. */
function placeIn({ a, b, toA, toB }: Pairing, { a: i, b: j }: Single): NodeIndex {
  if (i >= 0) return toB[i]! >= 0 ? i : a.view.parent(i);
  for (let at = b.view.parent(j); at >= 0; at = b.view.parent(at)) if (toA[at]! >= 0) return toA[at]!;
  return -1;
}

/** How much higher or lower the page may be by a difference, CSS px. */
function heightBy({ a, b, toB }: Pairing, shifts: Shifts, { a: i, b: j, kind }: Single): number {
  if (i < 0 || (kind === 'shown' && j >= 0)) return b.view.box(j).height;
  if (toB[i]! < 0 || kind === 'hidden') return a.view.box(i).height;
  const { dh = 0, dy = 0 } = shifts.get(i) ?? {};
  return kind === 'moved' ? Math.abs(dy) : Math.abs(dh);
}

function followsText({ a }: Pairing, { kind, a: i }: Single, { node, from, to, below }: Growth): string[] {
  const isItself = node === i && kind === 'resized';
  return [
    ...(isItself
      ? []
      : [`${selectorIn(a.view, node)} ${to > from ? 'grew' : 'shrank'} from ${from} to ${to} px`]),
    ...(below === 0
      ? []
      : [`Everything below it moved ${below > 0 ? 'down' : 'up'} by ${Math.abs(below)} px`]),
  ];
}

/**
 * One change of style on everything in an element that it could be on is told of that element: what is inherited is known only of elements with words
 * of their own.
 */
function gathered({ a, toB }: Pairing, singles: readonly Single[]): Single[] {
  const groups = new Map<string, Single[]>();
  for (const single of singles) {
    const key = `${single.kind}\n${single.one}`;
    groups.set(key, [...(groups.get(key) ?? []), single]);
  }
  return [...groups.values()].flatMap((group) => {
    if (group.length < 2 || group[0]!.kind !== 'restyled') return group;
    const rows = new Set(group.map(({ a: i }) => i));
    // Of repeated elements each has it; how words are set is all that is not known where it begins.
    const steps = new Set([...rows].map((i) => repeatedSteps(a.view)[i]!));
    if (steps.size < 2 || !SETTING_PROPERTIES.some((property) => group[0]!.one.includes(` ${property} `)))
      return group;
    const above = commonAbove(a, [...rows]);
    if (above < 0 || toB[above]! < 0 || a.view.tag(above) === 'html') return group;
    const isWhole = withWords(a, above).every((i) => rows.has(i));
    return isWhole ? [{ ...group[0]!, a: above, b: toB[above]! }] : group;
  });
}

function commonAbove(a: Pairing['a'], rows: readonly NodeIndex[]): NodeIndex {
  const chains = rows.map((i) => {
    const chain: NodeIndex[] = [];
    for (let at = i; at >= 0; at = a.view.parent(at)) chain.unshift(at);
    return chain;
  });
  let common = -1;
  for (let depth = 0; chains.every((chain) => chain[depth] !== undefined); depth++) {
    if (!chains.every((chain) => chain[depth] === chains[0]![depth])) break;
    common = chains[0]![depth]!;
  }
  return common;
}

function withWords(a: Side, above: NodeIndex): NodeIndex[] {
  return [...below(a, above)].filter((at) => at !== above && a.view.textOf(at) !== '' && a.isShown[at]);
}

function leftOutIn({ a, b }: Pairing, { without }: StructureOptions): (single: Single) => boolean {
  const isIn = (side: Pairing['a'], i: NodeIndex, left: ReadonlySet<NodeIndex>) => {
    for (let at = i; at >= 0; at = side.view.parent(at)) if (left.has(at)) return true;
    return false;
  };
  return ({ a: i, b: j }) => isIn(a, i, without.a) || isIn(b, j, without.b);
}
