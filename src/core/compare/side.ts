import { classesWritten, isNamed } from '../identity/names.js';
import { perSnapshot } from '../layout/memo.js';
import { paintedOf } from '../layout/painted.js';
import { FLAG_IN_PICTURE } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { TreeHash } from './tree-hash.js';

/** One of two layouts that are compared: what its elements are known by. Columns have one entry a row of the view. */
export interface Side {
  readonly view: SnapshotView;
  /** Rows that take part, in the order of the document: elements outside of drawings. */
  readonly rows: readonly NodeIndex[];
  /** Children that take part. */
  readonly children: readonly (readonly NodeIndex[])[];
  /** Hash of an element with all that stands in it: tags, ids, classes, words, addresses. */
  readonly whole: Float64Array;
  /** An element without its words and without what stands in it: tag, id, classes. */
  readonly own: readonly string[];
  /** The first words of an element and of what stands in it. */
  readonly words: readonly string[];
  /** Whether it is to be seen: painted and of some size, or with something in it that is. */
  readonly isShown: Uint8Array;
}

/** An element and all that stands in it and takes part. Pages nest deeper than the call stack reaches. */
export function* below({ children }: Side, root: NodeIndex): Iterable<NodeIndex> {
  const waiting = [root];
  for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
    yield at;
    waiting.push(...children[at]!);
  }
}

/** What stands in the document and is not laid out. */
const UNSEEN = new Set('head script style link meta title template noscript base source track'.split(' '));
/** Elements are known by so many characters of their words. */
const MOST_WORDS = 160;

/** What the elements of a layout are known by; worked out once a layout. */
export const sideOf: (view: SnapshotView) => Side = perSnapshot((view): Side => {
  const { count } = view;
  const { painted } = paintedOf(view);
  const rows: NodeIndex[] = [];
  const children: NodeIndex[][] = Array.from({ length: count }, () => []);
  const takesPart = new Uint8Array(count);
  for (let i = 0; i < count; i++) {
    const parent = view.parent(i);
    if (parent >= 0 && !takesPart[parent]) continue;
    if (!view.isElement(i) || view.has(i, FLAG_IN_PICTURE) || UNSEEN.has(view.tag(i))) continue;
    takesPart[i] = 1;
    rows.push(i);
    if (parent >= 0) children[parent]!.push(i);
  }
  const isShown = new Uint8Array(count);
  const whole = new Float64Array(count);
  const hash = new TreeHash();
  const own = new Array<string>(count).fill('');
  const words = new Array<string>(count).fill('');
  const names = new Map<string, string>();
  for (let at = rows.length - 1; at >= 0; at--) {
    const i = rows[at]!;
    const below = children[i]!;
    const text = view.textOf(i);
    own[i] = nameOf(view, i, names);
    hash.begin().text(own[i]).text(text).text(view.sourceOf(i));
    for (const child of below) hash.hash(whole[child]!);
    whole[i] = hash.end();
    words[i] = wordsOf(text, below, words);
    const { width, height } = view.box(i);
    const isBox = painted[i] === 1 && width >= 1 && height >= 1;
    isShown[i] = isBox || below.some((child) => isShown[child]) ? 1 : 0;
  }
  return { view, rows, children, whole, own, words, isShown };
});

/** The first words of an element: its own, then those of what stands in it. */
function wordsOf(text: string, below: readonly NodeIndex[], words: readonly string[]): string {
  let all = text;
  for (const child of below) {
    if (all.length >= MOST_WORDS) break;
    const more = words[child]!;
    if (more !== '') all = all === '' ? more : `${all} ${more}`;
  }
  return all.length > MOST_WORDS ? all.slice(0, MOST_WORDS) : all;
}

/** Tag, id and classes as far as a person wrote them. @param known by the numbers of their texts: few elements of a page are named alone */
function nameOf(view: SnapshotView, i: NodeIndex, known: Map<string, string>): string {
  const { tag, id, classes } = view.snapshot.nodes;
  const key = `${tag[i]!} ${id[i]!} ${classes[i]!}`;
  let name = known.get(key);
  if (name === undefined) {
    const named = isNamed(view, i) ? view.id(i) : '';
    name = `${view.tag(i)}#${named}.${classesWritten(view, i).join('.')}`;
    known.set(key, name);
  }
  return name;
}
