import { coloursIn, contrastOf, READ, UNSEEN } from '../css/colours.js';
import { colourBehind, groundOf } from '../layout/grounds.js';
import { colourOfWords } from '../layout/letters.js';
import { perSnapshot } from '../layout/memo.js';
import { hasBackgroundImage, isGradientAllOver } from '../layout/paint.js';
import { sceneOf, type Ink, type Scene } from '../layout/scene.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { lookAt, type Doubt } from './doubt.js';
import type { RenderView, Sighting } from './sighting.js';
import { isMissed, tellUnseen, unreadDoubt, type Lost } from './unseen-words.js';
import { onScreen, shortName } from './words.js';

/** So much of the letters of a line can be made out at the least where its ground is read on. */
const LEAST_READ = 0.5;
/** So much of a line that is read for the rest is missed: a picture ends, or grows light, along it. */
const LEAST_LOST = 0.3;

/**
 * Words that are read on the picture or gradient in the ground of what holds them, and go on where that has ended or has their own colour: a
 * photo as wide as the screen, and so too low on a phone.
 */
export function pastOwnPictures({ view }: Scene, render: RenderView): Sighting[] {
  const read = readIn(view);
  return tellUnseen(
    view,
    onPictures(view).filter(({ layer }) => read.has(layer)),
    'picture',
    ({ area }) => ({ axis: 'y', px: area.height }),
    ({ layer }, isMany) =>
      `${isMany ? 'lie' : 'lies'} where the picture behind ${shortName(view, layer)} has ended or has ${isMany ? 'their' : 'its'} colour, and can't be seen, ${onScreen(render)}`,
    LEAST_LOST,
  );
}

export function pictureDoubts({ view }: RenderView): Doubt[] {
  return onPictures(view).map(unreadDoubt);
}

const onPictures = perSnapshot((view): readonly Lost[] => {
  const scene = sceneOf(view);
  return scene.inks.flatMap((ink): Lost[] => {
    if (ink.kind !== 'text' || !ink.shown) return [];
    const ground = groundOf(view, ink.node);
    if (ground < 0 || !mayEndUnder(view, ground, ink) || !isMissed(scene, ink)) return [];
    return [{ ink, area: ink.shown, layer: ground, culprit: ground }];
  });
});

/** The grounds on which some words were seen to be read. */
function readIn(view: SnapshotView): ReadonlySet<NodeIndex> {
  const read = onPictures(view).filter((one) => {
    const look = lookAt(view, unreadDoubt(one));
    return look !== undefined && look.ink - look.hidden >= LEAST_READ * look.ink;
  });
  return new Set(read.map(({ layer }) => layer));
}

/** Whether a ground may leave words in the colour that lies under it, or has that itself at one end. */
function mayEndUnder(view: SnapshotView, ground: NodeIndex, { node }: Ink): boolean {
  if (!hasBackgroundImage(view, ground)) return false;
  const colour = colourOfWords(view, node);
  if (colour === null) return false;
  const image = view.style(ground, 'background-image');
  const stands = (other: string) => contrastOf(colour, other);
  const isPicture = image.includes('url(');
  const stops = isPicture ? [] : coloursIn(image).map(stands);
  if (!isPicture && !stops.some((contrast) => contrast >= READ)) return false;
  const isLostAt = (contrast: number) => contrast < UNSEEN;
  const endsInside = !fills(view, ground);
  return (
    (endsInside && isLostAt(stands(colourBehind(view, ground) ?? 'transparent'))) || stops.some(isLostAt)
  );
}

/** Whether the picture of a ground is as large as the ground. */
function fills(view: SnapshotView, ground: NodeIndex): boolean {
  return /cover|100% 100%/.test(view.style(ground, 'background-size')) || isGradientAllOver(view, ground);
}
