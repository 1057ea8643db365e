import { controlAround } from '../layout/ancestors.js';
import { perNode } from '../layout/memo.js';
import { sceneOf, type Ink, type Scene } from '../layout/scene.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { Loss } from './loss.js';
import { isSymbols } from './typography.js';

/** Of fewer, the words are missed. */
const LEAST_CONTROLS = 3;

/** Of a side bar in its narrow form, in which each link or button shows its sign alone: its words, or the end of the link itself. */
export function isOfIconRail({ view }: Scene, { ink, cutter, axis, whole }: Loss): boolean {
  if (axis !== 'x' || !(whole || ink.kind === 'control')) return false;
  return controlAround(view, ink.node) > cutter && isIconRail(view, cutter);
}

/** Whether every link or button in an element shows a sign and none of its words. */
const isIconRail = perNode((view: SnapshotView, cutter: NodeIndex): boolean => {
  const scene = sceneOf(view);
  const inksOf = new Map<NodeIndex, Ink[]>();
  for (const ink of scene.inks) {
    const control = ink.kind === 'control' ? -1 : controlAround(view, ink.node);
    if (control > cutter && scene.contains(cutter, control))
      inksOf.set(control, [...(inksOf.get(control) ?? []), ink]);
  }
  const isSign = (ink: Ink) => ink.kind === 'picture' || isSymbols(view, ink);
  return (
    inksOf.size >= LEAST_CONTROLS &&
    [...inksOf.values()].every(
      (inks) =>
        inks.some((ink) => isSign(ink) && ink.shown) && inks.every((ink) => isSign(ink) || !ink.shown),
    )
  );
});
