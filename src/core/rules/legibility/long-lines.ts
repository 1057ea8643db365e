import { likeness } from '../../identity/signature.js';
import { isDecoration } from '../../intent/decoration.js';
import { sceneOf, type Scene } from '../../layout/scene.js';
import { emOf } from '../../layout/text-ink.js';
import { textRowsOf, type TextRows } from '../../layout/text-rows.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import { onScreen } from '../../sightings/words.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';

/** Letters of a line. WCAG 2.2, success criterion 1.4.8 asks for 80; readers get lost well past that. */
const MOST_LETTERS = 100;
/** The mean width of a letter with its share of spaces, em: Latin text faces run from 0.42 to 0.5. */
const LETTER_EM = 0.46;
/** Words of one line stand closer. */
const GAP_EM = 0.75;
/** Two lines are found back to by anyone. */
const LEAST_ROWS = 3;

interface Long {
  readonly text: TextRows;
  readonly letters: number;
  readonly culprit: NodeIndex;
}

/** Running text is set in lines that are too long to follow. How it measures: docs/rules/long-lines.md. */
export const longLines: Rule = {
  meta: {
    name: 'long-lines',
    family: 'legibility',
    severity: 'notice',
    summary: 'running text is set in lines that are too long to follow',
  },
  check(render) {
    const scene = sceneOf(render.view);
    const long = textRowsOf(render.view).flatMap((text) => longOf(scene, text) ?? []);
    return byCulprit(render.view, long, likeness).map((group) => sighting(render, group));
  },
};

function longOf(scene: Scene, text: TextRows): Long | null {
  const { view } = scene;
  const { block, rows } = text;
  if (rows.length < LEAST_ROWS || !scene.painted[block] || isDecoration(scene, block)) return null;
  if (/^(nowrap|pre)/.test(view.style(block, 'white-space'))) return null;
  const widths = rows.map(({ lines }) => unbrokenWidth(view, lines) / emOf(view, lines[0]!));
  // Headings over a paragraph in one box, and poems, have one long line among short ones.
  const long = widths.filter((width) => width / LETTER_EM > MOST_LETTERS);
  if (long.length < LEAST_ROWS - 1) return null;
  return { text, letters: Math.round(Math.max(...long) / LETTER_EM), culprit: block };
}

/** The longest piece of a row without a gap in it, CSS px: beside one another stand also the columns of a text. */
function unbrokenWidth(view: SnapshotView, lines: readonly number[]): number {
  const gap = GAP_EM * emOf(view, lines[0]!);
  let [longest, start, end] = [0, -Infinity, -Infinity];
  for (const { x, width } of lines.map((line) => view.lineBox(line)).sort((a, b) => a.x - b.x)) {
    if (x - end > gap) start = x;
    end = Math.max(end, x + width);
    longest = Math.max(longest, end - start);
  }
  return longest;
}

function sighting(render: RenderView, { entries, fault }: Culprits<Long>): Sighting {
  const longest = entries.reduce((a, b) => (b.letters > a.letters ? b : a));
  return {
    ...fault,
    rect: render.view.box(longest.culprit),
    by: null,
    message: `Its lines hold about ${longest.letters} letters, more than ${MOST_LETTERS}, ${onScreen(render)}.`,
  };
}
