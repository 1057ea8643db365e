import { tidy } from '../geometry/format.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

export interface Excess {
  /** The sum written out: `100 % + 2 × 24 px padding + 2 × 1 px border = 100 % + 50 px`. */
  readonly sum: string;
  readonly property: string;
  readonly undo: Readonly<Record<string, string>>;
}

/** A width in percent to which padding and border are added (CSS Box Sizing 3, `content-box`), alone or in a row. */
export function excessOf(view: SnapshotView, i: NodeIndex): Excess | null {
  const row = rowOf(view, i).map((item) => ({ item, share: shareOf(view, item) }));
  const own = row.find(({ item }) => item === i);
  if (!own || own.share === null) return null;
  const parts: string[] = [];
  let percent = 0;
  let extra = 0;
  for (const { item, share } of row) {
    if (share === null) {
      const width = view.box(item).width;
      extra += width;
      parts.push(exact(width));
      continue;
    }
    percent += share;
    parts.push(`${tidy(share)} %`);
    const contentBox = view.style(item, 'box-sizing') !== 'border-box';
    for (const [what, [, right, , left]] of [
      ['padding', view.paddings(item)],
      ['border', view.borders(item)],
    ] as const) {
      if (!contentBox || left + right <= 0) continue;
      extra += left + right;
      parts.push(left === right ? `2 × ${exact(left)} ${what}` : `${exact(left + right)} ${what}`);
    }
    const [, marginRight, , marginLeft] = view.margins(item);
    if (marginLeft + marginRight > 0) {
      extra += marginLeft + marginRight;
      parts.push(`${exact(marginLeft + marginRight)} margin`);
    }
  }
  const gap = gapOf(
    view,
    row.map(({ item }) => item),
  );
  if (gap > 0.5) {
    extra += gap;
    parts.push(`${exact(gap)} gap`);
  }
  if (extra < 1 || percent < 99.5) return null;
  const undo =
    view.style(i, 'box-sizing') === 'border-box'
      ? { 'min-width': '0', 'flex-shrink': '1', 'max-width': '50%' }
      : { 'box-sizing': 'border-box', 'max-width': '100%', 'min-width': '0', 'flex-shrink': '1' };
  return { sum: `${parts.join(' + ')} = ${tidy(percent)} % + ${exact(extra)}`, property: 'width', undo };
}

function shareOf(view: SnapshotView, i: NodeIndex): number | null {
  for (const property of ['width', 'flex-basis'] as const) {
    const match = /^([\d.]+)%$/.exec(view.style(i, property));
    if (match) return Number(match[1]);
  }
  return null;
}

/** The items that stand beside an element in a row that can't wrap; itself alone where there is none. */
function rowOf(view: SnapshotView, i: NodeIndex): NodeIndex[] {
  const parent = view.containingElement(i);
  if (
    parent < 0 ||
    !/flex/.test(view.style(parent, 'display')) ||
    view.style(parent, 'flex-wrap') !== 'nowrap'
  )
    return [i];
  if (!/^row/.test(view.style(parent, 'flex-direction'))) return [i];
  return view
    .childrenOf(parent)
    .filter((child) => view.isRendered(child) && /static|relative/.test(view.style(child, 'position')));
}

function gapOf(view: SnapshotView, items: readonly NodeIndex[]): number {
  let gap = 0;
  for (let k = 1; k < items.length; k++) {
    const [before, after] = [view.box(items[k - 1]!), view.box(items[k]!)];
    const margins = view.margins(items[k - 1]!)[1] + view.margins(items[k]!)[3];
    gap += Math.max(0, after.x - before.x - before.width - margins);
  }
  return gap;
}

/** A sum comes out only with its tenths. */
function exact(length: number): string {
  return `${tidy(length)} px`;
}
