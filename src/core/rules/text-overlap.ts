import { signature } from '../findings/signature.js';
import { intersect, union, type Rect } from '../geometry/rect.js';
import { isDecoration } from '../intent/decoration.js';
import { isEcho, isSmallRaised, isSymbols } from '../intent/typography.js';
import { overlapCulprit } from '../layout/culprit.js';
import { sceneOf, type Ink, type Scene } from '../layout/scene.js';
import { fixedRoot, isFreedByScrolling, stickyRoot } from '../layout/viewport-layer.js';
import type { NodeIndex } from '../layout/view.js';
import { excerpt, px } from './words.js';
import type { RenderView, Rule, Sighting } from './rule.js';

/** Of the lower of two lines' letters, this share must be overlapped: less is tight setting. */
const LEAST_SHARE = 0.25;
/** Side by side, letters may touch by kerning, italics and rounding, CSS px. */
const LEAST_WIDTH = 3;

interface Pair {
  readonly upper: Ink;
  readonly lower: Ink;
  readonly common: Rect;
  readonly culprit: NodeIndex;
}

/** Text lies on text. How it measures, what it leaves alone and how to repair: docs/rules/text-overlap.md. */
export const textOverlap: Rule = {
  meta: { name: 'text-overlap', family: 'overlap', severity: 'error', summary: 'text lies on text' },
  check(render) {
    const scene = sceneOf(render.view);
    const groups = new Map<string, Pair[]>();
    for (const ink of scene.inks) {
      if (ink.kind !== 'text' || !ink.shown) continue;
      for (const other of scene.inksAfter(ink)) {
        if (other.kind !== 'text') continue;
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

function pairOf(scene: Scene, a: Ink, b: Ink): Pair | null {
  const common = intersect(a.shown!, b.shown!);
  if (!common || common.width < LEAST_WIDTH) return null;
  if (common.height < LEAST_SHARE * Math.min(a.full.height, b.full.height)) return null;
  // The lines of one text can only collide from above; side by side they are one line in pieces.
  if (a.node === b.node && Math.abs(a.full.y - b.full.y) < 2) return null;
  for (const ink of [a, b]) {
    if (isDecoration(scene, ink.node) || isSmallRaised(scene.view, ink.node)) return null;
    if (isSymbols(scene.view, ink)) return null;
  }
  if (isEcho(scene.view, a, b)) return null;
  const [upper, lower] = a.rank >= b.rank ? [a, b] : [b, a];
  if (isSeparated(scene, upper, lower, common) || isPassing(scene, upper, lower)) return null;
  return { upper, lower, common, culprit: a.node === b.node ? a.node : overlapCulprit(scene, upper, lower) };
}

/** Something opaque lies between them: then one is hidden, not overprinted. */
function isSeparated(scene: Scene, upper: Ink, lower: Ink, common: Rect): boolean {
  return scene
    .coversIn(common)
    .some(
      (cover) =>
        cover.rank > lower.rank && cover.rank <= upper.rank && !scene.contains(cover.node, lower.node),
    );
}

/** One of them stays on the screen while the other scrolls by, and comes free. */
function isPassing(scene: Scene, upper: Ink, lower: Ink): boolean {
  const { view } = scene;
  const [fixedUpper, fixedLower] = [fixedRoot(view, upper.node), fixedRoot(view, lower.node)];
  if (fixedUpper >= 0 !== fixedLower >= 0) {
    const [still, moving] = fixedUpper >= 0 ? [upper, lower] : [lower, upper];
    return isFreedByScrolling(view, moving.shown!, still.shown!);
  }
  return stickyRoot(view, upper.node) !== stickyRoot(view, lower.node);
}

function sighting(scene: Scene, render: RenderView, key: string, pairs: readonly Pair[]): Sighting {
  const { view } = scene;
  const worst = pairs.reduce((a, b) =>
    b.common.height * b.common.width > a.common.height * a.common.width ? b : a,
  );
  const culprits = [...new Set(pairs.map(({ culprit }) => culprit))].sort((a, b) => a - b);
  const depth = Math.max(...pairs.map(({ common }) => common.height));
  const text = (ink: Ink) => `“${excerpt(view.lineText(ink.line))}”`;
  const collided = worst.upper.node === worst.lower.node;
  return {
    node: culprits[0]!,
    related: culprits.slice(1),
    affected: pairs.flatMap(({ upper, lower }) => [upper.node, lower.node]),
    key,
    rect: pairs.flatMap(({ upper, lower }) => [upper.shown!, lower.shown!]).reduce(union),
    by: { axis: 'y', px: depth },
    message: collided
      ? `The lines of ${text(worst.upper)} lie on one another by ${px(depth)}, on a ${render.device.width} px wide screen.`
      : `${text(worst.upper)} lies on ${text(worst.lower)} by ${px(worst.common.width)} × ${px(worst.common.height)}, on a ${render.device.width} px wide screen.`,
  };
}
