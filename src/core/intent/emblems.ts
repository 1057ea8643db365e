import { area, intersect } from '../geometry/rect.js';
import { controlAround } from '../layout/ancestors.js';
import { commonAncestor } from '../layout/branches.js';
import { isOutOfFlow, pullsAside } from '../layout/displace.js';
import type { Scene } from '../layout/scene.js';
import { FLAG_ORNAMENT, FLAG_PICTURE } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** A larger picture is a ground, or one of several that are laid over one another, CSS px. */
const MOST_WIDTH = 280;
const MOST_HEIGHT = 160;
/** A smaller one is a sign. */
const LEAST_SIDE = 16;
/** Less makes up for a border, CSS px. */
const LEAST_PULL = 2;
/** Of what holds a picture and what lies on it, it fills so much where that is a part of it. */
const FILLED = 0.5;

/** A picture that is nothing without a part of it: a logo, a code to be read by a machine, a face. */
export function isEmblem(view: SnapshotView, i: NodeIndex): boolean {
  if (!view.has(i, FLAG_PICTURE)) return false;
  const { width, height } = view.box(i);
  if (Math.min(width, height) < LEAST_SIDE || width > MOST_WIDTH || height > MOST_HEIGHT) return false;
  return !view.has(i, FLAG_ORNAMENT) || controlAround(view, i) >= 0;
}

/** A picture no higher than this is a logo, CSS px: others may be cropped, and things may be stuck on them. */
const LOGO_HEIGHT = 64;

export function isLogo(view: SnapshotView, i: NodeIndex): boolean {
  return isEmblem(view, i) && view.box(i).height <= LOGO_HEIGHT;
}

/** Whether what lies on a picture was laid there as a part of it, a caption or a badge: the picture fills what holds both. */
export function isPartOfPicture(scene: Scene, picture: NodeIndex, other: NodeIndex): boolean {
  const { view } = scene;
  const holder = view.box(commonAncestor(scene, picture, other));
  const filled = intersect(view.box(picture), holder);
  return filled !== null && area(filled) >= FILLED * area(holder);
}

/** Whether one of two that stand beside one another was pulled over the other by a margin, or both were placed, as faces in a pile are. */
export function areOverlaidBySides({ view }: Scene, a: NodeIndex, b: NodeIndex): boolean {
  if (view.parent(a) !== view.parent(b)) return false;
  if ([a, b].some((i) => pullsAside(view, i) >= LEAST_PULL)) return true;
  const [one, other] = [view.box(a), view.box(b)];
  const areAlike = view.tag(a) === view.tag(b) && one.width === other.width && one.height === other.height;
  return areAlike && isOutOfFlow(view, a) && isOutOfFlow(view, b);
}
