import { query } from '../../../src/core/identity/query.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const box = [0, 0, 10, 10] as const;
const el = (tag: string, more: Partial<Node> = {}): Node => ({ tag, box, ...more });
const view = viewOf({ width: 100 }, [
  el('main', {
    id: 'all',
    children: [
      el('p', { class: 'lead first' }),
      el('div', { children: [el('p'), el('p', { class: 'lead' })] }),
    ],
  }),
]);
const tags = (selector: string) =>
  query(view, selector).map((node) => `${view.tag(node)}.${view.classes(node).join('.')}`);

test('tags, ids, classes, places and how they stand to each other', () => {
  expect(tags('p.lead')).toEqual(['p.lead.first', 'p.lead']);
  expect(tags('#all > p')).toEqual(['p.lead.first']);
  expect(tags('div p:nth-of-type(2)')).toEqual(['p.lead']);
  expect(tags('main p:not(.first), body')).toEqual(['body.', 'p.', 'p.lead']);
});

test('what a layout does not know is not found, and what is no selector is refused', () => {
  expect(tags('p[title]')).toEqual([]);
  expect(() => query(view, 'p{')).toThrow();
});
