import { digest } from '../identity/digest.js';
import { signature } from '../identity/signature.js';
import { FLAG_HEADING, KIND_ELEMENT } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { isFixed, stickyRoot } from '../layout/viewport-layer.js';

/** What a place is: the more a reader goes by it, the sooner renders are brought in line at it. */
export const PLACE_KINDS = ['heading', 'landmark', 'text'] as const;
export type PlaceKind = (typeof PLACE_KINDS)[number];

/** A spot of a page that is found again on its other renders. */
export interface Place {
  /** The same on every render that has it. */
  readonly key: string;
  readonly kind: PlaceKind;
  /** Of its top edge, CSS px from the page's top. */
  readonly y: number;
}

const LANDMARKS = new Set([
  'header',
  'nav',
  'main',
  'section',
  'article',
  'aside',
  'footer',
  'form',
  'table',
]);
/** More don't bring renders closer together. */
const MOST_PLACES = 200;
/** A paragraph is known by how it begins. */
const TEXT_LENGTH = 48;

/**
 * The headings, landmarks and beginnings of texts of a page, from the top down. What stays on the screen while the page scrolls
 * is at no place.
 */
export function placesOf(view: SnapshotView): Place[] {
  const found: Place[] = [];
  const times = new Map<string, number>();
  const add = (kind: PlaceKind, what: string, node: NodeIndex, y: number) => {
    const nth = times.get(kind + what) ?? 0;
    times.set(kind + what, nth + 1);
    if (!isFixed(view, node) && stickyRoot(view, node) < 0)
      found.push({ key: digest(`${kind} ${what} ${nth}`), kind, y: Math.round(y) });
  };
  for (let i = 0; i < view.count; i++) {
    if (view.snapshot.nodes.kind[i] !== KIND_ELEMENT || !view.isRendered(i)) continue;
    const box = view.box(i);
    if (box.height < 1 || box.width < 1) continue;
    if (view.has(i, FLAG_HEADING)) add('heading', textOf(view, i), i, box.y);
    else if (LANDMARKS.has(view.tag(i))) add('landmark', signature(view, i), i, box.y);
    else {
      const [line] = view.linesOf(i);
      if (line !== undefined) add('text', view.lineText(line).slice(0, TEXT_LENGTH), i, view.lineBox(line).y);
    }
  }
  return thinned(found).sort((a, b) => a.y - b.y);
}

/** The words of a heading, wherever in it they stand. */
function textOf(view: SnapshotView, heading: NodeIndex): string {
  const words: string[] = [];
  for (let i = heading; i < view.count && (i === heading || isIn(view, i, heading)); i++)
    for (const line of view.linesOf(i)) words.push(view.lineText(line));
  return words.join(' ').slice(0, TEXT_LENGTH);
}

/** Rows stand in tree order, so what is inside follows. */
function isIn(view: SnapshotView, i: NodeIndex, root: NodeIndex): boolean {
  let at = i;
  while (at > root) at = view.parent(at);
  return at === root;
}

/** Of too many, the kinds that readers go by first, then each so-many-th. */
function thinned(places: readonly Place[]): Place[] {
  const kept: Place[] = [];
  for (const kind of PLACE_KINDS) {
    const all = places.filter((place) => place.kind === kind);
    const room = MOST_PLACES - kept.length;
    const step = Math.max(1, Math.ceil(all.length / Math.max(1, room)));
    if (room > 0) kept.push(...all.filter((_, at) => at % step === 0));
  }
  return kept;
}
