import { px } from '../geometry/format.js';
import { displacementOf } from '../layout/displace.js';
import { isScaledUp } from '../layout/transforms.js';
import { pxOf } from '../css/lengths.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { Suspect } from './suspect.js';

/** What draws an element elsewhere, turned, larger or smaller (CSS Transforms 2; Motion Path 1). */
const TRANSFORMS = ['transform', 'translate', 'rotate', 'scale', 'offset-path'] as const;

/** What may have moved an element to where it lies. */
export function moved(view: SnapshotView, i: NodeIndex): Suspect[] {
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
        says: `\`${property}\` pulls it by ${px(-margin)}`,
      });
    }
  }
  const displacement = displacementOf(view, i);
  if (displacement === 'transform') {
    const set = TRANSFORMS.filter((property) => !/^(none)?$/.test(view.style(i, property)));
    found.push({
      name: 'transform',
      node: i,
      property: set[0]!,
      undo: Object.fromEntries(set.map((property) => [property, 'none'])),
      says: isScaledUp(view, i) ? 'a transform draws it larger' : 'a transform moves it',
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
      says: `\`${offset}: ${view.style(i, offset)}\` moves it out of its place`,
    });
  }
  if (position === 'absolute') {
    if (offset !== undefined) {
      found.push({
        name: 'offset',
        node: i,
        property: offset,
        undo: { [offset]: offset === 'left' || offset === 'top' ? '0' : 'auto' },
        says: `\`${offset}: ${view.style(i, offset)}\` puts it there`,
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
  if (position === 'fixed' || position === 'sticky') {
    found.push({
      name: 'no-room-kept',
      node: i,
      property: 'position',
      undo: { position: 'static' },
      says:
        position === 'fixed'
          ? 'it is fixed to the screen, and the page keeps no room for it'
          : 'it stays on the screen, and no room is kept for it',
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
