/** A pseudo-element by the element that it stands in. */
export interface Generated {
  readonly host: Element;
  readonly which: '::before' | '::after' | '::marker';
}

/** What has a number: an element, or a pseudo-element of it. Weakly held, since a page may throw elements away for ever. */
interface Known {
  readonly element: WeakRef<Element>;
  readonly which: Generated['which'] | null;
}

const known: Known[] = [];
const numbers = new WeakMap<Element, number>();
const generatedNumbers = {
  '::before': new WeakMap<Element, number>(),
  '::after': new WeakMap<Element, number>(),
  '::marker': new WeakMap<Element, number>(),
} as const;

function numbered(map: WeakMap<Element, number>, element: Element, which: Known['which']): number {
  let uid = map.get(element);
  if (uid === undefined) {
    uid = known.push({ element: new WeakRef(element), which }) - 1;
    map.set(element, uid);
  }
  return uid;
}

/** The number of an element, the same for as long as its document is open. */
export function uidOf(element: Element): number {
  return numbered(numbers, element, null);
}

export function uidOfGenerated({ host, which }: Generated): number {
  return numbered(generatedNumbers[which], host, which);
}

/** The element of a number, of a pseudo-element the one that it stands in; null for one that is gone. */
export function elementOf(uid: number): Element | null {
  return known[uid]?.element.deref() ?? null;
}

/** Which pseudo-element a number stands for; null for an element. */
export function generatedOf(uid: number): Generated['which'] | null {
  return known[uid]?.which ?? null;
}
