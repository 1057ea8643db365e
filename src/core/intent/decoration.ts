import { alphaOf } from '../layout/paint.js';
import type { Scene } from '../layout/scene.js';
import { FLAG_ARIA_HIDDEN, FLAG_TEXT } from '../layout/snapshot.js';
import type { NodeIndex } from '../layout/view.js';

/** Fainter than this is not meant to be read. */
const FAINT = 0.35;

/** Ornament: hidden from assistive technology, or too faint to be read. Nobody misses a part of it. */
export function isDecoration(scene: Scene, i: NodeIndex): boolean {
  const { view } = scene;
  if (view.has(i, FLAG_ARIA_HIDDEN) || scene.opacity[i]! < FAINT) return true;
  return view.has(i, FLAG_TEXT) && alphaOf(view.style(i, 'color')) < FAINT;
}
