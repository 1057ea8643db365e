import { perStyle } from './memo.js';
import { FLAG_REPLACED } from './snapshot.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** Laid out in the lines of the block around it, as a box a line. */
export const isInline = perStyle((view, i) => view.style(i, 'display') === 'inline');

/** Inline, and no more than the words in it: a picture in line is a box. */
export function isInlineText(view: SnapshotView, i: NodeIndex): boolean {
  return isInline(view, i) && !view.has(i, FLAG_REPLACED);
}

/** Has no box of its own: its children stand in the box around it. */
export const isContents = perStyle((view, i) => view.style(i, 'display') === 'contents');

/** Lays its children out as flex or grid items. */
export const holdsItems = perStyle((view, i) => /flex|grid/.test(view.style(i, 'display')));

/** Lays its children out as grid items, in cells that may be one. */
export const isGrid = perStyle((view, i) => /grid/.test(view.style(i, 'display')));

/** Lays its children out one below the other (CSS Display 3, section 2.2). */
export const isFlow = perStyle((view, i) => /^(block|flow-root|list-item)$/.test(view.style(i, 'display')));

/** An inline-level box that is laid out as a block inside. */
export const isInlineBlock = perStyle((view, i) => /^inline-/.test(view.style(i, 'display')));

/** In a flow of blocks it has nothing beside it: no float, and nothing that stands in a line. */
export const isOwnRow = perStyle(
  (view, i) => view.style(i, 'float') === 'none' && !/^inline/.test(view.style(i, 'display')),
);
