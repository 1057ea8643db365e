import type { NodeIndex, SnapshotView } from './view.js';

/** Numbers the functions, so that a snapshot can keep the answers of each. */
let functions = 0;

/** A function of a snapshot whose answer is kept for as long as the snapshot is. */
export function perSnapshot<T>(compute: (view: SnapshotView) => T): (view: SnapshotView) => T {
  const number = functions++;
  return (view) => (view.answers[number] ??= compute(view)) as T;
}

/** A function of an element whose answers are kept for as long as its snapshot is: rules ask the same again and again. */
export function perNode<T>(
  compute: (view: SnapshotView, i: NodeIndex) => T,
): (view: SnapshotView, i: NodeIndex) => T {
  const number = functions++;
  return (view, i) => {
    const answers = (view.answers[number] ??= new Array<T | undefined>(view.count)) as (T | undefined)[];
    const known = answers[i];
    return known === undefined ? (answers[i] = compute(view, i)) : known;
  };
}

/** The same of a line of text. */
export function perLine<T>(
  compute: (view: SnapshotView, line: number) => T,
): (view: SnapshotView, line: number) => T {
  const number = functions++;
  return (view, line) => {
    const answers = (view.answers[number] ??= new Array<T | undefined>(view.snapshot.lines.count)) as (
      T | undefined
    )[];
    const known = answers[line];
    return known === undefined ? (answers[line] = compute(view, line)) : known;
  };
}

/** The same for what depends on an element's computed style alone: repeated elements share their style. */
export function perStyle<T>(
  compute: (view: SnapshotView, i: NodeIndex) => T,
): (view: SnapshotView, i: NodeIndex) => T {
  const number = functions++;
  return (view, i) => {
    const answers = (view.answers[number] ??= []) as (T | undefined)[];
    const row = view.snapshot.nodes.style[i]!;
    const known = answers[row];
    return known === undefined ? (answers[row] = compute(view, i)) : known;
  };
}

/**
 * What an element takes over from what holds it, unless it says otherwise: computed once for all elements, from the root
 * down, since what holds an element stands before it.
 * @param top what holds where nothing is around
 */
export function passedDown<T>(
  holderOf: (view: SnapshotView, i: NodeIndex) => NodeIndex,
  own: (view: SnapshotView, i: NodeIndex, above: T) => T,
  top: T,
): (view: SnapshotView, i: NodeIndex) => T {
  const number = functions++;
  return (view, i) => {
    let answers = view.answers[number] as T[] | undefined;
    if (!answers) {
      answers = new Array<T>(view.count);
      for (let at = 0; at < view.count; at++) {
        const holder = holderOf(view, at);
        answers[at] = own(view, at, holder < 0 ? top : answers[holder]!);
      }
      view.answers[number] = answers;
    }
    return i < 0 ? top : answers[i]!;
  };
}
