import type { NodeIndex, SnapshotView } from './view.js';

/** Numbers the functions, so that a snapshot can keep the answers of each. */
let functions = 0;

/** A function of an element whose answers are kept for as long as its snapshot is: rules ask the same again and again. */
export function perNode<T>(
  compute: (view: SnapshotView, i: NodeIndex) => T,
): (view: SnapshotView, i: NodeIndex) => T {
  const number = functions++;
  return (view, i) => {
    const answers = (view.answers[number] ??= new Array<T | undefined>(view.count)) as (T | undefined)[];
    return (answers[i] ??= compute(view, i));
  };
}

/** The same for what depends on an element's computed style alone: repeated elements share their style. */
export function perStyle<T>(
  compute: (view: SnapshotView, i: NodeIndex) => T,
): (view: SnapshotView, i: NodeIndex) => T {
  const number = functions++;
  return (view, i) => {
    const answers = (view.answers[number] ??= []) as (T | undefined)[];
    return (answers[view.snapshot.nodes.style[i]!] ??= compute(view, i));
  };
}
