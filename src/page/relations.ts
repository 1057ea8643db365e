import type { WireSnapshot } from '../core/layout/wire.js';
import type { Generated } from './identity.js';
import { hoverReveals } from './hover.js';

/**
 * Pairs of nodes that belong together without standing in one another.
 * @param all whether to look for what hovering shows, which an experiment has no use for
 * @param leave is told what was not looked at
 */
export function relations(
  elements: readonly (Element | Generated | null | undefined)[],
  all: boolean,
  leave: (what: string, count: number) => void,
): Pick<WireSnapshot, 'labels' | 'openers' | 'handles' | 'hoverReveals'> {
  const pairs: { list: number[]; a: Element; b: Element }[] = [];
  const labels: number[] = [];
  const openers: number[] = [];
  const handles: number[] = [];
  const reveals: number[] = [];
  // A field's own list of labels is sought for in the whole document, each time.
  for (const element of elements) {
    if (!element || 'which' in element || element.localName !== 'label') continue;
    const { control } = element as HTMLLabelElement;
    if (control) pairs.push({ list: labels, a: control, b: element });
  }
  for (const [control, opened] of openersIn(document)) pairs.push({ list: openers, a: control, b: opened });
  for (const [control, opened] of handlesIn(document)) pairs.push({ list: handles, a: control, b: opened });
  if (all)
    for (const { shown, hovered } of hoverReveals(document, leave))
      pairs.push({ list: reveals, a: shown, b: hovered });
  if (pairs.length > 0) {
    const rows = new Map<Element | Generated | null | undefined, number>();
    elements.forEach((element, node) => rows.set(element, node));
    for (const { list, a, b } of pairs) {
      const [first, second] = [rows.get(a), rows.get(b)];
      if (first !== undefined && second !== undefined) list.push(first, second);
    }
  }
  return { labels, openers, handles, hoverReveals: reveals };
}

/** Controls that name what they open, further or at all, and do not say that it is open already; a tab has nothing more to show. */
const OPENERS = '[aria-controls]:not([aria-expanded="true"], [role="tab"])';

function* openersIn(document: Document): Generator<readonly [control: Element, opened: Element]> {
  for (const control of document.querySelectorAll(OPENERS)) {
    for (const id of control.getAttribute('aria-controls')!.split(/\s+/)) {
      const opened = document.getElementById(id);
      if (opened) yield [control, opened];
    }
  }
}

/** What says that it is closed and not what: what follows it, or what it stands in itself, as the handle of a sheet does. */
const CLOSED =
  '[aria-expanded="false"]:not([aria-controls], [aria-haspopup], [role="combobox"], [role="treeitem"])';

function* handlesIn(document: Document): Generator<readonly [control: Element, opened: Element]> {
  for (const control of document.querySelectorAll(CLOSED)) {
    if (control.nextElementSibling) yield [control, control.nextElementSibling];
    if (control.parentElement) yield [control, control.parentElement];
  }
}
