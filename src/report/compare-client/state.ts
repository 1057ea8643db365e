import { computed, effect, signal } from '@preact/signals';
import type { PairRecord } from '../../run/compare/record.js';
import type { CompareData } from '../view/compare-data.js';
import { groupedDifferences, isDiffering, pixelPlaces } from '../view/differing.js';

/** How two pictures are held against each other: two at a time, or all profiles of a page, the one wall over the other. */
export const WAYS = ['beside', 'slider', 'overlay', 'blink', 'heat', 'walls'] as const;
export type Way = (typeof WAYS)[number];

export const comparison = JSON.parse(document.getElementById('data')!.textContent) as CompareData;

/** Those that differ first, in the order of the pages. */
export const pairs: readonly PairRecord[] = [
  ...comparison.pairs.filter(isDiffering),
  ...comparison.pairs.filter((pair) => !isDiffering(pair)),
];

const said = () => new URLSearchParams(location.hash.slice(1));
const within = (text: string | null, most: number) => {
  const number = Number(text ?? 0);
  return Number.isInteger(number) && number >= 0 && number < most ? number : 0;
};

export const at = signal(within(said().get('pair'), pairs.length));
export const way = signal<Way>(WAYS.find((each) => each === said().get('way')) ?? 'beside');
/** The difference that is pointed at or stepped to; −1 for none. */
export const lit = signal(-1);
/** Keys of pairs that are meant, for a list to take over. */
export const meant = signal<ReadonlySet<string>>(new Set());

export const pair = computed(() => pairs[at.value]);
export const differences = computed(() => (pair.value ? groupedDifferences([pair.value]) : []));
export const places = computed(() => (pair.value ? pixelPlaces([pair.value]) : []));

export const nameOf = (each: PairRecord, side: 'a' | 'b') =>
  each.a === each.b ? comparison[side].name : each[side];

export const keyOf = ({ page, b }: PairRecord) => `${page} ${b}`;

effect(() => {
  const address = new URLSearchParams({ pair: String(at.value), way: way.value });
  history.replaceState(null, '', `#${address}`);
});
addEventListener('hashchange', () => {
  at.value = within(said().get('pair'), pairs.length);
  way.value = WAYS.find((each) => each === said().get('way')) ?? 'beside';
});

export function step(by: 1 | -1): void {
  at.value = Math.min(pairs.length - 1, Math.max(0, at.value + by));
  lit.value = -1;
}

export function stepDifference(by: 1 | -1): void {
  const count = differences.value.length;
  if (count > 0) lit.value = lit.value < 0 ? (by > 0 ? 0 : count - 1) : (lit.value + by + count) % count;
}
