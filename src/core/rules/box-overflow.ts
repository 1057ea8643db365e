import { drivers } from '../cause/drivers.js';
import { signature } from '../findings/signature.js';
import { union, type Rect } from '../geometry/rect.js';
import { isDecoration } from '../intent/decoration.js';
import { displacementOf } from '../layout/displace.js';
import { EndEscapes } from '../layout/escape.js';
import { outAlong } from '../layout/holders.js';
import { isDrawn } from '../layout/paint.js';
import { sceneOf, type Ink, type Scene } from '../layout/scene.js';
import { emOf } from '../layout/text-ink.js';
import type { NodeIndex } from '../layout/view.js';
import { px } from './words.js';
import type { RenderView, Rule, Sighting } from './rule.js';

/** Less than this out of a box is not seen: rounding, glyph overhang, the air round a letter. */
const LEAST_PX = 2;
/** Letters reach this far out of a box that is a little too low before it looks wrong, em. */
const LEAST_EM = 0.2;

interface Escape {
  readonly box: NodeIndex;
  readonly culprit: NodeIndex;
  readonly ink: Ink;
  readonly axis: 'x' | 'y';
  readonly px: number;
}

/**
 * Content runs out of the box that is drawn round it. How it measures, what it leaves alone and how to repair:
 * docs/rules/box-overflow.md.
 */
export const boxOverflow: Rule = {
  meta: {
    name: 'box-overflow',
    family: 'overflow',
    severity: 'warning',
    summary: 'content runs out of the box that is drawn round it',
  },
  check(render) {
    const scene = sceneOf(render.view);
    const groups = new Map<string, Escape[]>();
    for (const ink of scene.inks) {
      const escape = escapeOf(scene, ink);
      if (!escape) continue;
      const key = signature(scene.view, escape.culprit);
      const group = groups.get(key);
      if (group) group.push(escape);
      else groups.set(key, [escape]);
    }
    return [...groups].map(([key, group]) => sighting(scene, render, key, group));
  },
};

/** The innermost drawn box that an ink runs out of. */
function escapeOf(scene: Scene, ink: Ink): Escape | null {
  const { view } = scene;
  const shown = ink.shown;
  if (!shown || isDecoration(scene, ink.node)) return null;
  const chain: NodeIndex[] = [];
  for (let at = ink.node; at > 0 && at !== view.body; at = view.containingElement(at)) {
    // Text may run out of its own element; a box runs out of one around it.
    const isAround = at !== ink.node || ink.kind === 'text';
    if (isAround && scene.painted[at] && view.style(at, 'display') !== 'inline' && isDrawn(view, at)) {
      const found = escapeFrom(scene, ink, shown, at, chain);
      if (found) return found;
    }
    if (displacementOf(view, at) !== null) return null;
    chain.push(at);
  }
  return null;
}

function escapeFrom(
  scene: Scene,
  ink: Ink,
  shown: Rect,
  box: NodeIndex,
  chain: readonly NodeIndex[],
): Escape | null {
  const { view } = scene;
  const around = view.box(box);
  if (around.width < 4 || around.height < 4) return null;
  const outX = outAlong(shown, around, 'x');
  if (outX > LEAST_PX) {
    return { box, ink, axis: 'x', px: outX, culprit: sidewaysCulprit(scene, ink, box, chain) };
  }
  const outY = outAlong(shown, around, 'y');
  const least = ink.kind === 'text' ? Math.max(LEAST_PX, LEAST_EM * emOf(view, ink.line)) : LEAST_PX;
  if (outY > least) return { box, ink, axis: 'y', px: outY, culprit: tooLow(scene, ink, box, chain) };
  return null;
}

/** The outermost element below the box that reaches out of it, or what makes that one as wide as it is. */
function sidewaysCulprit(scene: Scene, ink: Ink, box: NodeIndex, chain: readonly NodeIndex[]): NodeIndex {
  const { view } = scene;
  const around = view.box(box);
  const out = [...chain].reverse().find((at) => outAlong(view.box(at), around, 'x') > LEAST_PX);
  if (out === undefined) return ink.node === box ? box : (chain[0] ?? box);
  const [driver] = drivers(view, new EndEscapes(view), out).filter((at) => scene.contains(at, ink.node));
  return driver ?? out;
}

/** The innermost block that is too low for what stands in it. */
function tooLow(scene: Scene, ink: Ink, box: NodeIndex, chain: readonly NodeIndex[]): NodeIndex {
  const { view } = scene;
  const low = chain.find(
    (at) => view.style(at, 'display') !== 'inline' && outAlong(ink.full, view.box(at), 'y') > LEAST_PX,
  );
  return low ?? box;
}

function sighting(scene: Scene, render: RenderView, key: string, group: readonly Escape[]): Sighting {
  const { view } = scene;
  const worst = group.reduce((a, b) => (b.px > a.px ? b : a));
  const culprits = [...new Set(group.map(({ culprit }) => culprit))].sort((a, b) => a - b);
  const own = group.filter(({ culprit }) => culprit === worst.culprit);
  const [node] = culprits;
  const side = worst.axis === 'x' ? 'sideways' : 'up or down';
  const what =
    worst.ink.kind === 'text'
      ? 'Text runs'
      : worst.ink.kind === 'control'
        ? 'A control runs'
        : 'A picture runs';
  const around = worst.culprit === worst.box ? 'the box' : `the box ${nameOf(scene, worst.box)}`;
  return {
    node: node!,
    related: culprits.slice(1),
    affected: group.map(({ ink }) => ink.node),
    key,
    rect: own.map(({ ink }) => ink.shown!).reduce(union, view.box(worst.culprit)),
    by: { axis: worst.axis, px: worst.px },
    message: `${what} ${px(worst.px)} ${side} out of ${around} that is drawn round it, on a ${render.device.width} px wide screen.`,
  };
}

function nameOf({ view }: Scene, i: NodeIndex): string {
  const id = view.id(i);
  return (
    view.tag(i) +
    (id === ''
      ? view
          .classes(i)
          .slice(0, 2)
          .map((name) => `.${name}`)
          .join('')
      : `#${id}`)
  );
}
