import { styleIndex, perSheets } from './style-index.js';

type Root = Document | ShadowRoot;

/** Marks on elements that experiments put there and take away again. */
const OWN_ATTRIBUTES = ['style', 'data-isoptic-trial'];

/** Pseudo-classes that are about the tree alone, not about a state that changes without it. */
const OF_TREE =
  /^(not|is|where|has|root|empty|lang|dir|any-link|link|(first|last|only)-(child|of-type)|nth-(last-)?(child|of-type))$/;

const asksForStyle = perSheets(({ rules }) => rules.some(({ selector }) => selector.includes('[style')));

/** Counts the changes of a tree that selectors go by. */
class TreeWatch {
  private changes = 0;
  private readonly observer: MutationObserver;

  constructor(private readonly root: Root) {
    this.observer = new MutationObserver((records) => this.take(records));
    this.observer.observe(root, { subtree: true, childList: true, attributes: true });
  }

  get revision(): number {
    this.take(this.observer.takeRecords());
    return this.changes;
  }

  private take(records: readonly MutationRecord[]): void {
    const matters = records.some(
      ({ attributeName }) =>
        attributeName === null || !OWN_ATTRIBUTES.includes(attributeName) || asksForStyle(this.root),
    );
    if (matters) this.changes++;
  }
}

/** What the selectors of style sheets match in a tree: asked again only once the tree or the sheets have changed. */
class Selections {
  private readonly watch: TreeWatch;
  private index: unknown = null;
  private revision = -1;
  private readonly known = new Map<string, readonly Element[] | null>();

  constructor(private readonly root: Root) {
    this.watch = new TreeWatch(root);
  }

  /** Forgets what may not be true any more. */
  refresh(): void {
    const index = styleIndex(this.root);
    const { revision } = this.watch;
    if (index === this.index && revision === this.revision) {
      // States come and go without a change of the tree.
      for (const selector of this.known.keys()) if (!isOfTree(selector)) this.known.delete(selector);
      return;
    }
    this.index = index;
    this.revision = revision;
    this.known.clear();
  }

  of(selector: string): readonly Element[] | null {
    let found = this.known.get(selector);
    if (found === undefined) this.known.set(selector, (found = matchesOf(this.root, selector)));
    return found;
  }
}

const selections = new WeakMap<Root, Selections>();

/** A question of what selectors match, now. */
export function selectionsIn(root: Root): Pick<Selections, 'of'> {
  let known = selections.get(root);
  if (!known) selections.set(root, (known = new Selections(root)));
  known.refresh();
  return known;
}

/** Adds every element that one of the selectors matches. Whether all of them could be followed. */
export function addMatches(
  within: Pick<Selections, 'of'>,
  selectors: Iterable<string>,
  matches: Set<Element>,
): boolean {
  for (const selector of selectors) {
    const found = within.of(selector);
    if (found === null) return false;
    for (const element of found) matches.add(element);
  }
  return true;
}

function isOfTree(selector: string): boolean {
  for (const [, name] of selector.matchAll(/(?<!:):([a-z-]+)/gi)) if (!OF_TREE.test(name!)) return false;
  return true;
}

function matchesOf(root: Root, selector: string): readonly Element[] | null {
  if (/:(host|slotted|part|scope)\b|&/.test(selector)) return null;
  try {
    return [...root.querySelectorAll(selector)];
  } catch {
    return null;
  }
}
