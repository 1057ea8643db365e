import { FLAG_CONTROL, FLAG_HEADING, FLAG_PICTURE } from '../../layout/snapshot.js';
import { isFixed, stickyRoot } from '../../layout/viewport-layer.js';
import type { NodeIndex } from '../../layout/view.js';
import { shownPairs, type Pairing } from '../pairing.js';
import type { Single } from './difference.js';

/** What readers look for first. */
const LOOKED_FOR = FLAG_CONTROL | FLAG_HEADING | FLAG_PICTURE;

/** Headings, controls and pictures that the first screen shows whole in the one layout and not at all in the other: the topmost of them. */
export function firstScreenChanges(pairing: Pairing): Single[] {
  const { a, b } = pairing;
  const [screenA, screenB] = [a, b].map(({ view }) => view.snapshot.viewport.shownHeight) as [number, number];
  const stays = (side: typeof a, i: NodeIndex) => isFixed(side.view, i) || stickyRoot(side.view, i) >= 0;
  return shownPairs(pairing).flatMap(([i, j]) => {
    if (!a.view.has(i, LOOKED_FOR)) return [];
    const parent = a.view.parent(i);
    if (parent >= 0 && a.view.has(parent, LOOKED_FOR)) return [];
    const [was, is] = [a.view.box(i), b.view.box(j)];
    if (stays(a, i) || stays(b, j)) return [];
    const [from, to] = [Math.round(was.y), Math.round(is.y)];
    const at = { kind: 'first-screen' as const, a: i, b: j, from, to };
    if (was.y + was.height <= screenA && is.y >= screenB)
      return [{ ...at, one: 'stands below the first screen', many: 'stand below the first screen' }];
    if (is.y + is.height <= screenB && was.y >= screenA)
      return [{ ...at, one: 'stands in the first screen now', many: 'stand in the first screen now' }];
    return [];
  });
}
