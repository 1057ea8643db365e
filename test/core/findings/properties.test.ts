import fc from 'fast-check';
import { FLAG_CONTROL } from '../../../src/core/layout/snapshot.js';
import { findingsOfPage } from '../../../src/core/findings/group.js';
import { judge } from '../../../src/core/findings/judge.js';
import { RULES } from '../../../src/core/rules/index.js';
import { CARD, renderOf } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

/** A drawn card with a line of text or a button in it, which may run out of it or be cut by it. */
interface Card {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly out: number;
  readonly cuts: boolean;
  readonly button: boolean;
}

/** Steps of 40 px, so that nothing is close to a threshold and scaling moves nothing over one. */
const step = (min: number, max: number) => fc.integer({ min, max }).map((n) => n * 40);
const card = fc.record({
  x: step(1, 12),
  y: step(0, 12),
  width: step(2, 5),
  out: fc.constantFrom(0, 0, 40, 80),
  cuts: fc.boolean(),
  button: fc.boolean(),
});
const cards = fc
  .array(card, { minLength: 1, maxLength: 12 })
  .map((list): Card[] => list.map((entry, i) => ({ ...entry, id: `card-${'abcdefghijkl'.charAt(i)}` })));

/** The page of some cards, everything on it moved and then made `k` times as large. */
function pageOf(list: readonly Card[], { dx = 0, dy = 0, k = 1 } = {}) {
  const box = (x: number, y: number, width: number, height: number) =>
    [(x + dx) * k, (y + dy) * k, width * k, height * k] as const;
  const nodes = list.map(({ id, x, y, width, out, cuts, button }): Node => ({
    tag: 'div',
    id,
    box: box(x, y, width, 40),
    style: { ...CARD, ...(cuts && { 'overflow-x': 'hidden', 'overflow-y': 'hidden' }) },
    children: [
      {
        tag: button ? 'button' : 'p',
        id: `${id}-in`,
        box: box(x, y + 4, width + out, 32),
        style: { 'font-size': `${16 * k}px`, ...(button && { display: 'inline-block' }) },
        flags: button ? FLAG_CONTROL : 0,
        lines: [{ box: box(x, y + 10, width + out, 19), text: `Boat ${id} of the day` }],
      },
    ],
  }));
  return renderOf({ width: 2000 * k, height: 1200 * k }, nodes);
}

/** What was found: by whom, and how far. */
const found = (render: ReturnType<typeof pageOf>, k = 1) =>
  findingsOfPage('home', [render], RULES)
    .map(({ rule, selector, seen: [seen] }) => `${rule} ${selector} ${Math.round((seen!.by?.px ?? 0) / k)}`)
    .sort();

/** The same with everybody who takes part, whoever of them lies on top. */
const parties = (render: ReturnType<typeof pageOf>) =>
  new Set(
    judge(render, RULES)
      .filter(({ rule }) => rule.meta.family === 'overlap')
      .flatMap(({ sighting: { node, related, affected = [], partners = [] } }) =>
        [node, ...related, ...affected, ...partners].map((at) => render.view.id(at)),
      ),
  );

test('moving a page changes nothing but the places', () => {
  fc.assert(
    fc.property(cards, step(0, 5), step(0, 9), (list, dx, dy) => {
      expect(found(pageOf(list, { dx, dy }))).toEqual(found(pageOf(list)));
    }),
  );
});

test('making a page larger changes nothing but the numbers', () => {
  fc.assert(
    fc.property(cards, fc.constantFrom(1.5, 2, 3), (list, k) => {
      expect(found(pageOf(list, { k }), k)).toEqual(found(pageOf(list)));
    }),
  );
});

const shuffled = (list: readonly Card[], seed: number): Card[] =>
  list
    .map((entry, i) => ({ entry, at: Math.sin(seed + i) }))
    .sort((a, b) => a.at - b.at)
    .map(({ entry }) => entry);

/** The same cards, each on a row of its own. */
const apart = (list: readonly Card[]): Card[] => list.map((entry, i) => ({ ...entry, y: i * 80 }));

test('the order of elements that stand apart changes nothing', () => {
  fc.assert(
    fc.property(cards, fc.integer(), (list, seed) => {
      expect(found(pageOf(shuffled(apart(list), seed)))).toEqual(found(pageOf(apart(list))));
    }),
  );
});

test('the order of elements that lie on one another decides who is on top, not whether they do', () => {
  fc.assert(
    fc.property(cards, fc.integer(), (list, seed) => {
      // What has run out of its box is told as that, whatever it lies on.
      const inside = list.map((entry) => ({ ...entry, out: 0 }));
      expect(parties(pageOf(shuffled(inside, seed))).size > 0).toBe(parties(pageOf(inside)).size > 0);
    }),
  );
});

test('repairing a card takes its finding away and brings none that was not there', () => {
  fc.assert(
    fc.property(cards, fc.nat(), (list, pick) => {
      const faulty = apart(list);
      const repaired = faulty.map((entry, i) => (i === pick % list.length ? { ...entry, out: 0 } : entry));
      const before = found(pageOf(faulty));
      const after = found(pageOf(repaired));
      expect(after.length).toBe(before.length - (faulty[pick % list.length]!.out > 0 ? 1 : 0));
      expect(before).toEqual(expect.arrayContaining(after));
    }),
  );
});
