import { signature } from '../findings/signature.js';
import { area, intersect, union, type Rect } from '../geometry/rect.js';
import { isAdornment, isOnLargerControl } from '../intent/controls.js';
import { hangsFromControl, isInTopLayer } from '../intent/overlays.js';
import { isDecoration } from '../intent/decoration.js';
import { areAlternatives, areShingled } from '../intent/stacks.js';
import { overlapCulprit } from '../layout/culprit.js';
import { isDrawn } from '../layout/paint.js';
import { sceneOf, type Ink, type Scene } from '../layout/scene.js';
import { FLAG_CONTROL, FLAG_FIELD } from '../layout/snapshot.js';
import { fixedRoot, stickyRoot } from '../layout/viewport-layer.js';
import type { NodeIndex } from '../layout/view.js';
import { excerpt, px } from './words.js';
import type { RenderView, Rule, Sighting } from './rule.js';

/** Touching borders and rounding, CSS px. */
const LEAST_PX = 2.5;
/** Of the smaller of two controls, this share must be overlapped. */
const LEAST_SHARE = 0.06;

interface Pair {
  readonly upper: Ink;
  readonly lower: Ink;
  readonly common: Rect;
  readonly culprit: NodeIndex;
}

/** A control lies on another control or on text. How it measures and what it leaves alone: docs/rules/control-overlap.md. */
export const controlOverlap: Rule = {
  meta: {
    name: 'control-overlap',
    family: 'overlap',
    severity: 'error',
    summary: 'a control lies on another control or on text',
  },
  check(render) {
    const scene = sceneOf(render.view);
    const groups = new Map<string, Pair[]>();
    for (const ink of scene.inks) {
      if (ink.kind !== 'control' || !ink.shown) continue;
      for (const other of scene.inksIn(ink.shown)) {
        if (other.kind === 'picture' || (other.kind === 'control' && other.index <= ink.index)) continue;
        const pair = pairOf(scene, ink, other);
        if (!pair) continue;
        const key = signature(scene.view, pair.culprit);
        const group = groups.get(key);
        if (group) group.push(pair);
        else groups.set(key, [pair]);
      }
    }
    return [...groups].map(([key, pairs]) => sighting(scene, render, key, pairs));
  },
};

function pairOf(scene: Scene, control: Ink, other: Ink): Pair | null {
  const { view } = scene;
  if (scene.contains(control.node, other.node) || scene.contains(other.node, control.node)) return null;
  const common = intersect(control.shown!, other.shown!);
  if (!common || common.width < LEAST_PX || common.height < LEAST_PX) return null;
  if (isDecoration(scene, control.node) || isDecoration(scene, other.node)) return null;
  if ([control, other].some((ink) => isInTopLayer(scene, ink.node) || hangsFromControl(scene, ink.node)))
    return null;
  if (fixedRoot(view, control.node) !== fixedRoot(view, other.node)) return null;
  if (stickyRoot(view, control.node) !== stickyRoot(view, other.node)) return null;
  const found =
    other.kind === 'text' ? onText(scene, control, other, common) : onControl(scene, control, other, common);
  if (!found) return null;
  const [upper, lower] = control.rank >= other.rank ? [control, other] : [other, control];
  return { upper, lower, common, culprit: overlapCulprit(scene, upper, lower) };
}

function onText(scene: Scene, control: Ink, text: Ink, common: Rect): boolean {
  const { view } = scene;
  // Words that belong to a control of their own are judged as that control.
  if (controlAround(scene, text.node) >= 0 && !isInline(scene, controlAround(scene, text.node))) return false;
  if (common.height < 0.3 * text.full.height) return false;
  if (view.has(control.node, FLAG_FIELD)) {
    if (isAdornment(scene, control, text)) return false;
  } else if (!showsOn(scene, control, common)) {
    // A link over a whole card: nothing of it is seen on the words, and they are what it is for.
    return false;
  } else if (text.rank > control.rank && isBadgeText(scene, text)) return false;
  return !(text.rank < control.rank && isHidden(scene, text, control, common));
}

function onControl(scene: Scene, a: Ink, b: Ink, common: Rect): boolean {
  if (area(common) < LEAST_SHARE * Math.min(area(a.full), area(b.full))) return false;
  if (isOnLargerControl(scene, a, b) || areShingled(scene, a.node, b.node)) return false;
  return !areAlternatives(scene, a.node, b.node);
}

/** Whether something of a control is seen in a place: its drawn box, or a word or picture of its own. */
function showsOn(scene: Scene, control: Ink, common: Rect): boolean {
  if (isDrawn(scene.view, control.node)) return true;
  return (
    scene
      .inksIn(common)
      .some(
        (ink) =>
          ink.node !== control.node && scene.contains(control.node, ink.node) && ink.kind !== 'control',
      ) || scene.inksIn(common).some((ink) => ink.kind === 'text' && ink.node === control.node)
  );
}

/** A count or mark with a background of its own, set on a control by design. */
function isBadgeText(scene: Scene, text: Ink): boolean {
  const { view } = scene;
  const box = view.box(text.node);
  return isDrawn(view, text.node) && box.height <= 32 && box.width <= 90;
}

/** Something opaque other than the control itself hides the text: that is another rule's. */
function isHidden(scene: Scene, text: Ink, control: Ink, common: Rect): boolean {
  return scene
    .coversIn(common)
    .some(
      (cover) =>
        cover.rank > text.rank &&
        cover.node !== control.node &&
        scene.contains(cover.node, control.node) &&
        !scene.contains(cover.node, text.node),
    );
}

function controlAround({ view }: Scene, i: NodeIndex): NodeIndex {
  for (let at = i; at >= 0; at = view.parent(at)) if (view.has(at, FLAG_CONTROL)) return at;
  return -1;
}

function isInline({ view }: Scene, i: NodeIndex): boolean {
  return view.style(i, 'display') === 'inline';
}

function sighting(scene: Scene, render: RenderView, key: string, pairs: readonly Pair[]): Sighting {
  const { view } = scene;
  const worst = pairs.reduce((a, b) => (area(b.common) > area(a.common) ? b : a));
  const culprits = [...new Set(pairs.map(({ culprit }) => culprit))].sort((a, b) => a - b);
  const what = (ink: Ink) =>
    ink.kind === 'text'
      ? `the text “${excerpt(view.lineText(ink.line))}”`
      : `a control (${view.tag(ink.node)})`;
  const first = what(worst.upper);
  const { width, height } = worst.common;
  return {
    node: culprits[0]!,
    related: culprits.slice(1),
    affected: pairs.flatMap(({ upper, lower }) => [upper.node, lower.node]),
    key,
    rect: pairs.flatMap(({ upper, lower }) => [upper.shown!, lower.shown!]).reduce(union),
    by: width < height ? { axis: 'x', px: width } : { axis: 'y', px: height },
    message: `${first[0]!.toUpperCase()}${first.slice(1)} lies on ${what(worst.lower)} by ${px(width)} × ${px(height)}, on a ${render.device.width} px wide screen.`,
  };
}
