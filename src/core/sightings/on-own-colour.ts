import { contrastOf, READ, UNSEEN } from '../css/colours.js';
import { remembered } from '../css/remembered.js';
import { intersect, type Rect } from '../geometry/rect.js';
import { displacedRoot } from '../layout/branches.js';
import { isOutOfFlow } from '../layout/displace.js';
import { groundColour } from '../layout/grounds.js';
import { colourOfWords } from '../layout/letters.js';
import { perSnapshot } from '../layout/memo.js';
import { sceneOf, type Cover, type Ink, type Scene } from '../layout/scene.js';
import type { Doubt } from './doubt.js';
import type { RenderView, Sighting } from './sighting.js';
import { contrastUnder } from '../layout/contrast.js';
import { contrastOnGround, isMissed, lostIn, tellUnseen, unreadDoubt, type Lost } from './unseen-words.js';
import { onScreen, shortName } from './words.js';

/** Words that can be read on their own ground and have come to lie on something of their own colour, which does not hold them: dark on dark. */
export function onOwnColour({ view }: Scene, render: RenderView): Sighting[] {
  return tellUnseen(
    view,
    lostOn(view),
    'colour',
    ({ area }) => ({ axis: 'x', px: area.width }),
    ({ layer }, isMany) =>
      `${isMany ? 'lie' : 'lies'} on ${shortName(view, layer)}, which has ${isMany ? 'their' : 'its'} colour, and can't be seen there, ${onScreen(render)}`,
  );
}

export function ownColourDoubts({ view }: RenderView): Doubt[] {
  return lostOn(view).map(unreadDoubt);
}

/** Less of a line is a letter's edge, CSS px. */
const LEAST_ACROSS = 6;
/** Less of its height is the edge of a line. */
const LEAST_DOWN = 0.5;

const lostOn = perSnapshot((view): readonly Lost[] => {
  const scene = sceneOf(view);
  const wordColours = new Set(
    scene.inks.map(({ kind, node }) => (kind === 'text' ? colourOfWords(view, node) : null)),
  );
  const isOfWords = remembered((colour) =>
    [...wordColours].some((words) => words !== null && contrastOf(words, colour) < UNSEEN),
  );
  return scene.covers.flatMap((cover) => {
    if (cover.scrolled !== undefined) return [];
    const colour = groundColour(view, cover.node);
    if (colour !== null && !isOfWords(colour)) return [];
    return scene.inksIn(cover.rect).flatMap((ink): Lost[] => {
      const area = colour === null ? partOnPicture(scene, ink, cover) : unseenPart(scene, ink, cover, colour);
      return area ? [lostIn(scene, ink, area, cover.node)] : [];
    });
  });
});

/** What of an ink lies on a box that has its colour; null where nothing to speak of does, or it can't be read on its own ground either. */
function unseenPart(scene: Scene, ink: Ink, cover: Cover, colour: string): Rect | null {
  const words = ink.kind === 'text' ? colourOfWords(scene.view, ink.node) : null;
  if (words === null || !(contrastOf(words, colour) < UNSEEN)) return null;
  const area = partOn(scene, ink, cover);
  return area && contrastUnder(scene, ink, area) < UNSEEN ? area : null;
}

/** What of an ink a margin or an offset has drawn onto a picture: what colour that has there pixels alone know. What is placed on one is a caption. */
function partOnPicture(scene: Scene, ink: Ink, cover: Cover): Rect | null {
  const area = partOn(scene, ink, cover);
  const moved = area ? displacedRoot(scene, ink.node, cover.node) : -1;
  return moved >= 0 && !isOutOfFlow(scene.view, moved) ? area : null;
}

/** What of words that are read on their own ground lies on something else; null where nothing to speak of does. */
function partOn(scene: Scene, ink: Ink, cover: Cover): Rect | null {
  if (ink.rank <= cover.rank || scene.contains(cover.node, ink.node)) return null;
  const area = intersect(ink.shown!, cover.rect);
  if (!area || area.width < LEAST_ACROSS || area.height < LEAST_DOWN * ink.shown!.height) return null;
  return (contrastOnGround(scene, ink) ?? 0) >= READ && isMissed(scene, ink) ? area : null;
}
