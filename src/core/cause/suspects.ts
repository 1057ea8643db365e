import type { Sighting } from '../rules/rule.js';
import { px } from '../geometry/format.js';
import { pxOf } from '../layout/lengths.js';
import { displacementOf } from '../layout/displace.js';
import { FLAG_FIELD, FLAG_REPLACED, LINE_UNBREAKABLE } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { CauseName } from './cause.js';
import { excessOf } from './box-sum.js';

/** A declaration that may be what makes an element fail, and what undoes it. */
export interface Suspect {
  readonly name: CauseName;
  readonly node: NodeIndex;
  /** The property whose declaration is at fault. */
  readonly property: string;
  /** Properties and values that take it out of force. */
  readonly undo: Readonly<Record<string, string>>;
  /** What it does, with its numbers, as the start of a sentence. */
  readonly says: string;
}

/** Likeliest first, few, since each is tried in the page. */
const MOST = 10;

/** What may cause a sighting, from the styles of the elements that take part in it. */
export function suspectsOf(view: SnapshotView, sighting: Sighting): Suspect[] {
  const { node, by } = sighting;
  const found: Suspect[] = [];
  const add = (suspect: Suspect | null) => {
    if (suspect && !found.some((other) => other.node === suspect.node && other.name === suspect.name))
      found.push(suspect);
  };
  const nodes = [node, ...(sighting.affected ?? []).slice(0, 2)];
  for (const at of nodes) for (const suspect of moved(view, at)) add(suspect);
  if (by?.axis !== 'y') for (const at of nodes) for (const suspect of tooWide(view, at)) add(suspect);
  for (const at of nodes) for (const suspect of tooLow(view, at)) add(suspect);
  if (by?.axis === 'y') for (const at of nodes) for (const suspect of tooWide(view, at)) add(suspect);
  // What holds the element may be what displaces or squeezes it.
  for (let at = view.parent(node), up = 0; at > view.body && up < 4; at = view.parent(at), up++) {
    for (const suspect of [...moved(view, at), ...tooLow(view, at)]) add(suspect);
  }
  const parent = view.parent(node);
  if (parent >= 0 && /grid/.test(view.style(parent, 'display'))) add(sharedCell(node));
  for (const sibling of parent >= 0 ? view.childrenOf(parent) : []) {
    if (sibling !== node && view.isRendered(sibling))
      for (const suspect of moved(view, sibling)) add(suspect);
  }
  return found.slice(0, MOST);
}

function sharedCell(node: NodeIndex): Suspect {
  return {
    name: 'positioned',
    node,
    property: 'grid-row-start',
    undo: { 'grid-area': 'auto' },
    says: 'it is put into a cell of the grid that something else stands in',
  };
}

function tooWide(view: SnapshotView, i: NodeIndex): Suspect[] {
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
  if (/grid/.test(parentDisplay)) {
    found.push({
      name: 'grid-tracks',
      node: parent,
      property: 'grid-template-columns',
      undo: { 'grid-template-columns': 'none' },
      says: `the grid's columns need more room than it has`,
    });
  }
  if (/grid/.test(style('display'))) {
    found.push({
      name: 'grid-tracks',
      node: i,
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

function tooLow(view: SnapshotView, i: NodeIndex): Suspect[] {
  const found: Suspect[] = [];
  const style = (property: Parameters<SnapshotView['style']>[1]) => view.style(i, property);
  const height = style('height');
  if (height !== '' && height !== 'auto' && !/content/.test(height) && !view.has(i, FLAG_REPLACED)) {
    found.push({
      name: 'fixed-height',
      node: i,
      property: 'height',
      undo: { height: 'auto' },
      says: `it is ${px(view.box(i).height)} high, whatever stands in it`,
    });
  }
  if (pxOf(style('max-height')) !== null) {
    found.push({
      name: 'max-height',
      node: i,
      property: 'max-height',
      undo: { 'max-height': 'none' },
      says: `it is at most ${px(pxOf(style('max-height'))!)} high`,
    });
  }
  const size = Number.parseFloat(style('font-size')) || 16;
  const lineHeight = pxOf(style('line-height'));
  if (lineHeight !== null && (lineHeight < size || lineHeight > 2 * size)) {
    found.push({
      name: 'line-height',
      node: i,
      property: 'line-height',
      undo: { 'line-height': 'normal' },
      says: `its lines are ${px(lineHeight)} high for letters of ${px(size)}`,
    });
  }
  if (view.style(i, 'position') === 'fixed' && view.box(i).height > view.snapshot.viewport.shownHeight) {
    found.push({
      name: 'taller-than-screen',
      node: i,
      property: 'position',
      undo: { 'max-height': '100vh', 'overflow-y': 'auto' },
      says: `it is fixed to the screen and ${px(view.box(i).height)} high, on a screen of ${px(view.snapshot.viewport.shownHeight)}`,
    });
  }
  if (view.childrenOf(i).some((child) => view.style(child, 'float') !== 'none')) {
    found.push({
      name: 'float-not-contained',
      node: i,
      property: 'display',
      undo: { display: 'flow-root' },
      says: 'what floats in it does not make it higher',
    });
  }
  if (view.childrenOf(i).length > 1 && /flex/.test(style('display'))) {
    found.push({
      name: 'centred-overflow',
      node: i,
      property: 'justify-content',
      undo: { 'justify-content': 'flex-start' },
      says: 'its items are set from the middle and run out on both sides',
    });
  }
  if (view.style(i, 'clip-path') !== 'none' && view.style(i, 'clip-path') !== '') {
    found.push({
      name: 'clip-shape',
      node: i,
      property: 'clip-path',
      undo: { 'clip-path': 'none' },
      says: 'its shape cuts into what stands in it',
    });
  }
  if (Number.parseFloat(style('border-top-left-radius')) > 0) {
    found.push({
      name: 'clip-shape',
      node: i,
      property: 'border-radius',
      undo: { 'border-radius': '0' },
      says: 'its rounded corners cut into what stands in it',
    });
  }
  if (/hidden|clip/.test(style('overflow-y') + style('overflow-x'))) {
    found.push({
      name: 'clipped-overflow',
      node: i,
      property: 'overflow',
      undo: { overflow: 'visible' },
      says: 'it cuts off what does not fit',
    });
  }
  return found;
}

function moved(view: SnapshotView, i: NodeIndex): Suspect[] {
  const found: Suspect[] = [];
  const [top, right, bottom, left] = view.margins(i);
  const sides: [string, number][] = [
    ['margin-top', top],
    ['margin-right', right],
    ['margin-bottom', bottom],
    ['margin-left', left],
  ];
  for (const [property, margin] of sides) {
    if (margin <= -2) {
      found.push({
        name: 'negative-margin',
        node: i,
        property,
        undo: { [property]: '0' },
        says: `${property} pulls it by ${px(-margin)}`,
      });
    }
  }
  const displacement = displacementOf(view, i);
  if (displacement === 'transform') {
    found.push({
      name: 'transform',
      node: i,
      property: view.style(i, 'transform') === 'none' ? 'translate' : 'transform',
      undo: { transform: 'none', translate: 'none' },
      says: 'a transform moves it',
    });
  }
  const position = view.style(i, 'position');
  const offset = (['left', 'right', 'top', 'bottom'] as const).find(
    (side) => (pxOf(view.style(i, side)) ?? 0) !== 0,
  );
  if (position === 'relative' && offset !== undefined) {
    found.push({
      name: 'offset',
      node: i,
      property: offset,
      undo: { left: 'auto', right: 'auto', top: 'auto', bottom: 'auto' },
      says: `${offset}: ${view.style(i, offset)} moves it out of its place`,
    });
  }
  if (position === 'absolute') {
    if (offset !== undefined) {
      found.push({
        name: 'offset',
        node: i,
        property: offset,
        undo: { [offset]: offset === 'left' || offset === 'top' ? '0' : 'auto' },
        says: `${offset}: ${view.style(i, offset)} puts it there`,
      });
    }
    found.push({
      name: 'positioned',
      node: i,
      property: 'position',
      undo: { position: 'static' },
      says: 'it is positioned absolutely, so nothing makes room for it',
    });
  }
  if (position === 'fixed') {
    found.push({
      name: 'no-room-kept',
      node: i,
      property: 'position',
      undo: { position: 'static' },
      says: 'it is fixed to the screen, and the page keeps no room for it',
    });
  }
  if (position === 'sticky') {
    found.push({
      name: 'no-room-kept',
      node: i,
      property: 'position',
      undo: { position: 'static' },
      says: 'it stays on the screen, and no room is kept for it',
    });
  }
  const indent = view.style(i, 'text-indent');
  if ((pxOf(indent) ?? 0) < 0) {
    found.push({
      name: 'text-indent',
      node: i,
      property: 'text-indent',
      undo: { 'text-indent': '0' },
      says: `text-indent: ${indent} moves its first line`,
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
