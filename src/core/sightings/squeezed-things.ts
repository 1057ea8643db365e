import { isOutOfFlow } from '../layout/displace.js';
import { sceneOf } from '../layout/scene.js';
import { FLAG_CONTROL, FLAG_FIELD, FLAG_PICTURE } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { isSqueezedOut, takesRoom } from '../intent/squeezed.js';
import { px } from '../geometry/format.js';
import { byCulprit } from './by-culprit.js';
import type { RenderView, Sighting } from './sighting.js';
import { capital, controlName, onScreen } from './words.js';

/** Of the width that is asked for, what is left at the most; and no more than that, CSS px. */
const MOST_SHARE = 0.25;
const MOST_PX = 16;
/** Of what is asked to be as narrow, nothing is missed, CSS px. */
const LEAST_ASKED = 8;

/**
 * Pictures, fields and buttons in a flex row that asked for a width and are left next to nothing of it, since they may shrink and what stands beside
 * them may not (CSS Flexbox 1, section 9.7).
 */
export function squeezedThings(render: RenderView): Sighting[] {
  const { view } = render;
  const scene = sceneOf(view);
  const found: Squeezed[] = [];
  for (let i = 1; i < view.count; i++) {
    if (!view.has(i, FLAG_PICTURE | FLAG_CONTROL) || !view.isRendered(i) || !(scene.opacity[i]! > 0))
      continue;
    const squeezed = squeezedBy(view, i);
    if (squeezed) found.push(squeezed);
  }
  return byCulprit(view, found).map(({ entries, fault }) => {
    const [{ culprit, asked, left }] = entries as [Squeezed];
    const what = view.has(culprit, FLAG_CONTROL) ? controlName(view, culprit) : 'a picture';
    const much = asked > 0 ? `${px(left)} of the ${px(asked)} that it asks for` : 'no room';
    return {
      ...fault,
      key: `squeezed ${fault.key}`,
      rect: view.box(culprit),
      by: { axis: 'x', px: Math.max(0, asked - left) },
      severity: 'warning',
      message: `${capital(what)} is left ${much} by what stands beside it, ${onScreen(render)}.`,
    };
  });
}

interface Squeezed {
  readonly culprit: NodeIndex;
  /** CSS px; 0 where it asks for what is left. */
  readonly asked: number;
  /** CSS px. */
  readonly left: number;
}

function squeezedBy(view: SnapshotView, i: NodeIndex): Squeezed | null {
  const { width } = view.box(i);
  const asked = askedWidth(view, i);
  const isShort = asked >= LEAST_ASKED && width <= Math.min(MOST_PX, MOST_SHARE * asked);
  if (isShort)
    return isSeenBeside(view, i) && !isOutOfFlow(view, i) ? { culprit: i, asked, left: width } : null;
  const isGone = view.has(i, FLAG_FIELD) && width <= MOST_PX && isSqueezedOut(view, i);
  return isGone ? { culprit: i, asked: 0, left: 0 } : null;
}

/** The width that an item of a flex row asks for in px; 0 where it asks for none, or may not shrink. */
function askedWidth(view: SnapshotView, i: NodeIndex): number {
  const row = view.parent(i);
  if (row < 0 || !/flex$/.test(view.style(row, 'display'))) return 0;
  if (!/^row/.test(view.style(row, 'flex-direction')) || view.style(i, 'flex-shrink') === '0') return 0;
  const basis = view.style(i, 'flex-basis');
  const wanted = /^[\d.]+px$/.test(basis) ? basis : view.style(i, 'width');
  return /^[\d.]+px$/.test(wanted) && view.style(i, 'max-width') !== '0px' ? Number.parseFloat(wanted) : 0;
}

/** Whether a neighbour has the room: a row that is closed as a whole leaves none to anything. */
function isSeenBeside(view: SnapshotView, i: NodeIndex): boolean {
  return view.childrenOf(view.parent(i)).some((other) => other !== i && takesRoom(view, other, true));
}
