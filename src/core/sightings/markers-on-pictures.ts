import { area, intersect } from '../geometry/rect.js';
import { isListMarker } from '../intent/bullets.js';
import type { Ink, Scene } from '../layout/scene.js';
import { FLAG_PICTURE } from '../layout/snapshot.js';
import type { NodeIndex } from '../layout/view.js';
import { byCulprit } from './by-culprit.js';
import type { RenderView, Sighting } from './sighting.js';
import { andMore, capital, nameOf, onScreen, shortName } from './words.js';

/** So much of a number or bullet lies on the picture. */
const LEAST_SHARE = 0.5;

/** Whether something floats that holds the one and not the other. */
function floatsBeside(scene: Scene, picture: NodeIndex, marker: NodeIndex): boolean {
  const { view } = scene;
  for (let at = picture; at > view.body && !scene.contains(at, marker); at = view.parent(at))
    if (view.style(at, 'float') !== 'none') return true;
  return false;
}

interface OnPicture {
  readonly culprit: NodeIndex;
  readonly ink: Ink;
  readonly picture: NodeIndex;
}

/**
 * The numbers and bullets of a list that lie on a picture beside it: they stand outside of their items, of which a picture that floats pushes the
 * words aside alone (CSS 2.2, section 9.5).
 */
export function markersOnPictures(scene: Scene, render: RenderView): Sighting[] {
  const { view } = scene;
  const found = scene.inks.flatMap((ink): OnPicture[] => {
    if (!ink.shown || !isListMarker(view, ink.node)) return [];
    const on = scene.inksIn(ink.shown).find((other) => {
      if (other.kind !== 'picture' || !view.has(other.node, FLAG_PICTURE)) return false;
      if (!floatsBeside(scene, other.node, ink.node)) return false;
      const common = intersect(ink.shown!, other.shown!);
      return common !== null && area(common) >= LEAST_SHARE * area(ink.shown!);
    });
    return on ? [{ culprit: ink.node, ink, picture: on.node }] : [];
  });
  return byCulprit(view, found).map(({ entries, fault }) => {
    const [{ ink, picture }] = entries as [OnPicture];
    const { more, isMany } = andMore(entries.length - 1);
    return {
      ...fault,
      key: `marker ${fault.key}`,
      related: [...fault.related, picture],
      rect: ink.shown!,
      by: { axis: 'x', px: ink.shown!.width },
      severity: 'warning',
      message: `${capital(nameOf(view, ink))}${more} ${isMany ? 'lie' : 'lies'} on ${shortName(view, picture)}, ${onScreen(render)}.`,
    };
  });
}
