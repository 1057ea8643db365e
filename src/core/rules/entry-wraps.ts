import { menuEntriesOf } from '../intent/menus.js';
import { shortLabelOf } from '../layout/labels.js';
import { sceneOf } from '../layout/scene.js';
import type { NodeIndex } from '../layout/view.js';
import { byCulprit, type Culprits } from './by-culprit.js';
import { onScreen } from './words.js';
import type { RenderView, Rule, Sighting } from './rule.js';

interface Wrapped {
  readonly culprit: NodeIndex;
  readonly text: string;
  readonly rows: number;
}

/**
 * An entry of a menu that lies in a row breaks into lines, while its neighbours stand on one. How it measures:
 * docs/rules/entry-wraps.md.
 */
export const entryWraps: Rule = {
  meta: {
    name: 'entry-wraps',
    family: 'flow',
    severity: 'notice',
    summary: 'an entry of a menu breaks into two lines',
    needsFreeWidth: true,
  },
  check(render) {
    const scene = sceneOf(render.view);
    const wrapped = menuEntriesOf(scene).flatMap((entries) => {
      const labels = entries.map((node) => ({ node, label: shortLabelOf(scene, node) }));
      if (!labels.some(({ label }) => label?.rows === 1)) return [];
      return labels.flatMap(({ node, label }): Wrapped[] =>
        label && label.rows > 1 ? [{ culprit: node, text: label.text, rows: label.rows }] : [],
      );
    });
    return byCulprit(render.view, wrapped).map((group) => sighting(render, group));
  },
};

function sighting(render: RenderView, { entries, fault }: Culprits<Wrapped>): Sighting {
  const worst = entries.reduce((a, b) => (b.rows > a.rows ? b : a));
  return {
    ...fault,
    rect: render.view.box(worst.culprit),
    by: null,
    message: `The menu entry “${worst.text}” breaks into ${worst.rows} lines, ${onScreen(render)}.`,
  };
}
