import { menuEntriesOf } from '../../intent/menus.js';
import { shortLabelOf } from '../../layout/labels.js';
import { sceneOf } from '../../layout/scene.js';
import type { Rule } from '../rule.js';
import { wrappedSightings, type Wrapped } from '../../sightings/wrapped-label.js';

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
    return wrappedSightings(
      render,
      wrapped,
      ({ text, rows }) => `The menu entry “${text}” breaks into ${rows} lines`,
    );
  },
};
