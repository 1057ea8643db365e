import { menuEntriesOf } from '../../intent/menus.js';
import { shortLabelOf } from '../../layout/labels.js';
import { isDrawn } from '../../layout/paint.js';
import { sceneOf, type Scene } from '../../layout/scene.js';
import { FLAG_CONTROL } from '../../layout/snapshot.js';
import type { NodeIndex } from '../../layout/view.js';
import type { Rule } from '../rule.js';
import { wrappedSightings, type Wrapped } from '../../sightings/wrapped-label.js';

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
    return wrappedSightings(
      render,
      wrapped,
      ({ text, rows }) => `The label “${text}” breaks into ${rows} lines inside its button`,
    );
  },
};

/** Something to press with a box of its own that is seen. */
function isButton({ view }: Scene, i: NodeIndex): boolean {
  return (
    view.has(i, FLAG_CONTROL) && isDrawn(view, i) && !/^(input|select|textarea|summary)$/.test(view.tag(i))
  );
}
