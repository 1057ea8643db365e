import type { Sighting } from '../sightings/sighting.js';
import { isGrid } from '../layout/displays.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { CauseName } from './cause.js';
import { isSqueezed } from '../sightings/drivers.js';
import { moved } from './moved.js';
import { passed } from './passed.js';
import type { Suspect } from './suspect.js';
import { tooLow } from './too-low.js';
import { tooWide } from './too-wide.js';

/** Likeliest first, few, since each is tried in the page. */
const MOST = 10;

/** What an element may take its room from those beside it with. */
const TAKES_ROOM: ReadonlySet<CauseName> = new Set([
  'fixed-width',
  'min-width',
  'flex-no-shrink',
  'picture-size',
]);

/** What may cause a sighting, from the styles of the elements that take part in it. */
export function suspectsOf(view: SnapshotView, sighting: Sighting): Suspect[] {
  const { node, by } = sighting;
  if (sighting.passing) return passed(view, sighting);
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
  const siblings = parent >= 0 ? view.childrenOf(parent) : [];
  if (isSqueezed(view, node)) {
    for (const sibling of siblings) {
      if (sibling === node || !view.isRendered(sibling)) continue;
      for (const suspect of tooWide(view, sibling)) if (TAKES_ROOM.has(suspect.name)) add(suspect);
    }
  }
  if (parent >= 0 && isGrid(view, parent)) add(sharedCell(node));
  for (const sibling of siblings) {
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
