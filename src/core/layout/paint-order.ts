import { isPaintedAsOne } from '../css/containing.js';
import { holdsItems, isContents, isInline, isInlineBlock } from './displays.js';
import { perStyle } from './memo.js';
import { FLAG_REPLACED, FLAG_TOP_LAYER } from './snapshot.js';
import type { NodeIndex, SnapshotView } from './view.js';

/**
 * The order in which a page is painted, as a rank for each element: what has the higher rank lies on top. A block's own
 * background and its text are painted in different phases, so each element has two ranks.
 *
 * Sources: CSS 2.1, appendix E; CSS Flexbox 1, section 5.4, and CSS Grid 2, section 17 (items paint like inline-blocks and
 * take z-index); CSS Color 4 (opacity), Transforms 1, Filter Effects 1, Compositing 1, Containment 2, Masking 1 and Will
 * Change 1 for what makes a stacking context; CSS Positioned Layout 4 for the top layer.
 */
export class PaintOrder {
  /** Rank of an element's background, border and, where it is replaced, its picture. */
  readonly box: Int32Array;
  /** Rank of the text that stands directly in an element. */
  readonly text: Int32Array;
  private next = 1;
  private readonly contexts = new Map<NodeIndex, Layers>();
  private readonly topLayer: NodeIndex[] = [];
  /** Elements that are painted by a stacking context and not where they stand in the flow. */
  private readonly lifted: Uint8Array;

  constructor(private readonly view: SnapshotView) {
    this.box = new Int32Array(view.count);
    this.text = new Int32Array(view.count);
    this.lifted = new Uint8Array(view.count);
    if (view.count === 0) return;
    this.sort();
    this.paintContext(view.root);
    for (const i of this.topLayer) this.paintContext(i);
  }

  /** Puts every positioned element and stacking context into the list of the stacking context around it. */
  private sort(): void {
    const { view } = this;
    const around = new Int32Array(view.count).fill(view.root);
    this.contexts.set(view.root, new Layers());
    const waiting = [...view.childrenOf(view.root)].reverse();
    for (let i = waiting.pop(); i !== undefined; i = waiting.pop()) {
      const children = view.childrenOf(i);
      for (let c = children.length - 1; c >= 0; c--) waiting.push(children[c]!);
      const parent = view.parent(i);
      const context = this.contexts.has(parent) ? parent : around[parent]!;
      around[i] = context;
      if (!view.isRendered(i) || isContents(view, i)) continue;
      if (view.has(i, FLAG_TOP_LAYER)) {
        this.lifted[i] = 1;
        this.topLayer.push(i);
        this.contexts.set(i, new Layers());
        continue;
      }
      const makes = makesStackingContext(view, i);
      if (makes) this.contexts.set(i, new Layers());
      if (!makes && !isPositioned(view, i)) continue;
      this.lifted[i] = 1;
      this.contexts.get(context)!.add(i, zIndexOf(view, i));
    }
  }

  /** The children in the order in which they are painted: of a flex or grid container, as `order` says (CSS Flexbox 1, section 5.4). */
  private painted(i: NodeIndex): readonly NodeIndex[] {
    const { view } = this;
    const children = view.childrenOf(i);
    if (!holdsItems(view, i) || children.every((child) => orderOf(view, child) === 0)) return children;
    return children.toSorted((a, b) => orderOf(view, a) - orderOf(view, b));
  }

  private paintContext(i: NodeIndex): void {
    const { below, level, above } = this.contexts.get(i)!.sorted();
    this.box[i] = this.next++;
    for (const child of below) this.paintEntry(child);
    this.paintFlow(i);
    for (const child of level) this.paintEntry(child);
    for (const child of above) this.paintEntry(child);
  }

  private paintEntry(i: NodeIndex): void {
    if (this.contexts.has(i)) this.paintContext(i);
    else this.paintAtom(i);
  }

  /** As if it made a stacking context, but for what is positioned in it. */
  private paintAtom(i: NodeIndex): void {
    this.box[i] = this.next++;
    this.paintFlow(i);
  }

  /** Blocks' backgrounds, then floats, then what is inline; all in tree order. */
  private paintFlow(root: NodeIndex): void {
    const { view } = this;
    const floats: NodeIndex[] = [];
    const inline: NodeIndex[] = [root];
    const stack = this.painted(root).toReversed();
    for (let i = stack.pop(); i !== undefined; i = stack.pop()) {
      if (this.lifted[i]) continue;
      if (floatsAside(view, i) && view.isRendered(i)) floats.push(i);
      else if (isAtom(view, i)) inline.push(i);
      else {
        if (!isInline(view, i)) this.box[i] = this.next++;
        inline.push(i);
        for (let children = this.painted(i), c = children.length - 1; c >= 0; c--) stack.push(children[c]!);
      }
    }
    for (const i of floats) this.paintAtom(i);
    for (const i of inline) {
      if (i !== root && isAtom(view, i)) {
        this.paintAtom(i);
        continue;
      }
      // What a block-level picture shows comes with the text, and not with the backgrounds (CSS 2.1, appendix E, 7.1).
      if (i !== root && (isInline(view, i) || view.has(i, FLAG_REPLACED))) this.box[i] = this.next++;
      this.text[i] = this.next++;
    }
  }
}

/** What a stacking context paints beside its own flow, each list from the lowest z-index up, tree order among equals. */
class Layers {
  private readonly entries: { readonly i: NodeIndex; readonly z: number }[] = [];

  add(i: NodeIndex, z: number): void {
    this.entries.push({ i, z });
  }

  sorted(): { below: NodeIndex[]; level: NodeIndex[]; above: NodeIndex[] } {
    const entries = [...this.entries].sort((a, b) => a.z - b.z);
    const pick = (test: (z: number) => boolean) => entries.filter(({ z }) => test(z)).map(({ i }) => i);
    return { below: pick((z) => z < 0), level: pick((z) => z === 0), above: pick((z) => z > 0) };
  }
}

/** `auto` is painted at level 0. */
function zIndexOf(view: SnapshotView, i: NodeIndex): number {
  return takesZIndex(view, i) ? Number.parseInt(view.style(i, 'z-index'), 10) || 0 : 0;
}

function takesZIndex(view: SnapshotView, i: NodeIndex): boolean {
  return isPositioned(view, i) || isFlexOrGridItem(view, i);
}

function isFlexOrGridItem(view: SnapshotView, i: NodeIndex): boolean {
  let parent = view.parent(i);
  while (parent >= 0 && isContents(view, parent)) parent = view.parent(parent);
  return parent >= 0 && holdsItems(view, parent);
}

/** Inline-blocks, flex and grid items: painted as one, among what is inline. */
function isAtom(view: SnapshotView, i: NodeIndex): boolean {
  return isInlineBlock(view, i) || (!isContents(view, i) && isFlexOrGridItem(view, i));
}

export function makesStackingContext(view: SnapshotView, i: NodeIndex): boolean {
  if (makesByStyle(view, i)) return true;
  return hasZIndex(view, i) && takesZIndex(view, i);
}

const orderOf = perStyle((view, i) => Number.parseInt(view.style(i, 'order'), 10) || 0);

const hasZIndex = perStyle((view, i) => /^-?\d/.test(view.style(i, 'z-index')));

const isPositioned = perStyle((view, i) => view.style(i, 'position') !== 'static');

const floatsAside = perStyle((view, i) => view.style(i, 'float') !== 'none');

const makesByStyle = perStyle((view, i) =>
  isPaintedAsOne((property) => view.style(i, property), isInline(view, i)),
);
