import { area, intersect, type Rect } from '../geometry/rect.js';
import { areOverlaidBySides, isEmblem, isLogo, isPartOfPicture } from '../intent/emblems.js';
import { isMark } from '../intent/overlays.js';
import type { Cover, Ink, Scene } from '../layout/scene.js';
import { FLAG_PICTURE, FLAG_PLAYER } from '../layout/snapshot.js';

/** Of a picture that has to be seen whole, so much has to be hidden; of a logo less, since on others something may be stuck. */
const LEAST_SHARE = 0.3;
const LEAST_LOGO_SHARE = 0.08;
/** Of a picture, what another one in its place hides. */
const IN_PLACE = 0.9;
/** The keys of a player stand along its foot, CSS px; of these so much has to be hidden. */
const KEYS_HEIGHT = 40;
const LEAST_OF_KEYS = 0.3;

/**
 * Whether something hides the keys of a player, or too much of a picture that has to be seen whole, and is no part of that picture nor another
 * one in its place.
 */
export function hidesPicture(scene: Scene, { node, full, shown }: Ink, cover: Cover): boolean {
  const { view } = scene;
  if (view.has(node, FLAG_PLAYER)) return hidesKeys(full, cover);
  if (!isEmblem(view, node) || isMark(cover) || isPartOfPicture(scene, node, cover.node)) return false;
  if (areOverlaidBySides(scene, node, cover.node)) return false;
  const all = area(full);
  const common = intersect(cover.rect, full);
  if (!common || (view.has(cover.node, FLAG_PICTURE) && area(common) >= IN_PLACE * all)) return false;
  const seen = intersect(cover.rect, shown!);
  return seen !== null && area(seen) >= (isLogo(view, node) ? LEAST_LOGO_SHARE : LEAST_SHARE) * all;
}

function hidesKeys(player: Rect, cover: Cover): boolean {
  const height = Math.min(KEYS_HEIGHT, player.height);
  const keys = { ...player, y: player.y + player.height - height, height };
  const common = intersect(cover.rect, keys);
  return common !== null && area(common) >= LEAST_OF_KEYS * area(keys);
}
