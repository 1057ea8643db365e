import { attributeOf, parentElementOf } from './own-accessors.js';
import { perSheets } from './style-index.js';

/** Attributes that have a say in how their element is styled, and in nothing else unless a selector asks for them. */
const OF_ELEMENT_ALONE = new Set(['style', 'width', 'height']);
const ASKING = /\[\s*(?:style|width|height)\b/i;

/** What can be asked of an element by what stands in it. */
const LOOKING_IN = /:has\(/i;

const looksIn = perSheets(({ rules }) => rules.some(({ selectorText }) => LOOKING_IN.test(selectorText)));

const asksForThem = perSheets(({ rules }) => rules.some(({ selectorText }) => ASKING.test(selectorText)));

/** Of more elements than these each is not followed. */
const MOST_FOLLOWED = 500;

/** The outermost drawing in which something has changed: nothing outside is styled by that, unless a selector looks in. */
function drawingAround(target: Node, type: MutationRecordType): Element | null {
  let found: Element | null = null;
  let at = type === 'childList' && target instanceof Element ? target : parentElementOf(target);
  for (; at; at = parentElementOf(at)) if (at instanceof SVGSVGElement) found = at;
  return found;
}

/** What has changed in a document since it was asked last. */
export interface Changes {
  /** Whether anything may be styled otherwise. */
  readonly isAny: boolean;
  /** Where it may not: elements that may be, with all that stands in them. */
  readonly elements: readonly Element[];
}

const ANY: Changes = { isAny: true, elements: [] };

/**
 * Notices what changes in a document's tree and attributes. What a script writes as it was, or takes back, has not changed: many set the
 * same classes again at every size of the window, and give their canvas another size.
 */
export class ChangeWatch {
  private readonly observer: MutationObserver;
  private isAny = false;
  /** What attributes were when they were first written. */
  private readonly before = new Map<Element, Map<string, string | null>>();
  /** Drawings that were drawn anew, wholly or in part: a script draws its charts at every size of the window. */
  private readonly drawings = new Set<Element>();

  constructor(private readonly document: Document) {
    this.observer = new MutationObserver((records) => this.note(records));
    this.observer.observe(document, {
      subtree: true,
      childList: true,
      attributes: true,
      attributeOldValue: true,
    });
  }

  /** What has changed since it was last taken. */
  take(): Changes {
    this.note(this.observer.takeRecords());
    const { isAny } = this;
    const drawings = [...this.drawings];
    const changed = [...this.before].map(([element, values]) => ({
      element,
      names: [...values].flatMap(([name, value]) => (attributeOf(element, name) === value ? [] : [name])),
    }));
    this.isAny = false;
    this.before.clear();
    this.drawings.clear();
    if (isAny || (drawings.length > 0 && looksIn(this.document))) return ANY;
    const found = changed.filter(({ names }) => names.length > 0);
    if (found.some(({ names }) => names.some((name) => !OF_ELEMENT_ALONE.has(name)))) return ANY;
    if (found.length > 0 && asksForThem(this.document)) return ANY;
    return { isAny: false, elements: [...drawings, ...found.map(({ element }) => element)] };
  }

  private note(records: readonly MutationRecord[]): void {
    for (const { type, target, attributeName, attributeNamespace, oldValue } of records) {
      if (this.isAny) return;
      const drawing = drawingAround(target, type);
      if (drawing) {
        this.drawings.add(drawing);
        continue;
      }
      const isAttribute = type === 'attributes' && attributeNamespace === null && target instanceof Element;
      if (!isAttribute || this.before.size >= MOST_FOLLOWED) {
        this.isAny = true;
        this.before.clear();
        return;
      }
      const values = this.before.get(target) ?? new Map<string, string | null>();
      this.before.set(target, values);
      if (!values.has(attributeName!)) values.set(attributeName!, oldValue);
    }
  }
}
