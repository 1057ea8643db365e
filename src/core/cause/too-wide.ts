import { px } from '../geometry/format.js';
import { pxOf } from '../css/lengths.js';
import { FLAG_FIELD, FLAG_REPLACED, LINE_UNBREAKABLE } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { excessOf } from './box-sum.js';
import type { Suspect } from './suspect.js';

/** A margin or padding is wide from this share of the room on that its element stands in, and from so many CSS px. */
const WIDE_MARGIN_SHARE = 0.25;
const WIDE_MARGIN_PX = 40;

/** What may make an element wider than its room. */
export function tooWide(view: SnapshotView, i: NodeIndex): Suspect[] {
  const found: Suspect[] = [];
  const style = (property: Parameters<SnapshotView['style']>[1]) => view.style(i, property);
  const width = style('width');
  const excess = excessOf(view, i);
  if (excess) {
    found.push({
      name: 'percent-plus-padding',
      node: i,
      property: excess.property,
      undo: excess.undo,
      says: excess.sum,
    });
  }
  const parent = view.containingElement(i);
  const parentDisplay = parent >= 0 ? view.style(parent, 'display') : '';
  const isPicture = view.has(i, FLAG_REPLACED) && !view.has(i, FLAG_FIELD);
  if (isPicture) {
    const box = view.box(i);
    found.push({
      name: 'picture-size',
      node: i,
      property: pxOf(width) === null ? 'max-width' : 'width',
      undo: { 'max-width': '100%', height: 'auto', 'min-width': '0' },
      says: `it is shown ${px(box.width)} wide, whatever room there is`,
    });
  } else if (pxOf(width) !== null) {
    found.push({
      name: 'fixed-width',
      node: i,
      property: 'width',
      undo: { width: 'auto' },
      says: `it is ${px(pxOf(width)!)} wide, whatever room there is`,
    });
  }
  const room = parent >= 0 ? view.contentBox(parent).width : 0;
  const [, marginRight, , marginLeft] = view.margins(i);
  const [, paddingRight, , paddingLeft] = view.paddings(i);
  for (const [property, taken] of [
    ['margin-left', marginLeft],
    ['margin-right', marginRight],
    ['padding-left', paddingLeft],
    ['padding-right', paddingRight],
  ] as const) {
    if (taken < WIDE_MARGIN_SHARE * room || taken < WIDE_MARGIN_PX) continue;
    found.push({
      name: 'wide-margin',
      node: i,
      property,
      undo: { [property]: '0' },
      says: `\`${property}\` takes ${px(taken)} of the ${px(room)} that there are`,
    });
  }
  if ((pxOf(style('min-width')) ?? 0) > 0) {
    found.push({
      name: 'min-width',
      node: i,
      property: 'min-width',
      undo: { 'min-width': '0' },
      says: `it is never narrower than ${px(pxOf(style('min-width'))!)}`,
    });
  }
  if (/flex/.test(parentDisplay) && style('flex-shrink') === '0') {
    const basis = style('flex-basis');
    const from = pxOf(basis) === null ? '' : ` from ${px(pxOf(basis)!)}`;
    found.push({
      name: 'flex-no-shrink',
      node: i,
      property: 'flex-shrink',
      undo: { 'flex-shrink': '1', 'min-width': '0' },
      says: `it may not shrink${from} in its row`,
    });
  }
  if (/nowrap|pre$/.test(style('white-space'))) {
    found.push({
      name: 'no-wrap',
      node: i,
      property: 'white-space',
      undo: { 'white-space': 'normal', 'overflow-wrap': 'anywhere' },
      says: 'its text may not wrap',
    });
  }
  const word = unbreakable(view, i);
  if (word !== null || (view.linesOf(i).length > 0 && style('overflow-wrap') === 'normal')) {
    found.push({
      name: 'unbreakable-word',
      node: i,
      property: 'overflow-wrap',
      undo: { 'overflow-wrap': 'anywhere', 'min-width': '0' },
      says: word === null ? 'a word in it is longer than its room' : `“${word}” has no place to break`,
    });
  }
  for (const [grid, display] of [
    [parent, parentDisplay],
    [i, style('display')],
  ] as const) {
    if (!/grid/.test(display)) continue;
    found.push({
      name: 'grid-tracks',
      node: grid,
      property: 'grid-template-columns',
      undo: { 'grid-template-columns': 'none' },
      says: "the grid's columns need more room than it has",
    });
  }
  if (/flex/.test(style('display')) && style('flex-wrap') === 'nowrap') {
    found.push({
      name: 'flex-minimum',
      node: i,
      property: 'flex-wrap',
      undo: { 'flex-wrap': 'wrap' },
      says: 'its items stand in one row that may not wrap',
    });
  }
  if (/flex/.test(parentDisplay) && view.style(parent, 'flex-wrap') === 'nowrap') {
    found.push({
      name: 'flex-minimum',
      node: parent,
      property: 'flex-wrap',
      undo: { 'flex-wrap': 'wrap' },
      says: 'it stands in one row that may not wrap',
    });
  }
  if (/flex|grid/.test(parentDisplay) && /auto/.test(style('min-width'))) {
    found.push({
      name: 'flex-minimum',
      node: i,
      property: 'min-width',
      undo: { 'min-width': '0' },
      says: 'as an item it is never narrower than its content (min-width: auto)',
    });
  }
  if (/table$/.test(style('display'))) {
    found.push({
      name: 'table-content',
      node: i,
      property: 'display',
      undo: {
        'table-layout': 'fixed',
        width: '100%',
        'white-space': 'normal',
        'overflow-wrap': 'anywhere',
        display: 'block',
        'overflow-x': 'auto',
      },
      says: `the table's columns need ${px(view.box(i).width)}`,
    });
  }
  return found;
}

/** The word of an element's lines that can't be broken and is longer than its room. */
function unbreakable(view: SnapshotView, i: NodeIndex): string | null {
  if (/nowrap|pre$/.test(view.style(i, 'white-space'))) return null;
  const lines = view.linesOf(i).filter((line) => (view.snapshot.lines.flags[line]! & LINE_UNBREAKABLE) !== 0);
  const longest = lines.sort((a, b) => view.lineBox(b).width - view.lineBox(a).width)[0];
  return longest === undefined ? null : view.lineText(longest);
}
