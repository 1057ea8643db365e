import { perSnapshot } from '../layout/memo.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { classesWritten, isNamed, stepText } from './names.js';

/** Entries of one list are alike, whatever state one of them is in. */
const ENTRIES = /^(li|tr|dt|dd|option)$/;
const MAX_CLASSES = 3;

/**
 * For each element, the step of its signature: its tag with the classes that it has in common with what is repeated beside it.
 * Of cards in a row one may have another colour, one may be chosen; they are the same thing, and so is what stands in the same
 * place of each. Elements that stand in the same place of repeated ones are compared with one another, from the top down.
 */
export const repeatedSteps = perSnapshot((view): readonly string[] => {
  const steps = new Array<string>(view.count).fill('');
  if (view.count === 0) return steps;
  let groups: NodeIndex[][] = [[view.root]];
  steps[view.root] = view.tag(view.root);
  while (groups.length > 0) {
    const next: NodeIndex[][] = [];
    /** Those with an id of their own: what they stand in does not tell them apart. */
    const named = new Map<string, NodeIndex[]>();
    for (const group of groups) {
      const byTag = new Map<string, NodeIndex[]>();
      for (const parent of group) {
        for (const child of view.childrenOf(parent)) {
          // There is one, whatever a page calls its own: pages of one site differ in that alone.
          if (child === view.body) {
            steps[child] = view.tag(child);
            next.push([child]);
          } else if (isNamed(view, child))
            add(named, `${view.tag(child)}#${unnumbered(view.id(child))}`, child);
          else add(byTag, view.tag(child), child);
        }
      }
      for (const [tag, members] of byTag) next.push(...alike(view, tag, members, steps));
    }
    for (const [step, members] of named) {
      for (const member of members) steps[member] = step;
      next.push(members);
    }
    groups = next;
  }
  return steps;
});

/** Repeated siblings are numbered by their ids. */
function unnumbered(id: string): string {
  return id.replace(/\d+/g, '0');
}

/** Puts together those of one tag that are alike, writes their steps, and gives them as groups. */
function alike(
  view: SnapshotView,
  tag: string,
  members: readonly NodeIndex[],
  steps: string[],
): NodeIndex[][] {
  const groups = new Map<string, NodeIndex[]>();
  const classes = new Map(members.map((member) => [member, classesWritten(view, member)]));
  const counts = countOf(members.map((member) => classes.get(member)!));
  const byBase = new Map<string, NodeIndex[]>();
  for (const member of members) add(byBase, baseOf(classes.get(member)!, counts, tag), member);
  for (const [base, same] of byBase) {
    const usual = sharedBy(
      same.map((member) => classes.get(member)!),
      0.5,
    );
    const isAlike = (member: NodeIndex) => {
      const own = classes.get(member)!;
      return base === '' || 2 * own.filter((name) => usual.includes(name)).length >= own.length;
    };
    const all = same.filter(isAlike).map((member) => classes.get(member)!);
    const shared = base === '' ? [] : sharedBy(all, 1);
    for (const member of same) {
      const names = isAlike(member) ? shared : classes.get(member)!;
      steps[member] = stepText(tag, names.slice(0, MAX_CLASSES));
      add(groups, steps[member], member);
    }
  }
  return [...groups.values()];
}

/** The class of an element that most of those beside it have, too; empty where they have none in common. */
function baseOf(own: readonly string[], counts: ReadonlyMap<string, number>, tag: string): string {
  let base = '';
  for (const name of own) if ((counts.get(name) ?? 0) > (counts.get(base) ?? 0)) base = name;
  return ENTRIES.test(tag) && (counts.get(base) ?? 0) < 2 ? '' : base;
}

/** What at least such a share of them has, in the order in which it first stands. */
function sharedBy(all: readonly (readonly string[])[], share: number): string[] {
  return [...countOf(all)].filter(([, count]) => count >= share * all.length).map(([name]) => name);
}

function countOf(all: readonly (readonly string[])[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const names of all) for (const name of new Set(names)) counts.set(name, (counts.get(name) ?? 0) + 1);
  return counts;
}

function add<K>(lists: Map<K, NodeIndex[]>, key: K, member: NodeIndex): void {
  const list = lists.get(key);
  if (list) list.push(member);
  else lists.set(key, [member]);
}
