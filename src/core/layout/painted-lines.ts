import type { Cover, Ink, Scene } from './scene.js';
import { isInlineText } from './displays.js';
import { isVertical } from './text-ink.js';

/**
 * Whether the ground of something that runs in lines is painted over a line of the same text: lines are painted one after another
 * (CSS 2.1, appendix E, 7.2.1), so it lies on the lines before its own and under those after it.
 */
export function isOnLineBefore({ view }: Scene, ink: Ink, cover: Cover): boolean {
  if (ink.kind !== 'text' || !isInlineText(view, cover.node) || isVertical(view, ink.node)) return false;
  const line = ink.full;
  return line.y + line.height < cover.rect.y + cover.rect.height / 2;
}

/** The lines of what runs in lines and has a ground, with the parts of that ground that are painted after them. */
export function linesUnderOwnGround(scene: Scene): { readonly ink: Ink; readonly cover: Cover }[] {
  const grounds = scene.covers.filter(({ node }) => isInlineText(scene.view, node));
  return grounds.flatMap((cover) =>
    scene
      .inksIn(cover.rect)
      .filter((ink) => scene.contains(cover.node, ink.node) && isOnLineBefore(scene, ink, cover))
      .map((ink) => ({ ink, cover })),
  );
}
