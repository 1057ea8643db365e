import { contrastOf, READ, UNSEEN } from '../css/colours.js';
import { area, intersect, type Rect } from '../geometry/rect.js';
import { isDecoration } from '../intent/decoration.js';
import { isSymbols } from '../intent/typography.js';
import { displacedRoot } from '../layout/branches.js';
import { groundColour, groundOf } from '../layout/grounds.js';
import { colourOfWords } from '../layout/letters.js';
import type { Ink, Scene } from '../layout/scene.js';
import { stayingRoot } from '../layout/viewport-layer.js';
import type { NodeIndex } from '../layout/view.js';
import { byCulprit } from './by-culprit.js';
import { contrastUnder } from '../layout/contrast.js';
import { andMore, capital, nameOf, onScreen, shortName } from './words.js';
import type { RenderView, Sighting } from './sighting.js';

/** So much of the words has left the ground. */
const LEAST_SHARE = 0.5;

interface Lost {
  readonly culprit: NodeIndex;
  readonly ground: NodeIndex;
  readonly ink: Ink;
  readonly shown: Rect;
}

/**
 * Words that were moved off the ground on which they can be read, and have the colour of what they came to lie on: white on white.
 * @param told the inks of which something is told already
 */
export function outOfGround(scene: Scene, render: RenderView, told: ReadonlySet<Ink>): Sighting[] {
  const { view } = scene;
  const found = scene.inks.flatMap((ink): Lost[] => {
    if (!ink.shown || told.has(ink) || !isUnseen(scene, ink)) return [];
    if (stayingRoot(view, ink.node) >= 0 || isDecoration(scene, ink.node) || isSymbols(view, ink)) return [];
    const ground = groundOf(view, ink.node);
    const moved = displacedRoot(scene, ink.node, ground);
    return [{ culprit: moved >= 0 ? moved : ink.node, ground, ink, shown: ink.shown }];
  });
  return byCulprit(view, found).map(({ entries, fault }) => {
    const [{ ink, ground, shown }] = entries as [Lost];
    const { more, isMany } = andMore(entries.length - 1);
    return {
      ...fault,
      key: `ground ${fault.key}`,
      affected: entries.map((entry) => entry.ink.node),
      rect: shown,
      by: { axis: 'y', px: shown.height },
      shows: { lost: entries.map((entry) => entry.shown) },
      severity: 'error',
      message: `${capital(nameOf(view, ink))}${more} ${isMany ? 'have' : 'has'} left the ground of ${shortName(view, ground)} and can't be seen on what ${isMany ? 'they lie' : 'it lies'} on, ${onScreen(render)}.`,
    };
  });
}

/** Whether an ink is words of which most are outside of their ground, on the colour that they have themselves. */
export function isUnseen(scene: Scene, ink: Ink): boolean {
  const { view } = scene;
  const { shown } = ink;
  const ground = ink.kind === 'text' ? groundOf(view, ink.node) : -1;
  if (ground < 0 || !shown) return false;
  const box = view.box(ground);
  const within = intersect(shown, box);
  if (within && area(within) > (1 - LEAST_SHARE) * area(shown)) return false;
  const own = groundColour(view, ground);
  if (own === null || !scene.isOnPage(shown, ink.node)) return false;
  const colour = colourOfWords(view, ink.node);
  if (colour === null || !(contrastOf(colour, own) >= READ)) return false;
  return contrastUnder(scene, ink, shown) < UNSEEN;
}
