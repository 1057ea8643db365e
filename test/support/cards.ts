import { findingsOfPage } from '../../src/core/findings/group.js';
import { RULES } from '../../src/core/rules/index.js';
import { CARD, line, renderOf } from './render.js';
import type { Node, PageOptions } from './snapshot.js';

/** A card of a hundred px with a text of some width in it, `count` of them side by side or below one another. */
export const cards = (widths: readonly number[], dx = 0, dy = 0): Node[] =>
  widths.map((width, i) => ({
    tag: 'div',
    class: `card-${i}`,
    box: [20 + dx, 20 + 60 * i + dy, 100, 40],
    style: CARD,
    children: [
      { tag: 'p', box: [22 + dx, 22 + 60 * i + dy, 90, 20], lines: [line(22 + dx, 22 + 60 * i + dy, width)] },
    ],
  }));

/** A page that has room for them, CSS px. */
export const PAGE = { width: 1200, height: 900 };
/** What all rules find on such a page. */
export const found = (children: readonly Node[], page: PageOptions = PAGE) =>
  findingsOfPage('home', [renderOf(page, children)], RULES);
