import { meets, union, type Rect } from '../geometry/rect.js';
import { RectIndex } from '../geometry/rect-index.js';
import { blockAround, controlAround } from './ancestors.js';
import { cut } from './clips.js';
import { perSnapshot } from './memo.js';
import type { Scene } from './scene.js';
import { FLAG_CONTROL, FLAG_RENDERED } from './snapshot.js';
import { fixedRoot } from './viewport-layer.js';
import type { NodeIndex, SnapshotView } from './view.js';
import { isInline } from './displays.js';

/** Where a finger hits a control: its box and the labels that pass the touch on to it. */
export interface TouchArea {
  readonly node: NodeIndex;
  /** What is shown of it, CSS px from the page's top left. */
  readonly rect: Rect;
}

/** Labels farther than this from their field are targets of their own, CSS px. */
const BESIDE = 12;

/** The targets of a page, outermost ones only: a control in another is hit with it. */
export class TouchAreas {
  readonly all: readonly TouchArea[];
  private readonly index: RectIndex;

  constructor(private readonly scene: Scene) {
    this.all = collect(scene);
    this.index = new RectIndex(this.all.map(({ rect }) => rect));
  }

  /** Other targets within a distance of a point that scroll with the same part of the page. */
  near(target: TouchArea, x: number, y: number, distance: number): TouchArea[] {
    const { view } = this.scene;
    const root = fixedRoot(view, target.node);
    const around = { x: x - distance, y: y - distance, width: 2 * distance, height: 2 * distance };
    return this.index
      .search(around)
      .map((at) => this.all[at]!)
      .filter((other) => other !== target && fixedRoot(view, other.node) === root);
  }
}

function collect(scene: Scene): TouchArea[] {
  const { view, clips } = scene;
  const labelsOf = new Map<NodeIndex, NodeIndex[]>();
  const { labels } = view.snapshot;
  for (let at = 0; at < labels.length; at += 2) {
    const list = labelsOf.get(labels[at]!) ?? [];
    labelsOf.set(labels[at]!, [...list, labels[at + 1]!]);
  }
  const found: TouchArea[] = [];
  for (let i = 0; i < view.count; i++) {
    if (!view.has(i, FLAG_CONTROL) || !view.has(i, FLAG_RENDERED) || !scene.painted[i]) continue;
    if (controlAround(view, view.parent(i)) >= 0) continue;
    let rect = cut(touchBox(scene, i), clips.shownBox(i));
    if (!rect || rect.width < 2 || rect.height < 2) continue;
    for (const label of labelsOf.get(i) ?? []) {
      const box = view.box(label);
      const grown = {
        x: rect.x - BESIDE,
        y: rect.y - BESIDE,
        width: rect.width + 2 * BESIDE,
        height: rect.height + 2 * BESIDE,
      };
      if (scene.painted[label] && meets(box, grown, 0)) rect = union(rect, box);
    }
    found.push({ node: i, rect });
  }
  return found;
}

/** The element's box, grown by what of it stands out: a generated box over the whole card, a picture in a line. */
function touchBox(scene: Scene, i: NodeIndex): Rect {
  const { view } = scene;
  let rect = view.box(i);
  for (let at = i + 1; at <= scene.lastOf(i); at++) {
    const box = view.box(at);
    if (scene.painted[at] && box.width > 0 && box.height > 0) rect = union(rect, box);
  }
  return rect;
}

/** Links in running text: their height is that of the lines (WCAG 2.2, success criterion 2.5.8, exception "inline"). */
export function isInSentence(view: SnapshotView, i: NodeIndex): boolean {
  if (!isInline(view, i)) return false;
  const block = blockAround(view, i);
  return proseBlocks(view).has(block);
}

/** Blocks that hold words outside of controls. */
const proseBlocks = perSnapshot((view): Set<NodeIndex> => {
  const found = new Set<NodeIndex>();
  const { count, node } = view.snapshot.lines;
  for (let line = 0; line < count; line++) {
    const at = node[line]!;
    if (controlAround(view, at) < 0 && /\p{L}/u.test(view.lineText(line))) found.add(blockAround(view, at));
  }
  return found;
});
