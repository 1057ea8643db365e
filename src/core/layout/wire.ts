import type { LayoutSnapshot } from './snapshot.js';

/** A layout snapshot as plain JSON: every typed array is a list of numbers. The collector sends this form. */
export type WireSnapshot = Plain<LayoutSnapshot>;

type Plain<T> = T extends Int32Array | Uint8Array | Float64Array
  ? number[]
  : T extends readonly (infer E)[]
    ? Plain<E>[]
    : T extends object
      ? { -readonly [K in keyof T]: Plain<T[K]> }
      : T;

/** The plain form again, for storing. */
export function toWire(snapshot: LayoutSnapshot): WireSnapshot {
  const plain = (value: unknown): unknown => {
    if (ArrayBuffer.isView(value)) return Array.from(value as unknown as ArrayLike<number>);
    if (Array.isArray(value)) return value.map(plain);
    if (value !== null && typeof value === 'object') {
      return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, plain(inner)]));
    }
    return value;
  };
  return plain(snapshot) as WireSnapshot;
}

/** Puts the columns of a wire snapshot into typed arrays. */
export function fromWire(wire: WireSnapshot): LayoutSnapshot {
  const { nodes, lines } = wire;
  const ints = (values: readonly number[]) => Int32Array.from(values);
  const floats = (values: readonly number[]) => Float64Array.from(values);
  return {
    ...wire,
    styles: ints(wire.styles),
    pictures: floats(wire.pictures),
    texts: ints(wire.texts),
    corners: ints(wire.corners),
    sources: ints(wire.sources),
    labels: ints(wire.labels),
    // Layouts that were kept by earlier builds have none.
    openers: ints((wire as Partial<WireSnapshot>).openers ?? []),
    handles: ints((wire as Partial<WireSnapshot>).handles ?? []),
    hoverReveals: ints(wire.hoverReveals),
    faces: floats(wire.faces),
    shortFields: floats(wire.shortFields),
    // The same.
    lowFields: floats((wire as Partial<WireSnapshot>).lowFields ?? []),
    nodes: {
      count: nodes.count,
      uid: ints(nodes.uid),
      parent: ints(nodes.parent),
      scope: ints(nodes.scope),
      treeParent: ints(nodes.treeParent),
      kind: Uint8Array.from(nodes.kind),
      tag: ints(nodes.tag),
      id: ints(nodes.id),
      classes: ints(nodes.classes),
      nth: ints(nodes.nth),
      flags: ints(nodes.flags),
      style: ints(nodes.style),
      box: floats(nodes.box),
      border: floats(nodes.border),
      padding: floats(nodes.padding),
      margin: floats(nodes.margin),
      scroll: floats(nodes.scroll),
    },
    scrolled: floats(wire.scrolled),
    fragments: {
      count: wire.fragments.count,
      node: ints(wire.fragments.node),
      box: floats(wire.fragments.box),
    },
    lines: {
      count: lines.count,
      node: ints(lines.node),
      box: floats(lines.box),
      text: ints(lines.text),
      flags: Uint8Array.from(lines.flags),
      face: ints(lines.face),
    },
  };
}
