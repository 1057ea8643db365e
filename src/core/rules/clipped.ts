import { drivers } from '../cause/drivers.js';
import { signature } from '../findings/signature.js';
import { union, type Rect } from '../geometry/rect.js';
import { EndEscapes } from '../layout/escape.js';
import { displacementOf } from '../layout/displace.js';
import { outAlong } from '../layout/holders.js';
import { lossesOf, type Loss } from '../layout/losses.js';
import { sceneOf, type Scene } from '../layout/scene.js';
import { leavesEnough, shorteningOf, type Shortening } from '../intent/shortened.js';
import { isCroppedPicture } from '../intent/pictures.js';
import { FLAG_CONTROL } from '../layout/snapshot.js';
import type { NodeIndex } from '../layout/view.js';
import { excerpt, px } from './words.js';
import type { RenderView, Sighting } from './rule.js';

interface Clipping {
  readonly loss: Loss;
  readonly culprit: NodeIndex;
  readonly shortened: Shortening | null;
}

/** A control that clips its own label is cut off itself, as a person sees it. */
export type ClippedKind = 'text' | 'control';

/** What is cut off on a page, by the element at fault: losses of controls and pictures, or of text alone. */
export function clippedSightings(render: RenderView, kind: ClippedKind): Sighting[] {
  const scene = sceneOf(render.view);
  const groups = new Map<string, Clipping[]>();
  for (const loss of lossesOf(scene)) {
    if (loss.ink.kind === 'picture' && isCroppedPicture(scene, loss)) continue;
    const shortened =
      loss.ink.kind === 'text' && leavesEnough(scene, loss) ? shorteningOf(scene, loss) : null;
    const culprit = culpritOf(scene, loss);
    const key = signature(scene.view, culprit);
    const group = groups.get(key);
    if (group) group.push({ loss, culprit, shortened });
    else groups.set(key, [{ loss, culprit, shortened }]);
  }
  return [...groups]
    .filter(([, group]) => kindOf(scene, group) === kind)
    .map(([key, group]) => sighting(scene, render, key, group));
}

function kindOf(scene: Scene, group: readonly Clipping[]): ClippedKind {
  const isControl = group.some(
    ({ loss, shortened }) => loss.ink.kind !== 'text' || (shortened === null && controlWithin(scene, loss)),
  );
  return isControl ? 'control' : 'text';
}

/** A label cut off by its own control, or by something in it. */
function controlWithin(scene: Scene, { cutter, ink }: Loss): boolean {
  const { view } = scene;
  for (let at = ink.node; at >= 0; at = view.parent(at)) {
    if (view.has(at, FLAG_CONTROL)) return scene.contains(at, cutter);
  }
  return false;
}

/**
 * Across the reading direction the element at fault is what cuts: it is too low. Along it, it is what is too wide in it,
 * where something is.
 */
function culpritOf(scene: Scene, { ink, cutter, axis }: Loss): NodeIndex {
  if (axis === 'y') return cutter;
  const { view } = scene;
  const around = view.paddingBox(cutter);
  let out = -1;
  for (let at = ink.node; at > cutter; at = view.containingElement(at)) {
    const isBox = view.style(at, 'display') !== 'inline' || displacementOf(view, at) !== null;
    if (isBox && outAlong(view.box(at), around, 'x') > 2) out = at;
  }
  if (out < 0) return cutter;
  const [driver] = drivers(view, new EndEscapes(view), out).filter((at) => scene.contains(at, ink.node));
  return driver ?? out;
}

function sighting(scene: Scene, render: RenderView, key: string, group: readonly Clipping[]): Sighting {
  const { view } = scene;
  const worth = ({ loss }: Clipping) => loss.px + (loss.ink.kind === 'text' ? 0 : 10_000);
  const worst = group.reduce((a, b) => (worth(b) > worth(a) ? b : a));
  const culprits = [...new Set(group.map(({ culprit }) => culprit))].sort((a, b) => a - b);
  const { loss } = worst;
  const cut = group.filter(({ culprit }) => culprit === worst.culprit).map((entry) => entry.loss);
  const width = `on a ${render.device.width} px wide screen`;
  const isMild = group.every(({ shortened }) => shortened !== null);
  return {
    node: culprits[0]!,
    related: culprits.slice(1),
    affected: group.map((entry) => entry.loss.ink.node),
    key,
    rect: union(view.box(loss.cutter), bounded(loss.rect, view.box(loss.cutter))),
    by: { axis: loss.axis, px: loss.px },
    ...(isMild && { severity: 'notice' as const }),
    message: isMild
      ? `The text “${excerpt(view.lineText(loss.ink.line))}” is shortened by ${worst.shortened === 'ellipsis' ? 'an ellipsis' : 'a line clamp'}, ${width}.`
      : `${whatIsLost(scene, loss)}${cut.length > 1 ? ` and ${cut.length - 1} more` : ''} ${loss.whole ? 'is wholly' : `loses ${px(loss.px)} and is`} cut off, ${width}.`,
  };
}

/** What is far outside would make a rectangle that shows nothing. */
function bounded(rect: Rect, around: Rect): Rect {
  const right = Math.min(rect.x + rect.width, around.x + around.width + 400);
  const bottom = Math.min(rect.y + rect.height, around.y + around.height + 400);
  const x = Math.max(rect.x, around.x - 400);
  const y = Math.max(rect.y, around.y - 400);
  return right > x && bottom > y ? { x, y, width: right - x, height: bottom - y } : around;
}

function whatIsLost({ view }: Scene, { ink }: Loss): string {
  if (ink.kind === 'text') return `The text “${excerpt(view.lineText(ink.line))}”`;
  return `A ${ink.kind} (${view.tag(ink.node)})`;
}
