import type { Scene } from './scene.js';
import { isOutOfFlow } from './displace.js';
import type { NodeIndex } from './view.js';

/** Smaller ones are dots and bullets, CSS px. */
const LEAST_SIZE = 16;

/**
 * The items of a container by the rows that they stand in, from the top down; empty where they are not alike, or can not
 * stand beside one another. Alike are items of one tag that share their first class.
 */
export function rowOfItems(scene: Scene, container: NodeIndex): NodeIndex[][] {
  const { view } = scene;
  const children = view.childrenOf(container);
  if (children.length < 3 || !children.some((child) => isLaidInRows(scene, container, child))) return [];
  const items = children.filter((item) => {
    const { width, height } = view.box(item);
    const isInFlow = !isOutOfFlow(view, item);
    return (
      scene.painted[item] && view.isElement(item) && isInFlow && width >= LEAST_SIZE && height >= LEAST_SIZE
    );
  });
  const [first] = items;
  if (items.length < 3 || first === undefined) return [];
  const alike = (item: NodeIndex) =>
    view.tag(item) === view.tag(first) && view.classes(item)[0] === view.classes(first)[0];
  if (!items.every(alike) || !isLaidInRows(scene, container, first)) return [];
  const rows: { bottom: number; items: NodeIndex[] }[] = [];
  for (const item of items) {
    const { y, height } = view.box(item);
    const last = rows.at(-1);
    if (last && y < last.bottom - 1) {
      last.items.push(item);
      last.bottom = Math.max(last.bottom, y + height);
    } else rows.push({ bottom: y + height, items: [item] });
  }
  return rows.map((row) => row.items);
}

function isLaidInRows({ view }: Scene, container: NodeIndex, item: NodeIndex): boolean {
  const display = view.style(container, 'display');
  if (/grid/.test(display)) return true;
  if (/flex/.test(display))
    return (
      view.style(container, 'flex-wrap') !== 'nowrap' && /^row/.test(view.style(container, 'flex-direction'))
    );
  return view.style(item, 'float') !== 'none' || /^inline-/.test(view.style(item, 'display'));
}
