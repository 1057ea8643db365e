import type { NodeIndex, SnapshotView } from './view.js';

/** A function of an element whose answers are kept for as long as its snapshot is: rules ask the same again and again. */
export function perNode<T>(
  compute: (view: SnapshotView, i: NodeIndex) => T,
): (view: SnapshotView, i: NodeIndex) => T {
  const kept = new WeakMap<SnapshotView, (T | undefined)[]>();
  return (view, i) => {
    let answers = kept.get(view);
    if (!answers) kept.set(view, (answers = new Array<T | undefined>(view.count)));
    return (answers[i] ??= compute(view, i));
  };
}

/** The same for what depends on an element's computed style alone: repeated elements share their style. */
export function perStyle<T>(
  compute: (view: SnapshotView, i: NodeIndex) => T,
): (view: SnapshotView, i: NodeIndex) => T {
  const kept = new WeakMap<SnapshotView, (T | undefined)[]>();
  return (view, i) => {
    let answers = kept.get(view);
    if (!answers) kept.set(view, (answers = []));
    return (answers[view.snapshot.nodes.style[i]!] ??= compute(view, i));
  };
}
