import { likeness } from '../../identity/signature.js';
import { count } from '../../geometry/format.js';
import { union } from '../../geometry/rect.js';
import { isDecoration } from '../../intent/decoration.js';
import { isSmallRaised } from '../../intent/typography.js';
import { sceneOf, type Ink, type Scene } from '../../layout/scene.js';
import { emOf } from '../../layout/text-ink.js';
import type { NodeIndex } from '../../layout/view.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import { onScreen, quoted } from '../../sightings/words.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';

/** CSS px as shown. */
const LEAST_SIZE = 12;
/** Under this it can't be read without enlarging. */
const UNREADABLE = 9;
/** Rounding of layout and scale. */
const TOLERANCE = 0.25;
/** Fewer letters are a mark: a count on a bell, a unit. */
const LEAST_LETTERS = 4;

interface Small {
  readonly ink: Ink;
  readonly size: number;
  readonly culprit: NodeIndex;
}

/** Text is smaller than 12 px as it is shown. How it measures and what it leaves alone: docs/rules/small-text.md. */
export const smallText: Rule = {
  meta: {
    name: 'small-text',
    family: 'legibility',
    severity: 'notice',
    summary: 'text is too small to read',
  },
  check(render) {
    // A page that is shown shrunk is page-overflow's: all of its text is small.
    const { scale } = render.view.snapshot.viewport;
    if (scale < 1) return [];
    const scene = sceneOf(render.view);
    const small = scene.inks.flatMap((ink) => smallOf(scene, ink, scale) ?? []);
    return byCulprit(render.view, small, likeness).map((group) => sighting(render, group));
  },
};

function smallOf(scene: Scene, ink: Ink, scale: number): Small | null {
  if (ink.kind !== 'text' || !ink.shown) return null;
  const { view } = scene;
  const size = emOf(view, ink.line) * scale;
  if (size >= LEAST_SIZE - TOLERANCE) return null;
  if ((view.lineText(ink.line).match(/\p{L}/gu) ?? []).length < LEAST_LETTERS) return null;
  if (isDecoration(scene, ink.node) || isSmallRaised(view, ink.node)) return null;
  return { ink, size, culprit: whereSizeIsSet(scene, ink.node) };
}

/** The outermost element from which the size is inherited. */
function whereSizeIsSet({ view }: Scene, i: NodeIndex): NodeIndex {
  const size = view.style(i, 'font-size');
  let at = i;
  while (view.parent(at) >= 0 && view.style(view.parent(at), 'font-size') === size) at = view.parent(at);
  return at;
}

function sighting(render: RenderView, { entries, fault }: Culprits<Small>): Sighting {
  const { view } = render;
  const least = entries.reduce((a, b) => (b.size < a.size ? b : a));
  const others = entries.length - 1;
  const more = others > 0 ? ` and ${count(others, 'more line', 'more lines')} are` : ' is';
  return {
    ...fault,
    affected: entries.map(({ ink }) => ink.node),
    rect: entries.map(({ ink }) => ink.shown!).reduce(union),
    by: { axis: 'y', px: LEAST_SIZE - least.size },
    ...(least.size < UNREADABLE && { severity: 'warning' as const }),
    message: `The text ${quoted(view, least.ink)}${more} shown at ${Math.floor(least.size)} px, less than ${LEAST_SIZE} px, ${onScreen(render)}.`,
  };
}
