import { isDecoration } from '../intent/decoration.js';
import { rastersOf, type Raster } from '../layout/pictures.js';
import { sceneOf } from '../layout/scene.js';
import type { RenderView } from './sighting.js';

/** The pictures with pixels that a visitor sees and that are no ornament. */
export function seenPictures({ view }: RenderView): Raster[] {
  const scene = sceneOf(view);
  return rastersOf(view).filter(({ node }) => scene.painted[node] && !isDecoration(scene, node));
}

/** How far a page is shown enlarged: its pictures then need as many pixels more. */
export function enlargement({ view }: RenderView): number {
  return Math.max(1, view.snapshot.viewport.scale);
}
