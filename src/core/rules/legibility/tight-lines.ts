import { px } from '../../geometry/format.js';
import { intersect, union, type Rect } from '../../geometry/rect.js';
import { isDecoration } from '../../intent/decoration.js';
import { sceneOf, type Scene } from '../../layout/scene.js';
import { emOf, hasDescenders, inkOf } from '../../layout/text-ink.js';
import type { NodeIndex } from '../../layout/view.js';
import { OVERLAP_SHARE } from '../overlap/text-overlap.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import { onScreen, quotedText } from '../../sightings/words.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';

/** From baseline to baseline, em. Descenders and capitals take 0.9 em together, so here they lie in one another. */
const LEAST_ADVANCE_EM = 0.8;

interface Collision {
  readonly line: number;
  readonly advance: number;
  readonly size: number;
  readonly rect: Rect;
  readonly culprit: NodeIndex;
}

/**
 * The lines of one text stand so close that the letters of one reach into the next. Where they lie on one another for good,
 * it is text-overlap. How it measures: docs/rules/tight-lines.md.
 */
export const tightLines: Rule = {
  meta: {
    name: 'tight-lines',
    family: 'legibility',
    severity: 'warning',
    summary: 'the letters of one line reach into the next',
  },
  check(render) {
    const scene = sceneOf(render.view);
    const collisions = scene.inks.flatMap((ink, at) => {
      const next = scene.inks[at + 1];
      if (ink.kind !== 'text' || next?.node !== ink.node || !ink.shown || !next.shown) return [];
      return collisionOf(scene, ink.node, ink.line, next.line) ?? [];
    });
    return byCulprit(render.view, collisions).map((group) => sighting(render, group));
  },
};

function collisionOf(scene: Scene, node: NodeIndex, line: number, next: number): Collision | null {
  const { view } = scene;
  const [upper, lower] = [view.lineBox(line), view.lineBox(next)];
  const size = emOf(view, line);
  const advance = lower.y - upper.y;
  if (advance < 1 || advance >= LEAST_ADVANCE_EM * size) return null;
  if (lower.x >= upper.x + upper.width || upper.x >= lower.x + lower.width) return null;
  if (isDecoration(scene, node)) return null;
  const [a, b] = [inkOf(view, line), inkOf(view, next)];
  const common = intersect(a, b)?.height ?? 0;
  if (common >= OVERLAP_SHARE * Math.min(a.height, b.height)) return null;
  if (common === 0 && !hasDescenders(view, line)) return null;
  return { line, advance, size, rect: union(upper, lower), culprit: node };
}

function sighting(render: RenderView, { entries, fault }: Culprits<Collision>): Sighting {
  const worst = entries.reduce((a, b) => (b.advance / b.size < a.advance / a.size ? b : a));
  return {
    ...fault,
    rect: entries.map(({ rect }) => rect).reduce(union),
    by: { axis: 'y', px: LEAST_ADVANCE_EM * worst.size - worst.advance },
    message: `The lines of ${quotedText(render.view, worst.line)} are ${px(worst.advance)} apart for letters of ${px(worst.size)} and touch, ${onScreen(render)}.`,
  };
}
