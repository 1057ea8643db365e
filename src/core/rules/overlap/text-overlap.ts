import { px, sizeText } from '../../geometry/format.js';
import { area, intersect, sizeAlong, type Rect } from '../../geometry/rect.js';
import { isDecoration } from '../../intent/decoration.js';
import {
  areBesideRuby,
  isEcho,
  isRowOfSigns,
  isSymbols,
  reachesIntoNextLine,
} from '../../intent/typography.js';
import { isWatermarkUnder } from '../../intent/watermark.js';
import { blockAround } from '../../layout/ancestors.js';
import { overlapCulprit } from '../../sightings/culprit.js';
import { acrossLines, emOf, hasDescenders, inkOf, isVertical, lettersOf } from '../../layout/text-ink.js';
import { displacementOf } from '../../layout/displace.js';
import { areApart } from '../../layout/rotated.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import { sceneOf, type Ink, type Scene } from '../../layout/scene.js';
import { isFreedInScroller } from '../../layout/scrollers.js';
import { passOneAnother } from '../../layout/sticking.js';
import { fixedRoot, isFreedByScrolling } from '../../layout/viewport-layer.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import { stacked, takingPart, type Pair } from '../../sightings/overlap-pair.js';
import { passingDoubts, passingWords } from '../../sightings/passing.js';
import { passingInScrollers } from '../../sightings/passing-in-scrollers.js';
import { squeezedLetters } from '../../sightings/squeezed-letters.js';
import { onScreen, quoted } from '../../sightings/words.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';

/** Of the lower of two lines' letters, this share must be overlapped: less is tight setting. */
export const OVERLAP_SHARE = 0.12;
/** Nobody sets two texts so tightly that the one reaches into the letters of the other, descenders left out. */
const OVERLAP_SHARE_OF_TWO = 0.1;
/** Rounding, CSS px, and what the measure of a large face is off by, em. */
const LEAST_DEPTH = 1;
const LEAST_DEPTH_EM = 0.05;
/** As deep lines that are turned have to reach into one another, CSS px: their corners are less exact. */
const LEAST_ASKEW = 2;
/** Side by side, letters may touch by kerning, italics and rounding, CSS px. */
const LEAST_WIDTH = 3;

/** Text lies on text. How it measures, what it leaves alone and how to repair: docs/rules/text-overlap.md. */
export const textOverlap: Rule = {
  meta: { name: 'text-overlap', family: 'overlap', severity: 'error', summary: 'text lies on text' },
  check(render) {
    const scene = sceneOf(render.view);
    const texts = scene.inks.filter((ink) => ink.kind === 'text' && ink.shown);
    const pairs: Pair[] = [];
    for (const ink of texts) {
      for (const other of scene.textsAfter(ink, SQUEEZED_EM * emOf(scene.view, ink.line))) {
        const pair = pairOf(scene, ink, other);
        if (pair) pairs.push(pair);
      }
    }
    return [
      ...byCulprit(scene.view, pairs).map((group) => sighting(scene, render, group)),
      ...squeezedLetters(scene, render),
      ...passingWords(scene, render, 'through'),
      ...passingInScrollers(scene, render),
    ];
  },
  doubts: ({ view }) => passingDoubts(view, 'through'),
};

function pairOf(scene: Scene, a: Ink, b: Ink): Pair | null {
  const touching = intersect(a.shown!, b.shown!);
  const common =
    touching && isOverprinted(scene, a, b, touching)
      ? touching
      : (squeezed(scene, a, b) ?? (touching && descending(scene, a, b)));
  if (!common || !scene.isOnPage(common, a.node) || areApart(scene.view, a, b, LEAST_ASKEW)) return null;
  if (arePieces(scene.view, a, b)) return null;
  for (const ink of [a, b]) {
    if (isDecoration(scene, ink.node) || reachesIntoNextLine(scene.view, ink, common)) return null;
  }
  // A row of signs on another one shows how many of them count.
  const signs = [a, b].filter((ink) => isSymbols(scene.view, ink));
  if (signs.length > 1 || signs.some((ink) => !isRowOfSigns(scene.view, ink))) return null;
  if (isEcho(scene.view, a, b) || areBesideRuby(scene.view, a, b)) return null;
  const [upper, lower] = stacked(a, b);
  if (isFreedInScroller(scene.view, lower.node, common, upper.node, upper.shown!)) return null;
  if (isSeparated(scene, upper, lower, common) || isPassing(scene, upper, lower)) return null;
  if (isWatermarkUnder(scene, lower, upper, common)) return null;
  return {
    upper,
    lower,
    common,
    culprit: linesOfOne(scene.view, a, b) ?? overlapCulprit(scene, upper, lower, common),
  };
}

/** Lines so near to one another are one, CSS px. */
const ONE_LINE = 2;

/** The lines of one text collide from above, or from column to column; else, side by side, they are one line in pieces, unless no line has a height. */
function arePieces(view: SnapshotView, a: Ink, b: Ink): boolean {
  const across = acrossLines(view, a.node);
  if (a.node !== b.node || Math.abs(a.full[across] - b.full[across]) >= ONE_LINE) return false;
  if (Number.parseFloat(view.style(a.node, 'line-height')) < ONE_LINE) return false;
  // In columns a text goes down and comes up again.
  const [first, last] = [Math.min(a.line, b.line), Math.max(a.line, b.line)];
  const between = view.linesOf(a.node).filter((line) => line > first && line < last);
  return !between.some((line) => view.lineBox(line)[across] > a.full[across] + ONE_LINE);
}

/** The block of which both are lines, words of a link among them; undefined where they are texts of two. */
function linesOfOne(view: SnapshotView, a: Ink, b: Ink): NodeIndex | undefined {
  const block = blockAround(view, a.node);
  const isInLine = (from: NodeIndex) => {
    for (let at = from; at !== block; at = view.parent(at))
      if (displacementOf(view, at) !== null) return false;
    return true;
  };
  const isOne = blockAround(view, b.node) === block && isInLine(a.node) && isInLine(b.node);
  if (isOne) return block;
  return a.node === b.node ? a.node : undefined;
}

/** Whether two texts share so much of their lines that letters lie on letters. */
function isOverprinted({ view }: Scene, a: Ink, b: Ink, common: Rect): boolean {
  const along = acrossLines(view, a.node) === 'y' ? 'x' : 'y';
  if (sizeAlong(common, along) < LEAST_WIDTH) return false;
  const shares = [a, b].map((ink) => {
    const across = acrossLines(view, ink.node);
    return sizeAlong(common, across) / sizeAlong(ink.full, across);
  });
  if (blockAround(view, a.node) === blockAround(view, b.node)) return Math.max(...shares) >= OVERLAP_SHARE;
  const em = Math.max(emOf(view, a.line), emOf(view, b.line));
  const depth = sizeAlong(common, acrossLines(view, a.node));
  return Math.max(...shares) >= OVERLAP_SHARE_OF_TWO && depth >= Math.max(LEAST_DEPTH, LEAST_DEPTH_EM * em);
}

/** Of a line between two lines of another text, so much has to be in each of them, em. */
const SQUEEZED_EM = 0.12;

/**
 * Where two texts meet, descenders included, of which one stands between two lines of the other and reaches into both; null
 * where neither does.
 */
function squeezed({ view }: Scene, a: Ink, b: Ink): Rect | null {
  if (blockAround(view, a.node) === blockAround(view, b.node) || isVertical(view, a.node)) return null;
  const isBetween = (ink: Ink, node: NodeIndex) => {
    const letters = lettersOf(view, ink.line);
    const met = view.linesOf(node).flatMap((line) => {
      const common = intersect(lettersOf(view, line), letters);
      const isIn =
        common && common.width >= LEAST_WIDTH && common.height >= SQUEEZED_EM * emOf(view, ink.line);
      return isIn ? [lettersOf(view, line).y < letters.y] : [];
    });
    return met.includes(true) && met.includes(false);
  };
  if (!isBetween(a, b.node) && !isBetween(b, a.node)) return null;
  return whereSeen(intersect(lettersOf(view, a.line), lettersOf(view, b.line)), a, b);
}

/** Letters reach above and below what is known of a line as shown, but not past its ends where it is cut off. */
function whereSeen(common: Rect | null, a: Ink, b: Ink): Rect | null {
  const seen = (rect: Rect | null, { shown }: Ink) =>
    rect && intersect(rect, { ...rect, x: shown!.x, width: shown!.width });
  const both = seen(seen(common, a), b);
  return both && both.width >= LEAST_WIDTH ? both : null;
}

/** Descenders that reach so far into the capitals of another text, em, lie on its letters. */
const DESCENT_EM = 0.15;

/** Where two texts meet of which the one stands on the heads of the other's letters, so that its descenders are in them; null where they do not. */
function descending({ view }: Scene, a: Ink, b: Ink): Rect | null {
  if (blockAround(view, a.node) === blockAround(view, b.node) || isVertical(view, a.node)) return null;
  const [above, below] = a.full.y < b.full.y ? [a, b] : [b, a];
  if (!hasDescenders(view, above.line)) return null;
  const common = whereSeen(intersect(lettersOf(view, above.line), inkOf(view, below.line)), a, b);
  return common && common.height >= DESCENT_EM * emOf(view, above.line) ? common : null;
}

/** Something opaque lies between them: then one is hidden, not overprinted. */
function isSeparated(scene: Scene, upper: Ink, lower: Ink, common: Rect): boolean {
  return scene
    .coversIn(common)
    .some(
      (cover) =>
        cover.rank > lower.rank && cover.rank <= upper.rank && !scene.contains(cover.node, lower.node),
    );
}

/** One of them stays on the screen while the other scrolls by, and comes free. */
function isPassing(scene: Scene, upper: Ink, lower: Ink): boolean {
  const { view } = scene;
  const [fixedUpper, fixedLower] = [fixedRoot(view, upper.node), fixedRoot(view, lower.node)];
  if (fixedUpper >= 0 !== fixedLower >= 0) {
    const [still, moving] = fixedUpper >= 0 ? [upper, lower] : [lower, upper];
    return isFreedByScrolling(view, moving.shown!, still.shown!);
  }
  return passOneAnother(view, upper.node, lower.node);
}

function sighting({ view }: Scene, render: RenderView, { entries, fault }: Culprits<Pair>): Sighting {
  const { upper, lower, common } = entries.reduce((a, b) => (area(b.common) > area(a.common) ? b : a));
  const depth = Math.max(...entries.map((pair) => pair.common.height));
  const what =
    linesOfOne(view, upper, lower) !== undefined
      ? `The lines of ${quoted(view, upper)} lie on one another by ${px(depth)}`
      : `${quoted(view, upper)} lies on ${quoted(view, lower)} by ${sizeText(common)}`;
  return {
    ...fault,
    ...takingPart(entries),
    shows: { lost: entries.map((pair) => pair.common) },
    by: { axis: 'y', px: depth },
    message: `${what}, ${onScreen(render)}.`,
  };
}
