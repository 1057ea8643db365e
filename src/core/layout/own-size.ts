import { perStyle } from './memo.js';
import type { NodeIndex, SnapshotView } from './view.js';

const LENGTH = /^[\d.]+(?!%)[a-z]+$/;

/** A width or least width that is a length: it holds whatever the container. Percentages don't. */
export function hasOwnWidth(view: SnapshotView, i: NodeIndex): boolean {
  const isLength = (value: string) => LENGTH.test(value) && Number.parseFloat(value) > 0;
  const box = view.box(i);
  const nearly = (value: string) => isLength(value) && Number.parseFloat(value) >= 0.5 * box.width;
  return isLength(view.style(i, 'width')) || nearly(view.style(i, 'min-width'));
}

/** A grid whose columns are lengths, all of them: they hold whatever the container and its items. */
export const hasOwnColumns = perStyle((view, i) => {
  if (!view.style(i, 'display').endsWith('grid')) return false;
  const written = view.style(i, 'grid-template-columns').replace(/repeat\(\d+, |\)|\[[^\]]*\]/g, ' ');
  const tracks = written.split(' ').filter((track) => track !== '');
  return tracks.length > 0 && tracks.every((track) => LENGTH.test(track) && !track.endsWith('fr'));
});

/** The element that sets the height of one that is as high as what it stands in, as long as that is too low as well. */
export function heightFrom(
  view: SnapshotView,
  i: NodeIndex,
  isTooLow: (at: NodeIndex) => boolean,
): NodeIndex {
  let found = i;
  while (view.style(found, 'height').includes('%')) {
    const around = view.containingElement(found);
    if (around < 0 || !isTooLow(around)) return found;
    found = around;
  }
  return found;
}
