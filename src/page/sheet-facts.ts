import { frameDocument } from './find.js';
import { ofHosts, ruleNames } from './rule-names.js';
import { addMatches, selectionsIn } from './selected.js';
import { FOLLOWED } from './style-groups.js';
import { perSheets, styleIndex } from './style-index.js';
import { inlineStyleOf } from './own-accessors.js';

/** What can be known of computed styles before they are read. */
export interface SheetFacts {
  /** Every property that a style sheet or style attribute names. */
  readonly properties: ReadonlySet<string>;
  /** Elements that some rule may make a pseudo-element of; null where a selector could not be followed. */
  readonly hosts: ReadonlySet<Element> | null;
  /**
   * By what was followed: the elements on which some rule may set it; not there where that can't be known. Nothing sets it
   * on an element that is neither in it nor in `styledOtherwise`, but for the browser's own styles.
   */
  readonly setOn: ReadonlyMap<string, ReadonlySet<Element>>;
  /** What animations and attributes style. */
  readonly styledOtherwise: ReadonlySet<Element>;
  /** Whether there is no shadow tree, nor an element that may have a closed one. */
  readonly isOneTree: boolean;
}

/** What scripts move and fade things with. */
const ANIMATED = ['opacity', 'transform', 'filter', 'translate', 'rotate', 'scale', 'clip-path'];
/** Attributes that the browser's own styles go by, and what they set that pages seldom do. */
const STYLING_ATTRIBUTES: Readonly<Record<string, string | null>> = {
  '[style]': null,
  '[align]': 'float',
  '[background]': 'background-image',
  '[dir]': null,
  '[contenteditable]': null,
  '[popover]': null,
};

/** Selecting what more rules than this name costs more than reading the property of every element. */
const MOST_SELECTORS = 60;

const namesOf = perSheets((index) => ruleNames(index, FOLLOWED, MOST_SELECTORS));

/** Null where nothing can be known: a sheet of another origin, a frame. */
export function sheetFacts(document: Document): SheetFacts | null {
  const properties = new Set<string>();
  const hosts = new Set<Element>();
  const setOn = new Map(Object.keys(FOLLOWED).map((name) => [name, new Set<Element>()]));
  const styledOtherwise = new Set<Element>();
  let hostsKnown = true;
  let isOneTree = true;
  const roots: (Document | ShadowRoot)[] = [document];
  for (const root of roots) {
    if (styleIndex(root).unread.length > 0) return null;
    const names = namesOf(root);
    const selected = selectionsIn(root);
    for (const property of names.properties) properties.add(property);
    for (const [name, elements] of setOn) {
      const selectors = names.selectorsOf(name);
      if (selectors === null || !addMatches(selected, selectors, elements)) setOn.delete(name);
    }
    for (const element of root.querySelectorAll('*')) {
      if (element.shadowRoot) roots.push(element.shadowRoot);
      if (element.shadowRoot || element.localName.includes('-')) isOneTree = false;
      if (element.localName === 'iframe' && frameDocument(element)) return null;
      // Quotation marks are the browser's own pseudo-elements.
      if (element.localName === 'q') hosts.add(element);
    }
    hostsKnown &&= addMatches(selected, [...names.generating].map(ofHosts), hosts);
    addStyledByAttributes(root, styledOtherwise, properties);
    addAnimated(root, styledOtherwise, properties);
  }
  // It takes back what the parent says.
  if (properties.has('all')) setOn.clear();
  return { properties, hosts: hostsKnown ? hosts : null, setOn, styledOtherwise, isOneTree };
}

/** Scripts animate without a style sheet. */
function addAnimated(root: Document | ShadowRoot, elements: Set<Element>, properties: Set<string>): void {
  for (const { effect } of root.getAnimations()) {
    for (const property of ANIMATED) properties.add(property);
    if (effect instanceof KeyframeEffect && effect.target) elements.add(effect.target);
  }
}

function addStyledByAttributes(
  root: Document | ShadowRoot,
  elements: Set<Element>,
  properties: Set<string>,
): void {
  for (const [selector, property] of Object.entries(STYLING_ATTRIBUTES)) {
    for (const element of root.querySelectorAll(selector)) {
      elements.add(element);
      if (property !== null) properties.add(property);
      else if (selector === '[style]') for (const each of inlineStyleOf(element)) properties.add(each);
    }
  }
}
