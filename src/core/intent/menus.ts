import { controlAround } from '../layout/ancestors.js';
import { perSnapshot } from '../layout/memo.js';
import { sceneOf, type Scene } from '../layout/scene.js';
import { FLAG_CONTROL } from '../layout/snapshot.js';
import type { NodeIndex } from '../layout/view.js';

const LEAST_ENTRIES = 3;
/** Higher ones are cards, CSS px. */
const MOST_HEIGHT = 96;

/** The controls of every menu that lies in a row: three or more items beside one another that hold a control and nothing else. */
export function menuEntriesOf({ view }: Scene): NodeIndex[][] {
  return menus(view);
}

const menus = perSnapshot((view): NodeIndex[][] => {
  const scene = sceneOf(view);
  const found: NodeIndex[][] = [];
  for (let i = 0; i < view.count; i++) {
    const items = view.childrenOf(i);
    if (items.length < LEAST_ENTRIES || controlAround(view, i) >= 0) continue;
    const entries = items.map((item) => onlyControl(scene, item)).filter((control) => control >= 0);
    if (entries.length >= LEAST_ENTRIES && entries.length >= 0.6 * items.length && isRow(scene, entries))
      found.push(entries);
  }
  return found;
});

/** The control of an item that holds no words beside it; −1 where there is none. */
function onlyControl(scene: Scene, item: NodeIndex): NodeIndex {
  const { view } = scene;
  if (!scene.painted[item] || view.box(item).height > MOST_HEIGHT) return -1;
  let control = -1;
  for (let at = item; at <= scene.lastOf(item); at++) {
    if (view.has(at, FLAG_CONTROL) && scene.painted[at]) {
      if (control >= 0 && !scene.contains(control, at)) return -1;
      if (control < 0) control = at;
    } else if (view.linesOf(at).length > 0 && (control < 0 || !scene.contains(control, at))) return -1;
  }
  return control;
}

function isRow({ view }: Scene, entries: readonly NodeIndex[]): boolean {
  const boxes = entries.map((entry) => view.box(entry));
  return boxes.every((box, at) => {
    const next = boxes[at + 1];
    if (!next) return true;
    const isBeside = next.x >= box.x + box.width - 2 || box.x >= next.x + next.width - 2;
    return isBeside && next.y < box.y + box.height && box.y < next.y + next.height;
  });
}
