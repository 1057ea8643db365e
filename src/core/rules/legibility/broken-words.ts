import { likeness } from '../../identity/signature.js';
import { isDecoration } from '../../intent/decoration.js';
import { sceneOf, type Scene } from '../../layout/scene.js';
import { MOST_TEXT } from '../../layout/snapshot.js';
import { isVertical } from '../../layout/text-ink.js';
import { hasOwnWidth } from '../../layout/own-size.js';
import { textRowsOf, type TextRows } from '../../layout/text-rows.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import { andMore, onScreen, quotedWords } from '../../sightings/words.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';

/** A word in two pieces can still be read. */
const LEAST_ROWS = 3;
/** Letters of a row, at most, in the middle: an address that is broken over a column of an ordinary width has more. */
const MOST_LETTERS = 5;

interface Broken {
  readonly text: TextRows;
  readonly culprit: NodeIndex;
}

/** A column is so narrow that words are broken into pieces of a few letters. How it measures: docs/rules/broken-words.md. */
export const brokenWords: Rule = {
  meta: {
    name: 'broken-words',
    family: 'legibility',
    severity: 'warning',
    summary: 'a column is so narrow that words are broken into pieces',
  },
  check(render) {
    const scene = sceneOf(render.view);
    const broken = textRowsOf(render.view)
      .filter((text) => isBroken(scene, text))
      .map((text) => ({ text, culprit: text.block }));
    return byCulprit(render.view, broken, likeness).map((group) => sighting(render, group));
  },
};

function isBroken(scene: Scene, { block, rows }: TextRows): boolean {
  const { view } = scene;
  if (rows.length < LEAST_ROWS || !scene.painted[block] || isVertical(view, block)) return false;
  const nodes = new Set(rows.flatMap(({ lines }) => lines.map((line) => view.snapshot.lines.node[line]!)));
  const texts = [...nodes].map((node) => view.textOf(node));
  // Of longer ones not all is known.
  if (texts.some((text) => text.length >= MOST_TEXT)) return false;
  const words = texts.join(' ');
  // Scripts without spaces between words break anywhere.
  if (!/\p{L}/u.test(words) || OTHER_LETTER.test(words) || isDecoration(scene, block)) return false;
  const pieces = words.split(BREAKS).filter((piece) => piece !== '');
  // Each row holds a word at the least, as long as none is broken.
  if (rows.length <= pieces.length) return false;
  const letters = pieces.reduce((sum, piece) => sum + piece.length, 0);
  if (letters / rows.length > MOST_LETTERS) return false;
  return !isStacked(view, block, rows.length, letters);
}

/** A letter of a script that does not part words by spaces. */
const OTHER_LETTER =
  /(?![\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Common}])\p{L}/u;
/** Where words may break without being broken (Unicode Line Breaking Algorithm, UAX 14). */
const BREAKS = /[\s\-‐–—/\u00AD\u200B]+/u;

/** Letter under letter, in a box that is as wide on purpose: a sign that is read from top to bottom. */
function isStacked(view: SnapshotView, block: NodeIndex, rows: number, letters: number): boolean {
  return letters <= rows && hasOwnWidth(view, block);
}

function sighting(render: RenderView, { entries, fault }: Culprits<Broken>): Sighting {
  const { view } = render;
  const worst = entries.reduce((a, b) => (b.text.rows.length > a.text.rows.length ? b : a));
  const { more } = andMore(entries.length - 1);
  const [line] = worst.text.rows[0]!.lines;
  const words = view.textOf(view.snapshot.lines.node[line!]!);
  return {
    ...fault,
    affected: entries.map(({ culprit }) => culprit),
    rect: view.box(worst.culprit),
    by: null,
    message: `The words of ${quotedWords(words)}${more} are broken into pieces, over ${worst.text.rows.length} rows, ${onScreen(render)}.`,
  };
}
