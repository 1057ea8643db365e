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
const LEAST_BETWEEN_LETTERS = 0.15;
/** A space is a quarter of an em: less by this, em, and nobody sees where a word ends. */
const LEAST_BETWEEN_WORDS = 0.2;

const SPACINGS = (['letter-spacing', 'word-spacing'] as const).map((property) =>
  SETTING_PROPERTIES.indexOf(property),
);

/** How much closer letters and words are set than they are drawn, CSS px. */
interface Closer {
  readonly letters: number;
  readonly words: number;
}

/** Texts whose letters lie on one another by their `letter-spacing`, or whose words run together by their `word-spacing`. */
export function squeezedLetters(scene: Scene, render: RenderView): Sighting[] {
  const { view } = scene;
  // Most texts are set like others.
  const known = new Map<string, Closer>();
  const closerBy = (i: NodeIndex): Closer => {
    const setting = view.settingOf(i);
    let closer = known.get(setting);
    if (!closer) {
      const values = setting.split(';');
      const [letters, words] = SPACINGS.map((at) => Math.max(0, -(pxOf(values[at] ?? '') ?? 0)));
      known.set(setting, (closer = { letters: letters!, words: words! }));
    }
    return closer;
  };
  const found = scene.inks.flatMap((ink) => {
    if (ink.kind !== 'text' || ink.shown === null) return [];
    const { letters, words } = closerBy(ink.node);
    if (letters === 0 && words === 0) return [];
    const em = Number.parseFloat(view.style(ink.node, 'font-size'));
    const isOnAnother = letters > 0 && letters >= LEAST_BETWEEN_LETTERS * em;
    const runsTogether =
      words > 0 && letters + words >= LEAST_BETWEEN_WORDS * em && SPACED.test(view.lineText(ink.line));
    if (!(isOnAnother || runsTogether) || isDecoration(scene, ink.node) || isSymbols(view, ink)) return [];
    return [{ ink, shown: ink.shown, by: isOnAnother ? letters : words, isOnAnother, culprit: ink.node }];
  });
  return byCulprit(view, found).map(({ entries, fault }) => {
    const { ink, by, isOnAnother } = entries[0]!;
    const what = isOnAnother
      ? `The letters of ${quoted(view, ink)} lie on one another, each ${px(by)} closer than they are drawn`
      : `The words of ${quoted(view, ink)} run together, each space ${px(by)} narrower than it is drawn`;
    return {
      ...fault,
      affected: entries.map((entry) => entry.ink.node),
      rect: entries.map(({ shown }) => shown).reduce(union),
      by: { axis: 'x', px: by },
      message: `${what}, ${onScreen(render)}.`,
    };
  });
}

const SPACED = /\p{L}[^\S\n]+\p{L}/u;
