import { rounded } from '../geometry/rect.js';
import { repeatedSteps } from '../identity/repeats.js';
import { signature } from '../identity/signature.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { RenderView } from '../sightings/sighting.js';
import type { Finding } from './finding.js';
import type { Entry } from './sighting-group.js';

/**
 * The element at fault on the render that does not show the defect and whose width is nearest to the one that shows it worst:
 * how it looks when it is right. Null where every render shows it, or none without it has the element.
 * @param entries of the defect, on all renders that show it
 */
export function rightBeside(
  worst: Entry,
  entries: readonly Entry[],
  renders: readonly RenderView[],
): Finding['right'] {
  const showing = new Set(entries.map(({ page, profile }) => `${page}\n${profile}`));
  const { view } = worst.writer;
  const near = renders
    .filter(({ page, device }) => page === worst.page && !showing.has(`${page}\n${device.name}`))
    .sort((a, b) => distance(a, worst) - distance(b, worst));
  const { node: wanted } = worst.sighting;
  const like = { last: repeatedSteps(view)[wanted]!, whole: signature(view, wanted) };
  const place = peersOf(view, like).indexOf(wanted);
  for (const { page, device, view: other } of near) {
    const peers = peersOf(other, like);
    const node = peers[place] ?? peers[0];
    if (node === undefined) continue;
    const box = other.box(node);
    if (box.width >= 1 && box.height >= 1) return { page, profile: device.name, rect: rounded(box) };
  }
  return null;
}

const distance = ({ device }: RenderView, { width }: Entry) => Math.abs(device.width - width);

/** The elements with a signature that have a box, in the order of the page. */
function peersOf(view: SnapshotView, { last, whole }: { last: string; whole: string }): NodeIndex[] {
  const steps = repeatedSteps(view);
  const found: NodeIndex[] = [];
  for (let i = 0; i < view.count; i++)
    if (steps[i] === last && view.isRendered(i) && signature(view, i) === whole) found.push(i);
  return found;
}
