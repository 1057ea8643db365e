import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** A selector of more steps is no shorter than a full path in any way that helps a reader; trying them all is cubic. */
const MOST_STEPS = 12;

/**
 * Writes selectors that match exactly one element of the page: short ones where they do, longer ones where they must.
 * `>>>` steps into an open shadow root or a frame's document.
 */
export class SelectorWriter {
  private readonly byTag = new Map<string, NodeIndex[]>();
  private readonly idCounts = new Map<string, number>();
  private readonly done = new Map<NodeIndex, string>();

  constructor(readonly view: SnapshotView) {
    for (let i = 0; i < view.count; i++) {
      if (!view.isElement(i)) continue;
      const key = this.tagKey(i);
      const list = this.byTag.get(key);
      if (list) list.push(i);
      else this.byTag.set(key, [i]);
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

  /** Whether the step written for `model` (tag and some classes) also matches `candidate` of the same tree and tag. */
  private stepMatches(model: NodeIndex, candidate: NodeIndex): boolean {
    if (model === candidate) return true;
    if (this.tagKey(model) !== this.tagKey(candidate)) return false;
    const classes = this.view.classes(candidate);
    return stepClasses(this.view, model).every((name) => classes.includes(name));
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
    const ownId = this.idStep(i);
    if (ownId) return ownId;
    const chain: NodeIndex[] = [i];
    for (let at = this.treeParent(i); at >= 0; at = this.treeParent(at)) chain.unshift(at);

    return this.shortest(chain, false) ?? this.shortest(chain, true) ?? this.fullPath(chain);
  }

  /** As few steps upwards as make the element the only match; null when none do. */
  private shortest(chain: readonly NodeIndex[], withPosition: boolean): string | null {
    const last = chain.length - 1;
    const lastStep = withPosition ? this.stepWithPosition(chain[last]!) : step(this.view, chain[last]!);
    // A bare tag says little to a reader: its parent's step is written too.
    const bare =
      stepClasses(this.view, chain[last]!).length === 0 && last >= 2 && chain[last - 1] !== this.view.body;
    const farthest = Math.max(0, last - MOST_STEPS);
    for (let from = bare ? last - 1 : last; from >= farthest; from--) {
      const steps = chain.slice(from);
      const id = from < last ? this.idStep(steps[0]!) : null;
      if (this.matches(steps, id ? steps[0]! : null, withPosition) === 1) {
        const above = steps.slice(0, -1).map((at, i) => (i === 0 && id ? id : step(this.view, at)));
        return [...above, lastStep].join(' > ');
      }
      if (id) return null;
    }
    return null;
  }

  /** With positions at every step, from the nearest id or the top: always the only one. */
  private fullPath(chain: readonly NodeIndex[]): string {
    const parts: string[] = [];
    for (const at of [...chain].reverse()) {
      if (at === this.view.root && chain.length > 1) break;
      const id = this.idStep(at);
      parts.unshift(id ?? this.stepWithPosition(at));
      if (id) break;
    }
    return parts.join(' > ');
  }

  /**
   * How many elements the child-combined steps match.
   * @param anchor where given, the first step is this one element alone
   * @param withPosition whether the last step says where the element stands among its siblings
   */
  private matches(steps: readonly NodeIndex[], anchor: NodeIndex | null, withPosition: boolean): number {
    const last = steps[steps.length - 1]!;
    const { nth } = this.view.snapshot.nodes;
    let count = 0;
    for (const candidate of this.byTag.get(this.tagKey(last)) ?? []) {
      if (withPosition && nth[last] !== 0 && Math.max(1, nth[candidate]!) !== nth[last]) continue;
      let at = candidate;
      let level = steps.length - 1;
      while (level >= 0 && at >= 0) {
        const fits = level === 0 && anchor !== null ? at === anchor : this.stepMatches(steps[level]!, at);
        if (!fits) break;
        at = this.treeParent(at);
        level--;
      }
      if (level < 0) count++;
    }
    return count;
  }

  private idStep(i: NodeIndex): string | null {
    const id = this.view.id(i);
    if (id === '' || this.idCounts.get(`${this.scope(i)} ${id}`) !== 1 || looksGenerated(id)) return null;
    return `#${escapeIdentifier(id)}`;
  }

  private stepWithPosition(i: NodeIndex): string {
    const nth = this.view.snapshot.nodes.nth[i]!;
    return nth === 0 ? step(this.view, i) : `${step(this.view, i)}:nth-of-type(${nth})`;
  }
}

const MAX_CLASSES = 3;

/** One step: the tag with the classes that a person wrote. */
export function step(view: SnapshotView, i: NodeIndex): string {
  return [view.tag(i), ...stepClasses(view, i)].map(escapeIdentifier).join('.');
}

function stepClasses(view: SnapshotView, i: NodeIndex): string[] {
  return view
    .classes(i)
    .filter((name) => !looksGenerated(name))
    .slice(0, MAX_CLASSES);
}

/** Names that a build made up (hashes, counters) change with every build; ids of findings must not. */
export function looksGenerated(name: string): boolean {
  return /\d{4,}|^:|[_-](?=[a-z0-9]*\d[a-z])[a-z0-9]{5,}$/i.test(name) || name.length > 40;
}

/** CSSOM, section 2.1: serialise an identifier. */
export function escapeIdentifier(text: string): string {
  let out = '';
  for (const [i, char] of Array.from(text).entries()) {
    const code = char.codePointAt(0)!;
    if (code === 0) out += '\uFFFD';
    else if (
      code < 0x20 ||
      code === 0x7f ||
      (/\d/.test(char) && (i === 0 || (i === 1 && text.startsWith('-'))))
    ) {
      out += `\\${code.toString(16)} `;
    } else if (i === 0 && char === '-' && text.length === 1) out += '\\-';
    else if (code >= 0x80 || /[A-Za-z0-9_-]/.test(char)) out += char;
    else out += `\\${char}`;
  }
  return out;
}
