import { area, intersect } from '../geometry/rect.js';
import type { Ink, Scene } from '../layout/scene.js';
import { hasControl } from '../layout/controls-within.js';
import { isOutOfFlow } from '../layout/displace.js';
import type { NodeIndex } from '../layout/view.js';

/** Of an element's area, so much has to be another one's for the two to be shown in turn. */
const SAME_PLACE = 0.9;

/**
 * What stands in a box and was put behind its ground: words of a negative `z-index` in a box that makes no stacking context
 * (CSS 2.1, appendix E). −1 for anything else, and for what waits there: slides behind the one that is shown, and menus.
 */
export function sunkIn(scene: Scene, ink: Ink, box: NodeIndex): NodeIndex {
  const { view } = scene;
  if (ink.kind !== 'text' || box === view.body) return -1;
  for (let at = ink.node; at !== box; at = view.parent(at))
    if (Number.parseInt(view.style(at, 'z-index'), 10) < 0) return waits(scene, at) ? -1 : at;
  return -1;
}

function waits(scene: Scene, i: NodeIndex): boolean {
  const { view } = scene;
  const box = view.box(i);
  const isSlide = view.childrenOf(view.parent(i)).some((other) => {
    const common = other === i || !view.isRendered(other) ? null : intersect(view.box(other), box);
    return common !== null && area(common) >= SAME_PLACE * area(box);
  });
  if (isSlide) return true;
  return isOutOfFlow(view, i) && hasControl(scene, i);
}
