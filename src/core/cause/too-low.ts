import { px } from '../geometry/format.js';
import { pxOf } from '../css/lengths.js';
import { FLAG_REPLACED } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { Suspect } from './suspect.js';

/** What may make an element too low for what stands in it, or cut it off. */
export function tooLow(view: SnapshotView, i: NodeIndex): Suspect[] {
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
