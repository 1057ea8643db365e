import { menuEntriesOf } from '../intent/menus.js';
import { shortLabelOf } from '../layout/labels.js';
import { isDrawn } from '../layout/paint.js';
import { sceneOf, type Scene } from '../layout/scene.js';
import { FLAG_CONTROL } from '../layout/snapshot.js';
import type { NodeIndex } from '../layout/view.js';
import { byCulprit, type Culprits } from './by-culprit.js';
import { onScreen } from './words.js';
import type { RenderView, Rule, Sighting } from './rule.js';

interface Wrapped {
  readonly culprit: NodeIndex;
  readonly text: string;
  readonly rows: number;
}

/** The short label of a button breaks into lines. How it measures and what it leaves alone: docs/rules/label-wraps.md. */
export const labelWraps: Rule = {
  meta: {
    name: 'label-wraps',
    family: 'flow',
    severity: 'notice',
    summary: 'the label of a button breaks into two lines',
    needsFreeWidth: true,
  },
  check(render) {
    const scene = sceneOf(render.view);
    // Those are entry-wraps'.
    const entries = new Set(menuEntriesOf(scene).flat());
    const wrapped: Wrapped[] = [];
    for (const { node } of scene.inks.filter((ink) => ink.kind === 'control' && ink.shown)) {
      if (entries.has(node) || !isButton(scene, node)) continue;
      const label = shortLabelOf(scene, node);
      if (label && label.rows > 1) wrapped.push({ culprit: node, text: label.text, rows: label.rows });
    }
    return byCulprit(render.view, wrapped).map((group) => sighting(render, group));
  },
};

/** Something to press with a box of its own that is seen. */
function isButton({ view }: Scene, i: NodeIndex): boolean {
  return (
    view.has(i, FLAG_CONTROL) && isDrawn(view, i) && !/^(input|select|textarea|summary)$/.test(view.tag(i))
  );
}

function sighting(render: RenderView, { entries, fault }: Culprits<Wrapped>): Sighting {
  const worst = entries.reduce((a, b) => (b.rows > a.rows ? b : a));
  return {
    ...fault,
    rect: render.view.box(worst.culprit),
    by: null,
    message: `The label “${worst.text}” breaks into ${worst.rows} lines inside its button, ${onScreen(render)}.`,
  };
}
