import type { Cover, Ink, Scene } from './scene.js';
import { isInline } from './displays.js';
import { FLAG_REPLACED } from './snapshot.js';
import { isVertical } from './text-ink.js';
import type { NodeIndex, SnapshotView } from './view.js';

/**
 * Whether the ground of something that runs in lines is painted over a line of the same text: lines are painted one after another
 * (CSS 2.1, appendix E, 7.2.1), so it lies on the lines before its own and under those after it.
 */
export function isOnLineBefore({ view }: Scene, ink: Ink, cover: Cover): boolean {
  if (ink.kind !== 'text' || !runsInLines(view, cover.node) || isVertical(view, ink.node)) return false;
  const line = ink.full;
  return line.y + line.height < cover.rect.y + cover.rect.height / 2;
}

/** A picture or a frame stands in a line as one. */
function runsInLines(view: SnapshotView, i: NodeIndex): boolean {
  return isInline(view, i) && !view.has(i, FLAG_REPLACED);
}

/** The lines of what runs in lines and has a ground, with the parts of that ground that are painted after them. */
export function linesUnderOwnGround(scene: Scene): { readonly ink: Ink; readonly cover: Cover }[] {
  const grounds = scene.covers.filter(({ node }) => runsInLines(scene.view, node));
  return grounds.flatMap((cover) =>
    scene
      .inksIn(cover.rect)
      .filter((ink) => scene.contains(cover.node, ink.node) && isOnLineBefore(scene, ink, cover))
      .map((ink) => ({ ink, cover })),
  );
}
