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
  // Most texts are set like others.
  const closer = new Map<string, number>();
  const closerBy = (i: NodeIndex) => {
    const setting = view.settingOf(i);
    let px = closer.get(setting);
    if (px === undefined) closer.set(setting, (px = -(pxOf(setting.split(';')[SPACING] ?? '') ?? 0)));
    return px;
  };
  const found = scene.inks.flatMap((ink) => {
    if (ink.kind !== 'text' || ink.shown === null) return [];
    const by = closerBy(ink.node);
    const isOnAnother = by > 0 && by >= LEAST_EM * Number.parseFloat(view.style(ink.node, 'font-size'));
    if (!isOnAnother || isDecoration(scene, ink.node) || isSymbols(view, ink)) return [];
    return [{ ink, shown: ink.shown, by, culprit: ink.node }];
  });
  return byCulprit(view, found).map(({ entries, fault }) => {
    const { ink, by } = entries[0]!;
    return {
      ...fault,
      affected: entries.map((entry) => entry.ink.node),
      rect: entries.map(({ shown }) => shown).reduce(union),
      by: { axis: 'x', px: by },
      message: `The letters of ${quoted(view, ink)} lie on one another, each ${px(by)} closer than they are drawn, ${onScreen(render)}.`,
    };
  });
}
