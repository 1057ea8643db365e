import { SelectorWriter } from '../identity/selector.js';
import { isButton, LEAST_LINKS, linksIn } from '../layout/menu-parts.js';
import { columnsIn } from '../layout/rows.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { isPositionChange, positionWords } from '../sightings/position-words.js';
import { shortName } from '../sightings/words.js';
import type { Form, Trace } from './trace.js';

export type ChangeKind = 'menu' | 'shown' | 'hidden' | 'columns' | 'rows' | 'order' | 'position' | 'display';

/** What becomes of the layout where the width grows by one px, as far as a person sees it. */
export interface Change {
  readonly kind: ChangeKind;
  /** One clause, to stand after a name of the width: `ul.routes goes from 2 to 3 columns`. */
  readonly message: string;
}

/** In the reader's order of interest. */
const ORDER: readonly ChangeKind[] = [
  'menu',
  'shown',
  'hidden',
  'columns',
  'rows',
  'order',
  'position',
  'display',
];

/** One element's change, before those of repeated elements are put together. */
interface Single {
  readonly kind: ChangeKind;
  readonly node: NodeIndex;
  readonly view: SnapshotView;
  /** Of one, and of several: `goes from 2 to 3 columns`, `go from 2 to 3 columns`. */
  readonly one: string;
  readonly many: string;
}

/** What changes from one layout to the next wider one of the same open page: the topmost elements, repeated ones once. */
export function changesBetween(before: Trace, after: Trace): Change[] {
  const shown = appeared(before, after);
  const hidden = appeared(after, before);
  const menu = menuChange(before.view, hidden, after.view, shown);
  const singles: Single[] = [
    ...(menu
      ? []
      : [
          ...shown.map((node) => seenSingle(after.view, node, 'shown')),
          ...hidden.map((node) => seenSingle(before.view, node, 'hidden')),
        ]),
  ];
  for (const [element, is] of after.forms) {
    const was = before.forms.get(element);
    if (was && was.isSeen && is.isSeen) singles.push(...formChanges(after.view, was, is));
  }
  return [...(menu ? [menu] : []), ...together(singles)].sort(
    (a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind),
  );
}

/** The changes as one sentence. */
export function changesText(changes: readonly Change[]): string {
  const [first, ...others] = changes.map(({ message }) => message);
  return first === undefined ? 'boxes are laid out otherwise' : [first, ...others].join('; ');
}

/** The topmost elements that are seen in one layout and not in the other. */
function appeared(without: Trace, withThem: Trace): NodeIndex[] {
  const isNew = (element: number) =>
    withThem.forms.get(element)?.isSeen === true && without.forms.get(element)?.isSeen !== true;
  const { view, numbers } = withThem;
  return [...withThem.forms]
    .filter(
      ([element, { node }]) => isNew(element) && !aboveOf(view, node).some((above) => isNew(numbers[above]!)),
    )
    .map(([, { node }]) => node);
}

function aboveOf(view: SnapshotView, node: NodeIndex): NodeIndex[] {
  const above: NodeIndex[] = [];
  for (let at = view.parent(node); at >= 0; at = view.parent(at)) above.push(at);
  return above;
}

/** Links that are seen make room for a button, or the other way round. */
function menuChange(
  narrow: SnapshotView,
  hidden: readonly NodeIndex[],
  wide: SnapshotView,
  shown: readonly NodeIndex[],
): Change | null {
  const links = shown.find((node) => linksIn(wide, node) >= LEAST_LINKS);
  if (links !== undefined && hidden.some((node) => isButton(narrow, node)))
    return { kind: 'menu', message: `the menu ${shortName(wide, links)} is shown in place of its button` };
  const gone = hidden.find((node) => linksIn(narrow, node) >= LEAST_LINKS);
  if (gone !== undefined && shown.some((node) => isButton(wide, node)))
    return { kind: 'menu', message: `a button takes the place of the menu ${shortName(narrow, gone)}` };
  return null;
}

function seenSingle(view: SnapshotView, node: NodeIndex, kind: 'shown' | 'hidden'): Single {
  const end = kind === 'shown' ? 'appears' : 'disappears';
  return { kind, view, node, one: end, many: end.slice(0, -1) };
}

function formChanges(view: SnapshotView, was: Form, is: Form): Single[] {
  const at = { view, node: is.node };
  if (isPositionChange(was.position, is.position))
    return [{ kind: 'position', ...at, ...positionWords(was.position, is.position) }];
  const rows = rowsText(was.rows, is.rows);
  if (rows) return [{ ...rows, ...at }];
  if (is.order !== was.order)
    return [
      {
        kind: 'order',
        ...at,
        one: 'shows its parts in another order',
        many: 'show their parts in another order',
      },
    ];
  if (is.display !== was.display && is.rows.length + was.rows.length > 0)
    return [{ kind: 'display', ...at, one: `becomes ${is.display}`, many: `become ${is.display}` }];
  return [];
}

/** Columns are what the fullest row has; with as many of them, the rows are told. */
function rowsText(was: readonly number[], is: readonly number[]): Omit<Single, 'view' | 'node'> | null {
  if (was.join() === is.join()) return null;
  const [from, to] = [columnsIn(was), columnsIn(is)];
  if (from !== to) return movedText('columns', from, to);
  if (was.length !== is.length && was.length > 0 && is.length > 0)
    return movedText('rows', was.length, is.length);
  return was.length > 0 && is.length > 0
    ? { kind: 'rows', one: `breaks its rows elsewhere`, many: `break their rows elsewhere` }
    : null;
}

function movedText(kind: 'columns' | 'rows', from: number, to: number): Omit<Single, 'view' | 'node'> {
  const end = `from ${from} to ${to} ${to === 1 ? kind.slice(0, -1) : kind}`;
  return { kind, one: `goes ${end}`, many: `go ${end}` };
}

/** The same change of elements that are called alike is told once. */
function together(singles: readonly Single[]): Change[] {
  const groups = new Map<string, Single[]>();
  for (const single of singles) {
    const key = `${shortName(single.view, single.node)}\n${single.one}`;
    groups.set(key, [...(groups.get(key) ?? []), single]);
  }
  const writers = new Map<SnapshotView, SelectorWriter>();
  return [...groups.values()].map((group) => {
    const [{ kind, view, node, one, many }] = group as [Single, ...Single[]];
    if (group.length > 1) return { kind, message: `${group.length} × ${shortName(view, node)} ${many}` };
    const writer = writers.get(view) ?? new SelectorWriter(view);
    writers.set(view, writer);
    return { kind, message: `${writer.write(node)} ${one}` };
  });
}
