import type { Cause } from '../../../src/core/cause/cause.js';
import { mergeByDeclaration } from '../../../src/core/findings/by-declaration.js';
import type { Finding } from '../../../src/core/findings/finding.js';

const cause = (value: string, more: Partial<Cause> = {}): Cause => ({
  name: 'fixed-width',
  message: 'It is wide.',
  selector: '#a',
  declaration: { property: 'width', value, selector: '.f select', source: 'fares.css:4' },
  proven: true,
  ...more,
});
const finding = (id: string, profile: string, px: number, more: Partial<Finding> = {}): Finding => ({
  id,
  rule: 'box-overflow',
  family: 'overflow',
  severity: 'warning',
  page: 'home',
  pages: ['home'],
  key: id,
  right: null,
  selector: `#${id}`,
  related: [],
  message: `${id} runs out.`,
  details: [],
  words: '',
  cause: cause('320px'),
  seen: [{ page: 'home', profile, rect: { x: 0, y: 10 * px, width: 10, height: 10 }, by: { axis: 'x', px } }],
  ...more,
});

test('what one declaration does to several elements is one finding', () => {
  const [merged, ...others] = mergeByDeclaration([
    finding('a', 'narrow', 4),
    finding('b', 'narrow', 9, { severity: 'error' }),
    finding('c', 'wide', 2),
  ]);
  expect(others).toEqual([]);
  expect(merged).toMatchObject({ id: 'a', selector: '#a', severity: 'error', related: ['#b', '#c'] });
  expect(merged!.seen.map(({ profile, by, rect }) => [profile, by?.px, rect.y, rect.height])).toEqual([
    ['narrow', 9, 40, 60],
    ['wide', 2, 20, 10],
  ]);
  expect(merged!.message).toBe('a runs out.');
  expect(merged!.seen.map(({ message }) => message)).toEqual(['b runs out.', 'c runs out.']);
});

test.each([
  ['another value', { cause: cause('400px') }],
  ['another rule', { rule: 'page-overflow' }],
  ['no cause', { cause: null }],
  ['a media query that holds elsewhere', { cause: cause('320px', { name: 'media-query-absent' }) }],
])('%s is another defect', (_, more) => {
  expect(mergeByDeclaration([finding('a', 'narrow', 4, more), finding('b', 'narrow', 9)])).toHaveLength(2);
  expect(mergeByDeclaration([finding('a', 'narrow', 4), finding('b', 'narrow', 9, more)])).toHaveLength(2);
});

test('style attributes are each their own', () => {
  const own = cause('320px', {
    declaration: { property: 'width', value: '320px', selector: null, source: null },
  });
  expect(
    mergeByDeclaration([
      finding('a', 'narrow', 4, { cause: own }),
      finding('b', 'narrow', 9, { cause: own }),
    ]),
  ).toHaveLength(2);
});
