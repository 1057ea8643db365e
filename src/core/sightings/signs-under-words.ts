import { area, intersect } from '../geometry/rect.js';
import { isDecoration } from '../intent/decoration.js';
import { isSymbols } from '../intent/typography.js';
import { isWatermarkUnder } from '../intent/watermark.js';
import { blockAround, controlAround } from '../layout/ancestors.js';
import { displacedRoot } from '../layout/branches.js';
import { outermostLifted } from '../layout/displace.js';
import { perSnapshot, perStyle } from '../layout/memo.js';
import { sceneOf, type Ink, type Scene } from '../layout/scene.js';
import { FLAG_CONTROL } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { overlapCulprit } from './culprit.js';
import { stayingRoot } from '../layout/viewport-layer.js';
import { isLogo, isPartOfPicture } from '../intent/emblems.js';
import { byCulprit } from './by-culprit.js';
import { hiddenInk, type Doubt } from './doubt.js';
import { isSmallPicture } from './marks-on-words.js';
import type { RenderView, Sighting } from './sighting.js';
import { andMore, capital, nameOf, onScreen, shortName } from './words.js';

/** Room beside words that is kept for a sign, CSS px: less holds none. */
const ROOM = 20;
/** A sign fills less of the place of the words than a ground does. */
const MOST_OF_PLACE = 0.5;
/** A larger one is a picture, CSS px². */
const MOST_SIGN = 600;
/** Signs stand beside so many lines of words; what more of them stand on is a picture. */
const MOST_LINES = 4;
/** Of the sign, or of a logo, which may be all of one colour, letters lie on so much: they fill a quarter of their own place. */
const LEAST_SHARE = 0.08;

/** Words, and a sign under them: one that their own ground draws, a small picture, or one from a font. */
interface SignUnderWords {
  readonly ink: Ink;
  readonly culprit: NodeIndex;
  readonly doubt: Doubt;
}

/**
 * Words that may stand on a sign: on one drawn as a picture in their own ground, where no room beside them is kept for it, or, in a control,
 * on a small picture that lies under them. Where in a box its ground is drawn, and how much of it is clear, pixels tell.
 */
const pairsOf = perSnapshot((view): readonly SignUnderWords[] =>
  [...onOwnSigns(view), ...onPictures(view), ...onSignsOfType(view)].sort(
    (a, b) => a.ink.index - b.ink.index,
  ),
);

function areWords(scene: Scene, ink: Ink): boolean {
  return ink.kind === 'text' && !isDecoration(scene, ink.node) && !isSymbols(scene.view, ink);
}

function onOwnSigns(view: SnapshotView): SignUnderWords[] {
  const scene = sceneOf(view);
  return scene.inks.flatMap((ink): SignUnderWords | [] => {
    if (ink.kind !== 'text' || !ink.shown) return [];
    const control = controlAround(view, ink.node);
    const ground = control >= 0 ? control : blockAround(view, ink.node);
    const mayBe = control < 0 ? isShort(view, ground) : control === ink.node;
    if (!mayBe || !drawsSign(view, ground) || keepsRoom(view, ground) || !areWords(scene, ink)) return [];
    const doubt = { cover: ink.node, under: ground, area: ink.shown, byWords: true, sign: 'ground' as const };
    return { ink, culprit: ground, doubt };
  });
}

function onPictures(view: SnapshotView): SignUnderWords[] {
  const scene = sceneOf(view);
  const pictures = scene.inks.filter((ink) => ink.kind === 'picture' && !view.has(ink.node, FLAG_CONTROL));
  return pictures.flatMap((below) =>
    (below.shown ? scene.inksIn(below.shown) : []).flatMap((ink): SignUnderWords | [] => {
      if (below.rank >= ink.rank || !areWords(scene, ink)) return [];
      const control = controlAround(view, ink.node);
      const isOwn = control >= 0 && scene.contains(control, below.node);
      const isSmall = control >= 0 && isSmallPicture(view, below.node);
      if (isOwn || !(isSmall || isOnLogo(scene, ink, below.node))) return [];
      const common = intersect(below.shown!, ink.shown!);
      if (!common) return [];
      const culprit = isSmall ? below.node : overlapCulprit(scene, ink, below, common);
      const doubt = {
        cover: ink.node,
        under: below.node,
        area: common,
        byWords: true,
        sign: 'picture' as const,
      };
      return { ink, culprit, doubt };
    }),
  );
}

/** Signs from a font that stand in the flow, and words that were moved onto them. */
function onSignsOfType(view: SnapshotView): SignUnderWords[] {
  const scene = sceneOf(view);
  return scene.inks.flatMap((sign): SignUnderWords | SignUnderWords[] => {
    if (sign.kind !== 'text' || !sign.shown || !isSymbols(view, sign)) return [];
    // What was put where it is may be set behind words on purpose.
    if (outermostLifted(view, sign.node) < Infinity) return [];
    return scene.inksIn(sign.shown).flatMap((ink): SignUnderWords | [] => {
      if (sign.rank >= ink.rank || !areWords(scene, ink) || displacedRoot(scene, ink.node, sign.node) < 0)
        return [];
      const common = intersect(sign.shown!, ink.shown!);
      if (!common || isWatermarkUnder(scene, sign, ink, common)) return [];
      const culprit = overlapCulprit(scene, ink, sign, common);
      return { ink, culprit, doubt: { cover: ink.node, under: sign.node, area: common, byWords: true } };
    });
  });
}

export function signDoubts(view: SnapshotView): Doubt[] {
  return pairsOf(view).map(({ doubt }) => doubt);
}

export function signsUnderWords({ view }: Scene, render: RenderView): Sighting[] {
  const seen = pairsOf(view).filter((pair) => isOnSign(view, pair));
  return byCulprit(view, seen).map(({ entries, fault }) => {
    const [{ ink, doubt }] = entries as [SignUnderWords];
    const { more, isMany } = andMore(new Set(entries.map((entry) => entry.ink)).size - 1);
    const sign =
      doubt.sign === 'ground'
        ? `the sign in ${isMany ? 'their' : 'its'} own ground`
        : `${doubt.sign ? '' : 'the sign of '}${shortName(view, doubt.under)}`;
    return {
      ...fault,
      key: `sign ${fault.key}`,
      affected: entries.map((entry) => entry.ink.node),
      rect: view.box(fault.node),
      by: null,
      shows: { lost: entries.map((entry) => entry.doubt.area) },
      message: `${capital(nameOf(view, ink))}${more} ${isMany ? 'lie' : 'lies'} on ${sign}, ${onScreen(render)}.`,
    };
  });
}

/** Whether a look has shown letters on the sign. */
function isOnSign(view: SnapshotView, { doubt }: SignUnderWords): boolean {
  const most = isLogo(view, doubt.under) ? Infinity : Math.min(MOST_SIGN, MOST_OF_PLACE * area(doubt.area));
  const hidden = hiddenInk(view, doubt, LEAST_SHARE, most);
  return hidden !== null && hidden > 0;
}

/** A picture in the ground that does not fill it. */
const drawsSign = perStyle(
  (view, i) =>
    /^url\(/.test(view.style(i, 'background-image')) &&
    !/cover|contain|100%/.test(view.style(i, 'background-size')),
);

/** Whether an element has few lines of words of its own. */
function isShort(view: SnapshotView, i: NodeIndex): boolean {
  return view.linesOf(i).length > 0 && view.linesOf(i).length <= MOST_LINES;
}

function keepsRoom(view: SnapshotView, i: NodeIndex): boolean {
  const [box, content] = [view.box(i), view.contentBox(i)];
  const room = Math.max(content.x - box.x, box.x + box.width - content.x - content.width);
  return room >= ROOM;
}

/** Whether words lie on a logo or the like, and are no part of it. */
function isOnLogo(scene: Scene, ink: Ink, picture: NodeIndex): boolean {
  const { view } = scene;
  if (!isLogo(view, picture) || isDecoration(scene, picture) || isPartOfPicture(scene, picture, ink.node))
    return false;
  return stayingRoot(view, picture) === stayingRoot(view, ink.node);
}
