import { meets } from '../../geometry/rect.js';
import { branches } from '../../layout/branches.js';
import { sceneOf, type Cover, type Ink, type Scene } from '../../layout/scene.js';
import type { NodeIndex } from '../../layout/view.js';
import { shortName } from '../../sightings/words.js';
import type { Pairing } from '../pairing.js';
import type { Single } from './difference.js';

/** Boxes that merely touch lie on nothing, CSS px. */
const LEAST_PX = 1;

/** What decides which of two elements is painted last (CSS Positioned Layout 4, section 6; CSS 2, appendix E). */
const DECIDES = ['z-index', 'position', 'opacity', 'transform'] as const;

/**
 * Elements that lie on one another in both layouts, and of which another one is on top. Told of that whose styles put it there, else
 * of the one that came to lie on top; once for two elements, however much stands in them.
 */
export function stackingChanges(pairing: Pairing): Single[] {
  const { a, b, toA, toB } = pairing;
  const [before, after] = [new Stack(sceneOf(a.view)), new Stack(sceneOf(b.view))];
  const found = new Map<string, Single>();
  /** @param upper a row of `b`, as `lower` is */
  const note = (upper: NodeIndex, lower: NodeIndex) => {
    const [top, bottom] = branches(after.scene, upper, lower) ?? [];
    if (top === undefined || bottom === undefined || toA[top]! < 0 || toA[bottom]! < 0) return;
    const isLowered = isRestyled(pairing, bottom) && !isRestyled(pairing, top);
    const [told, other, how] = isLowered ? [bottom, top, 'under'] : [top, bottom, 'over'];
    const z = (view: typeof a.view, i: NodeIndex) => view.style(i, 'z-index') || null;
    const name = shortName(b.view, other);
    found.set(`${top} ${bottom}`, {
      kind: 'stacked',
      a: toA[told]!,
      b: told,
      from: z(a.view, toA[told]!),
      to: z(b.view, told),
      one: `lies ${how} ${name} now`,
      many: `lie ${how} ${name} now`,
    });
  };
  for (const { cover, ink } of after.scene.coveredInks()) {
    const [i, j] = [toA[cover.node]!, toA[ink.node]!];
    if (i >= 0 && j >= 0 && before.isUnder(i, j)) note(cover.node, ink.node);
  }
  for (const { cover, ink } of before.scene.coveredInks()) {
    const [i, j] = [toB[cover.node]!, toB[ink.node]!];
    if (i >= 0 && j >= 0 && after.isUnder(i, j)) note(j, i);
  }
  return [...found.values()];
}

/** What is opaque and what is seen of each element of one layout. */
class Stack {
  private readonly covers = new Map<NodeIndex, Cover[]>();
  private readonly inks = new Map<NodeIndex, Ink[]>();

  constructor(readonly scene: Scene) {
    for (const cover of scene.covers) pushTo(this.covers, cover.node, cover);
    for (const ink of scene.inks) pushTo(this.inks, ink.node, ink);
  }

  /** Whether something opaque lies where something else is seen, and is painted before it. */
  isUnder(cover: NodeIndex, ink: NodeIndex): boolean {
    const inks = this.inks.get(ink) ?? [];
    return (this.covers.get(cover) ?? []).some((below) =>
      inks.some(
        ({ shown, rank }) => shown !== null && below.rank < rank && meets(below.rect, shown, -LEAST_PX),
      ),
    );
  }
}

function pushTo<T>(lists: Map<NodeIndex, T[]>, at: NodeIndex, item: T): void {
  const list = lists.get(at);
  if (list) list.push(item);
  else lists.set(at, [item]);
}

/** @param j a row of `b` */
function isRestyled({ a, b, toA }: Pairing, j: NodeIndex): boolean {
  return DECIDES.some((property) => a.view.style(toA[j]!, property) !== b.view.style(j, property));
}
