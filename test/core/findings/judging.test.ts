import fc from 'fast-check';
import { mergeAcrossPages } from '../../../src/core/findings/across-pages.js';
import { defectKey, pathIn } from '../../../src/core/findings/judge.js';
import type { Finding } from '../../../src/core/findings/finding.js';
import { findingsOfPage } from '../../../src/core/findings/group.js';
import { applyWaivers } from '../../../src/core/findings/waivers.js';
import { RULES } from '../../../src/core/rules/index.js';
import { cards, found, PAGE } from '../../support/cards.js';
import { renderOf } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

test('settings: off, another severity, a higher threshold, and elements that are taken otherwise', () => {
  const judged = (settings: object, options = {}) =>
    findingsOfPage('home', [renderOf({ ...PAGE, ...options }, cards([180, 120]))], RULES, {
      settings: { 'box-overflow': { elements: [], ...settings } },
    }).map(({ severity, seen }) => `${severity} ${seen[0]!.by!.px}`);
  expect(judged({})).toEqual(['warning 82', 'warning 22']);
  expect(judged({ severity: 'off' })).toEqual([]);
  expect(judged({ severity: 'error', leastPx: 50 })).toEqual(['error 82']);
  // The first card and what is in it: rows 2 and 3 of html, body, div, p.
  const matches = [{ selector: '.card-0', nodes: [2] }];
  expect(judged({ elements: [{ selector: '.card-0', severity: 'off' }] }, { matches })).toEqual([
    'warning 22',
  ]);
  expect(judged({}, { allowed: [{ node: 2, rules: 'box-overflow' }] })).toEqual(['warning 22']);
  expect(judged({}, { allowed: [{ node: 2, rules: 'covered' }] })).toHaveLength(2);
});

test('waivers accept, expire and go unused', () => {
  const [finding] = found(cards([180]));
  const waiver = { reason: 'The new cards come in spring.', who: 'Marit', until: '2026-12-31' };
  const { waived, uses } = applyWaivers(
    [finding!],
    [
      { ...waiver, finding: finding!.id },
      { ...waiver, rule: 'covered' },
      { ...waiver, rule: 'box-overflow', until: '2026-11-22' },
    ],
    '2026-11-23',
  );
  expect([...waived.keys()]).toEqual([finding!.id]);
  expect(uses.map(({ state }) => state)).toEqual(['used', 'unused', 'expired']);
});

test('a defect of a template is one finding with its pages; one of each page is not', () => {
  const make = (page: string, key: string, source: string | null): Finding => ({
    ...found(cards([180]))[0]!,
    id: `${page}-${key}`,
    page,
    pages: [page],
    key,
    cause:
      source === null
        ? null
        : {
            name: 'no-wrap',
            message: '',
            selector: '',
            proven: true,
            declaration: { property: 'white-space', value: 'nowrap', selector: 'p', source },
          },
  });
  const both = (path: string, source: string | null) =>
    ['a', 'b'].map((page) => make(page, defectKey('box-overflow', path), source));
  const merged = mergeAcrossPages([
    ...both('html>body>header.top>nav', null),
    ...both('nav#menu>ul>li', null),
    ...both('sticking html>body>footer', null),
    ...both('html>body>main>p', 'css/site.css:3'),
    ...both('html>body>main>h2', null),
    ...both('main#content>article>header>h3', null),
    ...both('div#navigator>a', null),
  ]);
  expect(merged.map(({ key, pages }) => `${pathIn(key)} ${pages.join('+')}`)).toEqual([
    'html>body>header.top>nav a+b',
    'nav#menu>ul>li a+b',
    'sticking html>body>footer a+b',
    'html>body>main>p a+b',
    'html>body>main>h2 a',
    'html>body>main>h2 b',
    'main#content>article>header>h3 a',
    'main#content>article>header>h3 b',
    'div#navigator>a a',
    'div#navigator>a b',
  ]);
});

test('what several pages miss is one finding where it is the same', () => {
  const of = (page: string, ...details: string[]): Finding => ({
    ...found(cards([180]))[0]!,
    id: `${page}-missing`,
    rule: 'missing-resource',
    key: defectKey('missing-resource', 'missing html'),
    page,
    pages: [page],
    details,
    cause: null,
  });
  const sheet = 'style sheet /site.css: 404';
  const merged = mergeAcrossPages([of('a', sheet), of('b', sheet), of('c', sheet, 'picture /boat.png: 404')]);
  expect(merged.map(({ pages }) => pages)).toEqual([['a', 'b'], ['c']]);
});

test('a template’s finding weighs as much as the gravest of its pages', () => {
  const of = (page: string, severity: Finding['severity']): Finding => ({
    ...found(cards([180]))[0]!,
    id: `${page}-nav`,
    page,
    pages: [page],
    key: defectKey('box-overflow', 'html>body>header>nav'),
    severity,
  });
  const [merged] = mergeAcrossPages([of('a', 'notice'), of('b', 'error'), of('c', 'warning')]);
  expect(merged).toMatchObject({ page: 'a', severity: 'error', pages: ['a', 'b', 'c'] });
});

describe('properties', () => {
  const widths = fc.array(fc.integer({ min: 10, max: 400 }), { minLength: 1, maxLength: 8 });

  test('the order of the renders changes nothing but the order of what is seen', () => {
    fc.assert(
      fc.property(widths, fc.shuffledSubarray([600, 800, 1000, 1200], { minLength: 4 }), (list, order) => {
        const judge = (sizes: readonly number[]) =>
          findingsOfPage(
            'home',
            sizes.map((width) => renderOf({ ...PAGE, width }, cards(list))),
            RULES,
          )
            .map(({ id, seen }) => [id, seen.map(({ profile, by }) => `${profile} ${by!.px}`).sort()])
            .sort();
        expect(judge(order)).toEqual(judge([600, 800, 1000, 1200]));
      }),
      { numRuns: 50 },
    );
  });

  test('moving everything changes nothing but the places', () => {
    fc.assert(
      fc.property(
        widths,
        fc.integer({ min: 0, max: 300 }),
        fc.integer({ min: 0, max: 2000 }),
        (list, dx, dy) => {
          const judge = (children: readonly Node[]) =>
            found(children, { ...PAGE, height: 4000 })
              .map(({ id, seen }) => [id, seen.map(({ by }) => by!.px)])
              .sort();
          expect(judge(cards(list, dx, dy))).toEqual(judge(cards(list)));
        },
      ),
      { numRuns: 50 },
    );
  });

  test('a repaired page never has more findings than its fault', () => {
    fc.assert(
      fc.property(widths, (list) => {
        const repaired = list.map((width) => Math.min(width, 90));
        expect(found(cards(repaired)).length).toBeLessThanOrEqual(found(cards(list)).length);
        expect(found(cards(repaired))).toEqual([]);
      }),
      { numRuns: 50 },
    );
  });
});
