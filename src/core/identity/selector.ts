import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { classesWritten, escapeIdentifier, isNamed, stepText } from './names.js';

/** So many elements above one are tried as its middle step, and as the first. */
const MIDDLES = 8;
const ANCHORS = 3;
/** No farther up: pages nest thousands of elements. */
const FARTHEST = 40;
/** Steps are dropped from paths of at most so many: longer ones say little either way. */
const MOST_DROPPED = 24;

/** Of a page there is one each, or few. */
const LANDMARKS = /^(html|body|main|nav|header|footer|aside|form|table|h1|dialog|iframe)$/;
/** A class that says in what state an element is, or how it is spaced or coloured, goes with the next edit. */
const PASSING =
  /^(active|current|selected|show|shown|open|collapsed?|disabled|(is|has|js)-.*|[a-z]{1,3}-[a-z]{0,3}-?\d+|(text|bg|d|w|h|col|row|flex|float|border)-.*|.*[:[\]/].*)$/;

/** Part of a selector, and the elements of its tree that it matches by itself. */
interface Step {
  readonly text: string;
  readonly matches: readonly NodeIndex[];
}

/** Something above an element that is the only one of its kind. */
interface Anchor {
  /** How far above, 0 being the parent. */
  readonly at: number;
  readonly text: string;
  /** Of every row, whether it stands below it. */
  readonly holds: Uint8Array;
}

/** A step between an anchor and an element. */
interface Middle {
  readonly text: string;
  /** Whether it is a child of the anchor, and whether the element is a child of it. */
  readonly isChild: boolean;
  readonly isParent: boolean;
  /** Whether an element stands where the step says. */
  readonly holds: (match: NodeIndex) => boolean;
}

/** A step of a path, and whether it is a child of the one before. */
interface Placed {
  readonly step: string;
  readonly matches: readonly NodeIndex[];
  readonly isChild: boolean;
}

/**
 * Writes selectors that match exactly one element of the page: of as few steps as do, three at most where three can, by names
 * that last rather than by places. `>>>` steps into an open shadow root or a frame's document.
 */
export class SelectorWriter {
  private readonly byTag = new Map<string, NodeIndex[]>();
  private readonly idCounts = new Map<string, number>();
  /** Of a class, how many elements have it. */
  private readonly classCounts = new Map<string, number>();
  private readonly done = new Map<NodeIndex, string>();
  private readonly steps = new Map<NodeIndex, readonly Step[]>();

  constructor(readonly view: SnapshotView) {
    for (let i = 0; i < view.count; i++) {
      if (!view.isElement(i)) continue;
      const key = this.tagKey(i);
      const list = this.byTag.get(key);
      if (list) list.push(i);
      else this.byTag.set(key, [i]);
      for (const name of view.classes(i)) this.classCounts.set(name, (this.classCounts.get(name) ?? 0) + 1);
      const id = view.id(i);
      if (id !== '') {
        const idKey = `${this.scope(i)} ${id}`;
        this.idCounts.set(idKey, (this.idCounts.get(idKey) ?? 0) + 1);
      }
    }
  }

  private scope(i: NodeIndex): NodeIndex {
    return this.view.snapshot.nodes.scope[i]!;
  }
  private treeParent(i: NodeIndex): NodeIndex {
    return this.view.snapshot.nodes.treeParent[i]!;
  }
  private tagKey(i: NodeIndex): string {
    return `${this.scope(i)} ${this.view.tag(i)}`;
  }

  /** The selector of an element, or of the element that a pseudo-element belongs to with `::before` or `::after`. */
  write(i: NodeIndex): string {
    const known = this.done.get(i);
    if (known !== undefined) return known;
    const selector = this.view.isElement(i)
      ? this.prefix(i) + this.within(i)
      : `${this.write(this.view.parent(i))}${this.view.tag(i)}`;
    this.done.set(i, selector);
    return selector;
  }

  private prefix(i: NodeIndex): string {
    const scope = this.scope(i);
    return scope < 0 ? '' : `${this.write(scope)} >>> `;
  }

  private within(i: NodeIndex): string {
    const above: NodeIndex[] = [];
    for (let at = this.treeParent(i); at >= 0; at = this.treeParent(at)) above.push(at);
    return this.alone(i) ?? this.belowAnchor(i, above) ?? this.fullPath(i, above);
  }

  /** One step that matches nothing else. A bare tag says little to a reader, unless there is little else like it. */
  private alone(i: NodeIndex): string | null {
    const parent = this.treeParent(i);
    const saysEnough = (text: string) =>
      /[#.]/.test(text) || LANDMARKS.test(text) || parent < 0 || parent === this.view.body;
    const step = this.stepsOf(i).find(({ text, matches }) => matches.length === 1 && saysEnough(text));
    return step?.text ?? null;
  }

  /** Two steps, or three: from something above that is the only one of its kind. */
  private belowAnchor(i: NodeIndex, above: readonly NodeIndex[]): string | null {
    const anchors: Anchor[] = [];
    for (const [at, node] of above.slice(0, FARTHEST).entries()) {
      const text = this.alone(node);
      if (text !== null) anchors.push({ at, text, holds: this.below([node]) });
      if (anchors.length === ANCHORS) break;
    }
    for (const last of this.stepsOf(i)) {
      for (const anchor of anchors) {
        const inside = last.matches.filter((match) => anchor.holds[match] === 1);
        if (inside.length === 1) return joined([anchor.text, anchor.at === 0, last.text]);
        if (anchor.at === 0 && inside.filter((match) => this.treeParent(match) === above[0]).length === 1)
          return joined([anchor.text, true, last.text]);
      }
    }
    const middles = anchors.map((anchor) => this.middlesBelow(anchor, above));
    for (const last of this.stepsOf(i)) {
      for (const [which, { text, holds }] of anchors.entries()) {
        const inside = last.matches.filter((match) => holds[match] === 1);
        const middle = middles[which]!.find(({ holds: holdsIn }) => inside.filter(holdsIn).length === 1);
        if (middle) return joined([text, middle.isChild, middle.text, middle.isParent, last.text]);
      }
    }
    return null;
  }

  /** The steps that may stand between an anchor and an element, the nearest to the element first. */
  private middlesBelow({ at: place, holds }: Anchor, above: readonly NodeIndex[]): Middle[] {
    return above.slice(0, Math.min(MIDDLES, place)).flatMap((node, at) =>
      this.stepsOf(node).map(({ text, matches }): Middle => {
        const between = matches.filter((match) => holds[match] === 1);
        const isParent = at === 0;
        const parents = new Set(between);
        const held = isParent ? null : this.below(between);
        return {
          text,
          isChild: at === place - 1,
          isParent,
          holds: (match) => (held ? held[match] === 1 : parents.has(this.treeParent(match))),
        };
      }),
    );
  }

  /** Of every row, whether it stands below one of some elements of its own tree: parents have lower rows. */
  private below(nodes: readonly NodeIndex[]): Uint8Array {
    const held = new Uint8Array(this.view.count);
    const tops = new Set(nodes);
    for (let i = nodes[0] ?? held.length; i < held.length; i++) {
      const parent = this.treeParent(i);
      if (parent >= 0 && (held[parent] === 1 || tops.has(parent))) held[i] = 1;
    }
    return held;
  }

  /** The steps that an element can be written as, those first that say most and last longest. */
  private stepsOf(i: NodeIndex): readonly Step[] {
    const known = this.steps.get(i);
    if (known) return known;
    const { view } = this;
    const tag = view.tag(i);
    const steps: Step[] = [];
    const id = this.idStep(i);
    if (id !== null) steps.push({ text: id, matches: [i] });
    const alike = this.byTag.get(this.tagKey(i)) ?? [];
    const names = classesWritten(view, i);
    const rarity = (name: string) => this.classCounts.get(name) ?? 0;
    const lasting = names.filter((name) => !PASSING.test(name)).sort((a, b) => rarity(a) - rarity(b));
    const passing = names.filter((name) => PASSING.test(name));
    const having = (classes: readonly string[]) =>
      alike.filter((other) => classes.every((name) => view.classes(other).includes(name)));
    for (const name of lasting) steps.push({ text: stepText(tag, [name]), matches: having([name]) });
    if (lasting.length > 1) {
      const both = lasting.slice(0, 2);
      steps.push({ text: stepText(tag, both), matches: having(both) });
    }
    const bare = { text: escapeIdentifier(tag), matches: alike };
    if (lasting.length === 0 || LANDMARKS.test(tag)) steps.push(bare);
    for (const name of passing) steps.push({ text: stepText(tag, [name]), matches: having([name]) });
    const { nth } = view.snapshot.nodes;
    if (nth[i] !== 0) {
      for (const { text, matches } of [...steps.filter((step) => step.text !== id).slice(0, 1), bare]) {
        steps.push({ text: `${text}:nth-of-type(${nth[i]!})`, matches: this.placedAs(i, matches) });
      }
    }
    this.steps.set(i, steps);
    return steps;
  }

  /**
   * Positions from the nearest element that is alone of its kind, without the steps that make no difference: the only way
   * where what stands in the same place of other elements is made alike.
   */
  private fullPath(i: NodeIndex, above: readonly NodeIndex[]): string {
    const { nth } = this.view.snapshot.nodes;
    const path: Placed[] = [];
    for (const at of [i, ...above]) {
      if (at === this.view.root && above.length > 0) break;
      const alone = at === i ? null : this.alone(at);
      const tag = escapeIdentifier(this.view.tag(at));
      const step = alone ?? (nth[at] === 0 ? tag : `${tag}:nth-of-type(${nth[at]!})`);
      const alike = this.byTag.get(this.tagKey(at)) ?? [];
      path.unshift({ step, matches: alone === null ? this.placedAs(at, alike) : [at], isChild: true });
      if (alone !== null) break;
    }
    // From the outermost: what stands nearest says most.
    for (let at = 1; path.length <= MOST_DROPPED && at < path.length - 1;) {
      const shorter = path.flatMap((placed, other) => {
        if (other === at) return [];
        return [other === at + 1 ? { ...placed, isChild: false } : placed];
      });
      if (this.isOnly(i, shorter)) path.splice(0, path.length, ...shorter);
      else at++;
    }
    return joined(path.flatMap(({ step, isChild }, at) => (at === 0 ? [step] : [isChild, step])));
  }

  /** Those that have the same place among the siblings of their tag. */
  private placedAs(i: NodeIndex, among: readonly NodeIndex[]): readonly NodeIndex[] {
    const { nth } = this.view.snapshot.nodes;
    return nth[i] === 0 ? among : among.filter((other) => Math.max(1, nth[other]!) === nth[i]);
  }

  private isOnly(i: NodeIndex, path: readonly Placed[]): boolean {
    const sets = path.map(({ matches }) => new Set(matches));
    /** By level and row: what did not fit once does not fit again, however many ways lead to it. */
    const misfits = path.map(() => new Set<NodeIndex>());
    const fits = (node: NodeIndex, level: number): boolean => {
      if (!sets[level]!.has(node) || misfits[level]!.has(node)) return false;
      if (level === 0) return true;
      let at = this.treeParent(node);
      if (path[level]!.isChild) {
        if (at >= 0 && fits(at, level - 1)) return true;
      } else {
        for (; at >= 0; at = this.treeParent(at)) if (fits(at, level - 1)) return true;
      }
      misfits[level]!.add(node);
      return false;
    };
    const found = path.at(-1)!.matches.filter((node) => fits(node, path.length - 1));
    return found.length === 1 && found[0] === i;
  }

  private idStep(i: NodeIndex): string | null {
    const id = this.view.id(i);
    if (!isNamed(this.view, i) || this.idCounts.get(`${this.scope(i)} ${id}`) !== 1) return null;
    return `#${escapeIdentifier(id)}`;
  }
}

/** Steps, and between two of them whether the second is a child of the first. */
function joined(parts: readonly (string | boolean)[]): string {
  return parts.map((part) => (typeof part === 'string' ? part : part ? ' > ' : ' ')).join('');
}
