import { tidy } from '../../geometry/format.js';
import { perSnapshot } from '../../layout/memo.js';
import { SETTING_PROPERTIES, type DeclaredProperty, type StyleProperty } from '../../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import type { Pairing } from '../pairing.js';

/** One property of an element that is another one. */
export interface StyleChange {
  readonly property: string;
  readonly from: string;
  readonly to: string;
}

/** Seen as it is: colours, type, borders, shadows. */
const SEEN: readonly StyleProperty[] = [
  'background-color',
  'background-image',
  'border-top-color',
  'border-right-color',
  'border-bottom-color',
  'border-left-color',
  'box-shadow',
  'opacity',
  'filter',
  'backdrop-filter',
  'mix-blend-mode',
  'clip-path',
  'mask-image',
  'object-fit',
  'text-overflow',
  'z-index',
];
/** Seen of what has words. */
const OF_WORDS: readonly StyleProperty[] = [
  'color',
  'font-family',
  'font-size',
  'line-height',
  'text-transform',
  'text-indent',
  'white-space',
];
/** Seen by where boxes stand and how large they are. */
const LAID_OUT: readonly (StyleProperty | DeclaredProperty)[] = [
  'display',
  'position',
  'float',
  'flex-direction',
  'flex-wrap',
  'flex-shrink',
  'order',
  'vertical-align',
  'box-sizing',
  'transform',
  'translate',
  'rotate',
  'scale',
  'overflow-x',
  'overflow-y',
  'width',
  'min-width',
  'max-width',
  'height',
  'max-height',
  'flex-basis',
  'left',
  'right',
  'top',
  'bottom',
];

/** What of an element's own styles is seen directly, and what by its place and size. Inherited ones are told where they begin. */
export interface OwnStyles {
  readonly seen: readonly StyleChange[];
  readonly laidOut: readonly StyleChange[];
}

/** @param isStacked whether what its place in the stack comes to was told */
export function ownStyles(pairing: Pairing, i: NodeIndex, isStacked = false): OwnStyles {
  const { a, b, toB } = pairing;
  const j = toB[i]!;
  const parent = a.view.parent(i);
  const above: readonly [NodeIndex, NodeIndex] | null =
    parent >= 0 && toB[parent]! >= 0 ? [parent, toB[parent]!] : null;
  const changed = (properties: readonly (StyleProperty | DeclaredProperty)[], isInherited = false) =>
    properties.flatMap((property): StyleChange[] => {
      const [from, to] = [valueOf(a.view, i, property), valueOf(b.view, j, property)];
      // What matters to one of two layouts only was not read in the other.
      if (from === to || from === '' || to === '' || isNearly(from, to)) return [];
      const isAbove =
        isInherited &&
        above !== null &&
        a.view.style(above[0], property) === from &&
        b.view.style(above[1], property) === to;
      return isAbove ? [] : [{ property, from, to }];
    });
  const hasWords = a.words[i] !== '' || b.words[j] !== '';
  const border = edges('border', a.view.borders(i), b.view.borders(j));
  return {
    seen: [
      ...changed(isStacked ? SEEN.filter((property) => property !== 'z-index') : SEEN),
      ...border,
      ...corners(a.view.cornersOf(i), b.view.cornersOf(j)),
      ...(hasWords ? changed(OF_WORDS, true) : []),
      ...settingChanges(a.view, i, b.view, j, above),
    ],
    laidOut: [
      ...changed(LAID_OUT),
      ...edges('padding', a.view.paddings(i), b.view.paddings(j)),
      ...edges('margin', a.view.margins(i), b.view.margins(j)),
    ],
  };
}

/** What properties are where they were not read: offsets of what does not leave its place. */
const UNREAD: Readonly<Record<string, string>> = {
  left: 'auto',
  right: 'auto',
  top: 'auto',
  bottom: 'auto',
};

function valueOf(view: SnapshotView, i: NodeIndex, property: StyleProperty | DeclaredProperty): string {
  const value = view.style(i, property);
  if (value === '') return UNREAD[property] ?? '';
  // The same site at another address shows the same.
  return value.includes('url(') ? value.replaceAll(siteOf(view), '') : value;
}

/** `https://example.test`: what the addresses of a site begin with. */
const siteOf = perSnapshot((view) => /^[a-z]+:\/\/[^/]*/.exec(view.snapshot.url)?.[0] ?? view.snapshot.url);

/** How words are set is known of elements with words of their own; where all words around changed alike, it is told there. */
function settingChanges(
  was: SnapshotView,
  i: NodeIndex,
  is: SnapshotView,
  j: NodeIndex,
  above: readonly [NodeIndex, NodeIndex] | null,
): StyleChange[] {
  const [from, to] = [was.settingOf(i), is.settingOf(j)];
  if (from === to || from === '' || to === '') return [];
  const isAbove = above !== null && was.settingOf(above[0]) === from && is.settingOf(above[1]) === to;
  if (isAbove) return [];
  const [before, after] = [from.split(';'), to.split(';')];
  return SETTING_PROPERTIES.flatMap((property, at) => {
    if (before[at] === after[at]) return [];
    // A weight of `bolder` is another one where that around it is.
    const isAround =
      above !== null && was.settingOf(above[0]).split(';')[at] !== is.settingOf(above[1]).split(';')[at];
    return isAround ? [] : [{ property, from: before[at]!, to: after[at]! }];
  });
}

function corners(from: string, to: string): StyleChange[] {
  const text = (radii: string) =>
    radii === '' ? '0px' : [...new Set(radii.split(' '))].length === 1 ? radii.split(' ')[0]! : radii;
  return from === to ? [] : [{ property: 'border-radius', from: text(from), to: text(to) }];
}

function edges(name: string, from: readonly number[], to: readonly number[]): StyleChange[] {
  const side = to.findIndex((length, at) => Math.abs(length - from[at]!) >= 0.5);
  if (side < 0) return [];
  const text = (all: readonly number[]) =>
    all.every((length) => length === all[0])
      ? `${tidy(all[0]!)}px`
      : all.map((length) => `${tidy(length)}px`).join(' ');
  return [{ property: name, from: text(from), to: text(to) }];
}

const NUMBER = /-?\d+(?:\.\d+)?(?:e-?\d+)?/g;
/** Computed lengths are rounded by the browser. */
const ROUNDED = 0.02;

function isNearly(from: string, to: string): boolean {
  if (from.replace(NUMBER, '#') !== to.replace(NUMBER, '#')) return false;
  const numbers = to.match(NUMBER) ?? [];
  return (from.match(NUMBER) ?? []).every(
    (number, at) => Math.abs(Number(number) - Number(numbers[at])) < ROUNDED,
  );
}

const SIDES = /^border-(?:top|right|bottom|left)-color$/;
const LONGEST = 36;
const MOST_TOLD = 3;

/** Properties that changed, as one clause: `color #063 → #b00, font-size 16px → 18px`. */
export function stylesText(changes: readonly StyleChange[]): string {
  const texts = new Set(
    changes.map(
      ({ property, from, to }) => `${property.replace(SIDES, 'border-color')} ${shown(from)} → ${shown(to)}`,
    ),
  );
  const told = [...texts].slice(0, MOST_TOLD);
  const left = texts.size - told.length;
  return left > 0 ? `${told.join(', ')} and ${left} more` : told.join(', ');
}

function shown(value: string): string {
  return value.length > LONGEST ? `${value.slice(0, LONGEST - 1)}…` : value;
}
