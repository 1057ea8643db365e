import { DECLARED_PROPERTIES, SETTING_PROPERTIES, STYLE_PROPERTIES } from '../core/layout/snapshot.js';
import { ChangeWatch } from './changes.js';
import type { ElementFacts } from './element-facts.js';
import { descendantsOf, inlineStyleOf } from './own-accessors.js';
import { sheetFacts, type SheetFacts } from './sheet-facts.js';
import { FOLLOWED, OFFSETS } from './style-groups.js';
import { styleIndex, type StyleIndex } from './style-index.js';
import { mayVary, varyingProperties } from './varying.js';

/** The columns of what is remembered of an element: those of a snapshot's styles, and three shorthands. */
export const COLUMNS = [...STYLE_PROPERTIES, ...DECLARED_PROPERTIES] as readonly string[];
export const SETTING = COLUMNS.length;
export const BORDER_WIDTH = SETTING + 1;
export const PADDING = SETTING + 2;
const COUNT = SETTING + 3;

/** Its resolved value is a matrix: shares of the box are px in it (CSS Transforms 1, section 14). */
const OF_BOX = ['transform'];

/** Elements that the browser's own styles size in multiples of the font's size. */
const SIZED_BY_FONT = new Set(['meter', 'progress', 'fieldset', 'legend']);

/** States that selectors ask for and that change without the tree; the list forgives those that an engine does not know. */
const STATES =
  ':is(:checked, :indeterminate, :default, :disabled, :read-write, :placeholder-shown, :invalid, :autofill, :focus, :hover, :active, :target, :open, :modal, :popover-open, :fullscreen, :playing, :muted)';

/** So many sets of media queries that hold at once are told apart. */
const MOST_REMEMBERED = 24;

/** One step of reading a row of styles: a value that stays; null for one that is read again, or taken from the parent's row. */
export interface RowStep {
  readonly column: number;
  readonly value: string | null;
  readonly from: 'style' | 'declared' | 'parent';
}

/** How a row of styles was read, where what decides which are read stays as it is. */
export interface KnownRow {
  /** What else decided it. */
  readonly facts: string;
  /** In the order in which they were read. */
  readonly steps: readonly RowStep[];
  /** Those without a value that stays. */
  readonly open: readonly RowStep[];
}

/** What is remembered of one element. */
export interface Remembered {
  facts: ElementFacts | null;
  /** By column; those that were never read are not there. */
  readonly values: (string | undefined)[];
  row: KnownRow | null;
}

/**
 * Computed values from one collection to the next. They are kept for as long as nothing has changed that selectors and conditions
 * go by: the tree and its attributes, the style sheets, which media queries hold, the states of elements, animations. What goes by
 * the size of the window in other ways is read each time. What a script writes over in a style sheet in place is not noticed, nor
 * is it by `styleIndex`.
 */
class StyleMemory {
  private values = new WeakMap<Element, Remembered>();
  /** The same by which media queries hold: a window is given one size after another, and comes back. */
  private readonly valuesIn = new Map<string, WeakMap<Element, Remembered>>();
  private watch: ChangeWatch | null = null;
  private isNew = true;
  private index: StyleIndex | null = null;
  private states: readonly unknown[] = [];
  private isFixed: readonly boolean[] = [];
  /** Rows of elements that are alike are one. */
  private readonly rows = new Map<string, KnownRow>();
  /** What the answer hung on, beside the sheets. */
  private inlineText = '';

  /** Whether what is in a column can be remembered at all. */
  keeps(column: number): boolean {
    return this.isFixed[column]!;
  }

  /** Null for an element that is read each time. */
  of(element: Element): Remembered | null {
    if (SIZED_BY_FONT.has(element.localName)) return null;
    let known = this.values.get(element);
    if (!known) {
      known = { facts: null, values: new Array<undefined>(COUNT).fill(undefined), row: null };
      this.values.set(element, known);
    }
    return known;
  }

  /** The one row that all that were read alike share. */
  shared(facts: string, steps: readonly RowStep[]): KnownRow {
    const key = `${facts}|${steps.map(({ column, value, from }) => `${column} ${value ?? from}`).join('|')}`;
    let row = this.rows.get(key);
    if (!row) {
      row = { facts, steps, open: steps.filter(({ value }) => value === null) };
      this.rows.set(key, row);
    }
    return row;
  }

  /** Begins to notice what changes. Whether it did so already: most pages are read once, and what is read again is worth the work. */
  watches(): boolean {
    if (this.watch) return true;
    this.watch = new ChangeWatch(document);
    return false;
  }

  /** Forgets what may not be true any more. Whether nothing had to be forgotten. To be called once it watches. */
  refresh(): boolean {
    const index = styleIndex(document);
    const changes = this.watch!.take();
    const isTouched = this.isNew || changes.isAny || index !== this.index;
    const states = statesNow();
    const isKept = !isTouched && isSame(states, this.states);
    if (!isKept) {
      this.valuesIn.clear();
      this.rows.clear();
    }
    for (const element of changes.elements) this.forget(element);
    if (isTouched || changes.elements.length > 0) this.findFixed(index);
    this.isNew = false;
    this.index = index;
    this.states = states;
    const inForce = conditionsInForce(index);
    const known = this.valuesIn.get(inForce);
    this.values = known ?? new WeakMap();
    if (!known && this.valuesIn.size >= MOST_REMEMBERED) {
      this.valuesIn.clear();
      this.rows.clear();
    }
    this.valuesIn.set(inForce, this.values);
    return isKept && changes.elements.length === 0;
  }

  /** With all that stands in it, which may have some of its styles from it. */
  private forget(element: Element): void {
    for (const each of [element, ...descendantsOf(element)])
      for (const values of this.valuesIn.values()) values.delete(each);
  }

  /** A script that changes the tree at each size seldom changes what can be remembered: all rules are read for that. */
  private findFixed(index: StyleIndex): void {
    const inline = [...document.querySelectorAll('[style]')].map(inlineStyleOf).filter(mayVary);
    const inlineText = inline.map(({ cssText }) => cssText).join('\n');
    if (index === this.index && inlineText === this.inlineText) return;
    this.inlineText = inlineText;
    this.isFixed = fixedColumns(index, inline);
  }
}

function isSame(a: readonly unknown[], b: readonly unknown[]): boolean {
  return a.length === b.length && a.every((value, i) => value === b[i]);
}

/** Which media queries hold, as a text. */
function conditionsInForce({ conditions }: StyleIndex): string {
  // Many rules stand in the same few queries.
  const holds = new Map<string, boolean>();
  return conditions
    .map(({ mediaText }) => {
      let isHeld = holds.get(mediaText);
      if (isHeld === undefined) holds.set(mediaText, (isHeld = matchMedia(mediaText).matches));
      return `${mediaText} ${isHeld}`;
    })
    .join();
}

/** What is neither of the tree nor of the sheets and decides which rules are in force where. */
function statesNow(): unknown[] {
  const animations = document
    .getAnimations()
    .flatMap((animation) => [animation, animation.playState, animation.currentTime]);
  return [devicePixelRatio, ...document.querySelectorAll(STATES), ...animations];
}

/** What says something of a column, by the names of the properties that do. */
function saysOf(column: string): (property: string) => boolean {
  if (column.endsWith('radius')) return (property) => property.endsWith('radius');
  if (column.startsWith('scroll-')) return (property) => property.startsWith('scroll-');
  if (OFFSETS.includes(column)) return (property) => property === column || property.startsWith('inset');
  const members = FOLLOWED[column] ?? [column];
  return (property) => members.includes(property);
}

function fixedColumns(index: StyleIndex, inline: readonly CSSStyleDeclaration[]): boolean[] {
  const found = varyingProperties(index, inline);
  if (found === null) return new Array<boolean>(COUNT).fill(false);
  const varying = [...found];
  return [
    ...COLUMNS.map((column) => !OF_BOX.includes(column) && !varying.some(saysOf(column))),
    !SETTING_PROPERTIES.some((property) => found.has(property)),
    !varying.some((property) => /^border.*width$/.test(property)),
    !varying.some((property) => property.startsWith('padding')),
  ];
}

export interface KnownStyles {
  /** What the style sheets say; null where that can't be known. */
  readonly facts: SheetFacts | null;
  /** Null where what an element has may hang on what can't be seen: frames, shadow trees, sheets of another origin. */
  readonly memory: Pick<StyleMemory, 'keeps' | 'of' | 'shared'> | null;
}

const memory = new StyleMemory();
let lastFacts: SheetFacts | null = null;

/** What is known of the document's styles before they are read. @param isTrial nothing of an experiment is remembered */
export function knownStyles(isTrial: boolean): KnownStyles {
  if (isTrial || !memory.watches()) return { facts: sheetFacts(document), memory: null };
  const isSame = memory.refresh();
  if (!isSame || lastFacts === null) lastFacts = sheetFacts(document);
  return { facts: lastFacts, memory: lastFacts?.isOneTree === true ? memory : null };
}
