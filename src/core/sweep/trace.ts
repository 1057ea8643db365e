import { isOutOfFlow } from '../layout/displace.js';
import type { Scene } from '../layout/scene.js';
import { FLAG_IN_PICTURE } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { rowsOf } from '../layout/rows.js';

/** What a window is made smaller or larger along. */
export type SweepAxis = 'width' | 'height';

/**
 * What is followed of a layout from one size to the next: of each box where it stands in its container and how large it is
 * along the axis, which are linear functions of the size between two changes (lengths in CSS are sums and products of such, CSS
 * Values 4, section 10), and its form, which changes at an edge. Lines of text are not followed: they break anew at hundreds
 * of widths. Elements go by numbers that hold over several layouts (`SharedNumbers`).
 */
export interface Trace {
  /** By the element: what of it changes only at an edge. */
  readonly forms: ReadonlyMap<number, Form>;
  /** By the element: its edge from that of its container, and its size, CSS px. The edge of what stands in a line is NaN. */
  readonly places: ReadonlyMap<number, Place>;
  /** The forms of all elements as one text. */
  readonly form: string;
  readonly view: SnapshotView;
  /** Of each row of the view, the element's number. */
  readonly numbers: Int32Array;
}

export type Place = readonly [edge: number, size: number];

/** An element's form. */
export interface Form {
  readonly node: NodeIndex;
  readonly display: string;
  readonly position: string;
  readonly float: string;
  /** How many of its children stand in each row, from the top down; empty where they do not stand in rows. */
  readonly rows: readonly number[];
  /** How much room is left in each of these rows, CSS px: no part of the form, and what says at which width they break. */
  readonly room: readonly number[];
  /** Its children as they are seen, where that is not the order of the document; else empty. */
  readonly order: string;
  /** Painted at all: not hidden, not see-through. */
  readonly isSeen: boolean;
}

const INLINE_LEVEL = /^inline/;

export function traceOf({ view, painted }: Scene, numbers: Int32Array, axis: SweepAxis): Trace {
  const forms = new Map<number, Form>();
  const places = new Map<number, Place>();
  const texts: string[] = [`${view.snapshot.viewport.scrollbar}`];
  for (let i = 0; i < view.count; i++) {
    if (!isFollowed(view, i)) continue;
    const number = numbers[i]!;
    const form: Form = {
      node: i,
      display: view.style(i, 'display'),
      position: view.style(i, 'position'),
      float: view.style(i, 'float'),
      ...rowsOf(view, i, numbers),
      isSeen: painted[i] === 1,
    };
    forms.set(number, form);
    texts.push(formText(number, form));
    places.set(number, placeOf(view, i, form, axis));
  }
  return { forms, places, form: texts.join('\n'), view, numbers };
}

/** Of what is not seen nobody sees how it is laid out. */
export function formText(number: number, { isSeen, display, position, float, rows, order }: Form): string {
  return (isSeen ? [number, display, position, float, rows.join(), order] : [number, 'unseen']).join(' ');
}

/** The forms of all elements as one text, without those of some. */
export function withoutForms(form: string, left: ReadonlySet<number>): string {
  const [scrollbar, ...lines] = form.split('\n');
  return [scrollbar, ...lines.filter((line) => !left.has(Number.parseInt(line, 10)))].join('\n');
}

function placeOf(view: SnapshotView, i: NodeIndex, { display }: Form, axis: SweepAxis): Place {
  const box = view.box(i);
  const holder = view.containingElement(i);
  const around = holder < 0 ? { x: 0, y: 0 } : view.box(holder);
  if (axis === 'height') return [box.y - around.y, box.height];
  const isInLine = INLINE_LEVEL.test(display) && !isOutOfFlow(view, i);
  return [isInLine ? NaN : box.x - around.x, box.width];
}

/** Has a box of its own that is laid out by its container. */
function isFollowed(view: SnapshotView, i: NodeIndex): boolean {
  if (!view.isElement(i) || !view.isRendered(i) || view.has(i, FLAG_IN_PICTURE)) return false;
  return !/^(inline|contents|none)$/.test(view.style(i, 'display'));
}
