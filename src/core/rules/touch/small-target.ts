import { likeness } from '../../identity/signature.js';
import { sizeText } from '../../geometry/format.js';
import { union, type Rect } from '../../geometry/rect.js';
import { isDecoration } from '../../intent/decoration.js';
import { sceneOf, type Scene } from '../../layout/scene.js';
import { FLAG_ARIA_HIDDEN, FLAG_FIELD } from '../../layout/snapshot.js';
import { isInSentence, TouchAreas, type TouchArea } from '../../layout/touch-areas.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import { capital, controlName, onScreen } from '../../sightings/words.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';

/** WCAG 2.2, success criterion 2.5.8: the least size of a target, CSS px. */
const LEAST = 24;
/** Rounding of layout. */
const TOLERANCE = 0.5;
/** Boxes that the browser draws itself are its own affair (2.5.8, exception "user agent control"), CSS px. */
const NATIVE_BOX = 16;

interface Tight {
  readonly target: TouchArea;
  readonly neighbour: TouchArea;
  readonly culprit: NodeIndex;
}

/**
 * On touch screens, a control is smaller than a fingertip and has another one beside it. How it measures and what it
 * leaves alone: docs/rules/small-target.md.
 */
export const smallTarget: Rule = {
  meta: {
    name: 'small-target',
    family: 'touch',
    severity: 'notice',
    summary: 'a control is too small to be hit for certain with a finger',
  },
  check(render) {
    const { view, device } = render;
    // A page that is shown shrunk is page-overflow's: all of its areas are small.
    const { scale } = view.snapshot.viewport;
    if (device.touchPoints === 0 || scale < 1) return [];
    const scene = sceneOf(view);
    const areas = new TouchAreas(scene);
    const tight = areas.all.flatMap((target) => tightOf(scene, areas, target, LEAST / scale) ?? []);
    return byCulprit(view, tight, likeness).map((group) => sighting(render, group));
  },
};

function isSmall({ width, height }: Rect, least: number): boolean {
  return width < least - TOLERANCE || height < least - TOLERANCE;
}

/** The circle of `least` px (24 as shown) about the middle of a small target must not meet another target, nor the circle of another small one. */
function tightOf(scene: Scene, areas: TouchAreas, target: TouchArea, least: number): Tight | null {
  const { view } = scene;
  const { node, rect } = target;
  if (!isSmall(rect, least) || isDecoration(scene, node) || isInSentence(view, node) || isNative(view, node))
    return null;
  // Another way to what stands elsewhere on the page (2.5.8, exception "equivalent").
  if (view.has(node, FLAG_ARIA_HIDDEN)) return null;
  const x = rect.x + rect.width / 2;
  const y = rect.y + rect.height / 2;
  const neighbour = areas.near(target, x, y, least).find((other) => {
    if (scene.contains(other.node, node) || isNative(view, other.node)) return false;
    if (distanceTo(other.rect, x, y) < least / 2 - TOLERANCE) return true;
    if (!isSmall(other.rect, least) || isInSentence(view, other.node)) return false;
    const dx = other.rect.x + other.rect.width / 2 - x;
    const dy = other.rect.y + other.rect.height / 2 - y;
    return Math.hypot(dx, dy) < least - TOLERANCE;
  });
  return neighbour ? { target, neighbour, culprit: node } : null;
}

function distanceTo({ x, y, width, height }: Rect, px: number, py: number): number {
  return Math.hypot(Math.max(x - px, 0, px - x - width), Math.max(y - py, 0, py - y - height));
}

/** A check box or radio button as the browser draws it. */
function isNative(view: SnapshotView, i: NodeIndex): boolean {
  const { width, height } = view.box(i);
  return view.tag(i) === 'input' && !view.has(i, FLAG_FIELD) && width <= NATIVE_BOX && height <= NATIVE_BOX;
}

function sighting(render: RenderView, { entries, fault }: Culprits<Tight>): Sighting {
  const { view } = render;
  const least = ({ width, height }: Rect) => Math.min(width, height);
  const worst = entries.reduce((a, b) => (least(b.target.rect) < least(a.target.rect) ? b : a));
  const { width, height } = worst.target.rect;
  const axis = width < height ? ('x' as const) : ('y' as const);
  return {
    ...fault,
    rect: entries.map(({ target }) => target.rect).reduce(union),
    by: { axis, px: LEAST - least(worst.target.rect) },
    message: `${capital(controlName(view, worst.target.node))}, ${sizeText(worst.target.rect)} and so less than ${LEAST} × ${LEAST}, is close beside ${controlName(view, worst.neighbour.node)}, ${onScreen(render)}.`,
  };
}
