import { contrastOf } from '../css/colours.js';
import { union, type Rect } from '../geometry/rect.js';
import { isDecoration } from '../intent/decoration.js';
import { isSymbols } from '../intent/typography.js';
import { displacedRoot } from '../layout/branches.js';
import { displacementOf } from '../layout/displace.js';
import { colourAround } from '../layout/grounds.js';
import { colourOfWords } from '../layout/letters.js';
import { mainScrollerOf } from '../layout/main-scroller.js';
import type { Ink, Scene } from '../layout/scene.js';
import { nearestScrollerOf } from '../layout/scrollers.js';
import { isFixed, stickyRoot } from '../layout/viewport-layer.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { byCulprit } from './by-culprit.js';
import { hiddenInk, type Doubt } from './doubt.js';
import type { Sighting } from './sighting.js';
import { andMore, capital, nameOf } from './words.js';

/** So much of the letters in a spot can't be made out. */
const LEAST_SHARE = 0.8;

/** Words, or a part of them, that have the colour of what they lie on. */
export interface Lost {
  readonly ink: Ink;
  /** CSS px of the page. */
  readonly area: Rect;
  /** What they have left, or have come to lie on. */
  readonly layer: NodeIndex;
  readonly culprit: NodeIndex;
}

/** How far words stand out from the ground that what they stand in gives them; null where that is a picture, or they are no words that are missed. */
export function contrastOnGround({ view }: Scene, ink: Ink): number | null {
  if (ink.kind !== 'text' || !ink.shown) return null;
  const [own, colour] = [colourAround(view, ink.node), colourOfWords(view, ink.node)];
  return own === null || colour === null ? null : contrastOf(colour, own);
}

/** Whether an ink is words in the flow of the page, or of what scrolls in its place, that a reader would miss. */
export function isMissed(scene: Scene, ink: Ink): boolean {
  const { view } = scene;
  if (!ink.shown || !scene.isOnPage(ink.shown, ink.node)) return false;
  if (stickyRoot(view, ink.node) >= 0 || (isFixed(view, ink.node) && !isInMain(view, ink.node))) return false;
  return !isDecoration(scene, ink.node) && !isSymbols(view, ink);
}

/** Whether an element is scrolled with the part that an application scrolls in its page's place. */
function isInMain(view: SnapshotView, i: NodeIndex): boolean {
  const main = mainScrollerOf(view);
  return main >= 0 && nearestScrollerOf(view, i) === main;
}

/** At fault is what was put where it is: the words, or else the layer; the words where neither was. */
export function lostIn(scene: Scene, ink: Ink, area: Rect, layer: NodeIndex): Lost {
  const { view } = scene;
  const moved = displacedRoot(scene, ink.node, layer);
  const isPut = moved < 0 && displacementOf(view, layer) !== null;
  const of = view.isElement(layer) ? layer : view.parent(layer);
  return { ink, area, layer, culprit: moved >= 0 ? moved : isPut ? of : ink.node };
}

/** Boxes and colours propose: shadows, veils and blends may make such words readable all the same. */
export function unreadDoubt({ ink, area }: Lost): Doubt {
  return { cover: ink.node, under: ink.node, area, unread: true };
}

/**
 * What pixels agree on, one sighting for each element at fault.
 * @param says what becomes of so many words, of which it is given the first
 * @param leastShare so much of the letters of a line is lost at the least
 */
export function tellUnseen(
  view: SnapshotView,
  lost: readonly Lost[],
  key: string,
  by: (one: Lost) => { readonly axis: 'x' | 'y'; readonly px: number },
  says: (first: Lost, isMany: boolean) => string,
  leastShare = LEAST_SHARE,
): Sighting[] {
  const unread = lost.filter((one) => (hiddenInk(view, unreadDoubt(one), leastShare) ?? 0) > 0);
  return byCulprit(view, unread).map(({ entries, fault }) => {
    const [first] = entries as [Lost];
    const { more, isMany } = andMore(entries.length - 1);
    return {
      ...fault,
      key: `${key} ${fault.key}`,
      affected: entries.map(({ ink }) => ink.node),
      rect: entries.map(({ ink }) => ink.shown!).reduce(union),
      by: entries.map(by).reduce((a, b) => (b.px > a.px ? b : a)),
      shows: { lost: entries.map(({ area }) => area) },
      severity: 'error',
      message: `${capital(nameOf(view, first.ink))}${more} ${says(first, isMany)}.`,
    };
  });
}
