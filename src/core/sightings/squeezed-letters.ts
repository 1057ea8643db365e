import { isDecoration } from '../intent/decoration.js';
import { isSymbols } from '../intent/typography.js';
import { pxOf } from '../css/lengths.js';
import { px } from '../geometry/format.js';
import { union } from '../geometry/rect.js';
import type { Scene } from '../layout/scene.js';
import { SETTING_PROPERTIES } from '../layout/snapshot.js';
import type { NodeIndex } from '../layout/view.js';
import { byCulprit } from './by-culprit.js';
import type { RenderView, Sighting } from './sighting.js';
import { onScreen, quoted } from './words.js';

/** Letters have 0.1 em of room between them or little more: set closer by this, em, they lie on one another. */
const LEAST_EM = 0.15;
const SPACING = SETTING_PROPERTIES.indexOf('letter-spacing');

/** Texts whose letters lie on one another by their `letter-spacing`. */
export function squeezedLetters(scene: Scene, render: RenderView): Sighting[] {
  const { view } = scene;
  const spacing = (i: NodeIndex) => pxOf(view.settingOf(i).split(';')[SPACING] ?? '') ?? 0;
  const found = scene.inks
    .filter((ink) => ink.kind === 'text' && ink.shown !== null && spacing(ink.node) < 0)
    .filter(({ node }) => -spacing(node) >= LEAST_EM * Number.parseFloat(view.style(node, 'font-size')))
    .filter((ink) => !isDecoration(scene, ink.node) && !isSymbols(view, ink))
    .map((ink) => ({ ink, culprit: ink.node }));
  return byCulprit(view, found).map(({ entries, fault }) => {
    const { ink } = entries[0]!;
    const by = -spacing(ink.node);
    return {
      ...fault,
      affected: entries.map((entry) => entry.ink.node),
      rect: entries.map((entry) => entry.ink.shown!).reduce(union),
      by: { axis: 'x', px: by },
      message: `The letters of ${quoted(view, ink)} lie on one another, each ${px(by)} closer than they are drawn, ${onScreen(render)}.`,
    };
  });
}
