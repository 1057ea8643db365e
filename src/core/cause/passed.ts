import { alphaOf } from '../css/colours.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { Sighting } from '../sightings/sighting.js';
import type { Suspect } from './suspect.js';

/** Why what stays on the screen is hidden by what passes, or lets it through. */
export function passed(view: SnapshotView, { node, passing, partners = [] }: Sighting): Suspect[] {
  if (passing === 'through') {
    const undo = { 'background-color': groundOf(view) };
    return [
      {
        name: 'no-ground',
        node,
        property: 'background-color',
        undo,
        puts: true,
        says: 'it has no ground of its own',
      },
    ];
  }
  const [cover = node] = partners;
  const undo = { 'z-index': String(1 + highest(view, cover)) };
  const says = `its \`z-index\` (${view.style(node, 'z-index')}) leaves it under what passes`;
  return [{ name: 'stacking-order', node, property: 'z-index', undo, puts: true, says }];
}

/** The colour that the page is drawn on. */
function groundOf(view: SnapshotView): string {
  const colours = [view.body, view.root].map((i) => view.style(i, 'background-color'));
  return colours.find((colour) => alphaOf(colour) >= 1) ?? 'rgb(255, 255, 255)';
}

function highest(view: SnapshotView, i: NodeIndex): number {
  let most = 0;
  for (let at = i; at > 0; at = view.parent(at))
    most = Math.max(most, Number.parseInt(view.style(at, 'z-index')) || 0);
  return most;
}
