import type { Scene } from './scene.js';
import { FLAG_CONTROL } from './snapshot.js';
import type { NodeIndex } from './view.js';

/** Whether a control stands in an element, itself included, and in none of some parts of it. */
export function hasControl(scene: Scene, holder: NodeIndex, but: readonly NodeIndex[] = []): boolean {
  for (let at = holder; at <= scene.lastOf(holder); at++)
    if (scene.view.has(at, FLAG_CONTROL) && !but.some((part) => scene.contains(part, at))) return true;
  return false;
}
