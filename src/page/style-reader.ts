import { HOLDERS, holdsAbsolute, holdsFixed } from '../core/css/containing.js';
import { settingOf } from './contents.js';
import { edgesIn, edgesOf, marginsOf, NO_EDGES, type Edges } from './edges.js';
import type { Interner, RowInterner } from './columns.js';
import type { SheetFacts } from './sheet-facts.js';
import { BORDERS, INHERITED, OF_TEXT, OFFSETS, RADII, RARE, SIZES } from './style-groups.js';
import {
  BORDER_WIDTH,
  COLUMNS,
  PADDING,
  SETTING,
  type KnownRow,
  type KnownStyles,
  type Remembered,
  type RowStep,
} from './style-memory.js';
import { enlargedBy, type Drawn } from './page-px.js';
import { EDGELESS_TAGS, PLAIN_TAGS, UNSIZED_TAGS } from './plain-tags.js';

/** What decides which properties of an element can matter. */
export interface StyleFacts {
  /** Has words of its own, or is a field: what is inherited for text is read from it. */
  readonly hasText: boolean;
  readonly isReplaced: boolean;
  readonly isRoot: boolean;
  readonly isAnchorTarget: boolean;
  readonly parentDisplay: string;
  /** Border widths, in the order of `Edges`. */
  readonly border: Edges;
}

/** A ground that is not painted. */
const NOTHING = /^(transparent|rgba\(0, 0, 0, 0\)|)$/;
/** Read of what has text alone; the size of the font is not among them: room is measured in multiples of it, text in it or not. */
const TEXT_ONLY: ReadonlySet<string> = new Set(OF_TEXT.filter((property) => property !== 'font-size'));
const COLUMN = new Map(COLUMNS.map((property, i) => [property, i]));
const columnOf = (property: string) => COLUMN.get(property)!;
/** Properties that are read of every element and mean nothing where there is no box, and their initial values. */
const OF_BOX = {
  position: 'static',
  'overflow-x': 'visible',
  'overflow-y': 'visible',
  'background-color': 'rgba(0, 0, 0, 0)',
  'z-index': 'auto',
};
/** What enlarges what is drawn. */
const SCALING = ['transform', 'scale'];
/** What decides which other properties are read. */
const DECISIVE = ['display', 'position', 'overflow-x', 'overflow-y', 'background-image'].map(columnOf);

/** Reads computed styles into rows of string numbers, only what can matter of an element: reading is what collecting costs. */
export class StyleReader {
  /** What the style sheets say; null where that can't be known. */
  private readonly sheets: SheetFacts | null;
  private readonly memory: KnownStyles['memory'];
  /** A row for what has no style. */
  readonly none: number;
  private readonly holds = new Map<number, { fixed: boolean; absolute: boolean }>();
  /** Every row that was read, by its number. */
  private readonly rows: number[][] = [];
  private readonly rare: readonly string[];
  private readonly inherited: readonly string[];
  private readonly hasRadius: boolean;
  private readonly mayHold: boolean;
  private readonly mayScale: boolean;
  private readonly initial: readonly number[];
  private readonly known = new KnownRows();
  private readonly maySkip: boolean;
  private lastKept: { readonly element: Element; readonly kept: Remembered | null } | null = null;

  constructor(
    private readonly strings: Interner,
    private readonly styles: RowInterner,
    { facts, memory }: KnownStyles,
  ) {
    this.sheets = facts;
    this.memory = memory;
    const used = this.sheets?.properties ?? null;
    const isUsed = (property: string) => used === null || used.has(property) || !(property in RARE);
    this.rare = Object.keys(RARE).filter((property) => isUsed(property) && !INHERITED.includes(property));
    this.mayHold = this.rare.some((property) => HOLDERS.includes(property));
    this.mayScale = this.rare.some((property) => SCALING.includes(property));
    this.inherited = INHERITED.filter(isUsed);
    this.hasRadius = used === null || RADII.some((property) => used.has(property));
    this.initial = COLUMNS.map((property) => strings.number(RARE[property] ?? ''));
    const none = COLUMNS.map(() => strings.number(''));
    this.none = styles.number(none);
    this.rows[this.none] = none;
    this.maySkip = memory !== null && DECISIVE.every((column) => memory.keeps(column));
  }

  /** The radii of a box that is drawn, from the top left on, with spaces between; empty for what has none, or is not drawn. */
  corners(style: CSSStyleDeclaration, element: Element, row: number, border: Edges): string {
    const isDrawn = !NOTHING.test(this.value(row, 'background-color')) || border.some((side) => side !== 0);
    if (!this.hasRadius || !isDrawn) return '';
    const kept = this.kept(element);
    const radii = RADII.map((property) =>
      this.once(kept, columnOf(property), () => style.getPropertyValue(property)),
    );
    return radii.every((radius) => radius === '0px') ? '' : radii.join(' ');
  }

  /** Whether some rule may make a pseudo-element of an element. */
  mayHavePseudo(element: Element): boolean {
    return this.sheets?.hosts?.has(element) ?? element.localName !== 'svg';
  }

  /** Whether anything but the browser's own styles may set what was followed on an element; null is a pseudo-element. */
  private maySet(element: Element | null, name: string): boolean {
    const { sheets } = this;
    const elements = sheets?.setOn.get(name);
    if (!sheets || !elements || element === null) return true;
    return elements.has(element) || sheets.styledOtherwise.has(element) || element.localName === 'svg';
  }

  /** The margins or paddings of an element, which most elements in a row of text have none of. */
  edges(style: CSSStyleDeclaration, element: Element | null, name: 'margin' | 'padding'): Edges {
    const isBare = element !== null && EDGELESS_TAGS.has(element.localName) && !this.maySet(element, name);
    if (isBare) return NO_EDGES;
    if (element === null) return edgesOf(style, name);
    // Margins share out what room there is.
    if (name === 'margin') return marginsOf(style, element);
    return edgesIn(this.once(this.kept(element), PADDING, () => style.getPropertyValue(name)));
  }

  /** By how much transforms draw the lengths of an element larger. @param holder the same of what it stands in */
  drawn(element: Element, holder: Drawn): Drawn {
    if (!this.mayScale || !SCALING.some((property) => this.maySet(element, property))) return holder;
    const { transform, scale } = getComputedStyle(element);
    if (transform === 'none' && scale === 'none') return holder;
    return { outer: holder.own, own: holder.own * enlargedBy(transform, scale) };
  }

  /** The widths of the borders of an element; null is a pseudo-element. */
  border(style: CSSStyleDeclaration, element: Element | null): Edges {
    return edgesIn(this.once(this.kept(element), BORDER_WIDTH, () => style.getPropertyValue('border-width')));
  }

  /** How the words of an element are set. */
  setting(style: CSSStyleDeclaration, element: Element): string {
    return this.once(this.kept(element), SETTING, () => settingOf(style));
  }

  /** How an element is laid out, before its row is read. */
  display(style: CSSStyleDeclaration, element: Element): string {
    return this.once(this.kept(element), columnOf('display'), () => style.display);
  }

  /** What is remembered of an element; null where nothing is, as of pseudo-elements. */
  private kept(element: Element | null): Remembered | null {
    if (element === null || this.memory === null) return null;
    if (this.lastKept?.element !== element) this.lastKept = { element, kept: this.memory.of(element) };
    return this.lastKept.kept;
  }

  /** What is remembered in a column, else what is read now. */
  private once(kept: Remembered | null, column: number, read: () => string): string {
    if (kept === null || !this.memory!.keeps(column)) return read();
    return (kept.values[column] ??= read());
  }

  /** What a row has for a property. */
  value(row: number, property: string): string {
    return this.strings.strings[this.rows[row]?.[columnOf(property)] ?? -1] ?? '';
  }

  /** Which positioned boxes an element of a style is the containing block of. */
  holding(row: number): { readonly fixed: boolean; readonly absolute: boolean } {
    let known = this.holds.get(row);
    if (!known) {
      const value = (property: string) => this.value(row, property);
      const isInline = value('display') === 'inline';
      // Most pages set nothing that holds a box but its position.
      known = this.mayHold
        ? { fixed: holdsFixed(value, isInline), absolute: holdsAbsolute(value, isInline) }
        : { fixed: false, absolute: value('position') !== 'static' };
      this.holds.set(row, known);
    }
    return known;
  }

  /**
   * @param element null for a pseudo-element, which has no computed style map
   * @param parentRow the row of the parent, for what is inherited
   */
  read(style: CSSStyleDeclaration, element: Element | null, parentRow: number, facts: StyleFacts): number {
    const kept = this.maySkip ? this.kept(element) : null;
    if (kept === null) return this.readRow(style, element, parentRow, facts, null);
    const decided = textOf(facts);
    if (kept.row?.facts === decided) return this.readKnown(kept.row, style, element!, parentRow);
    const steps: RowStep[] = [];
    const number = this.readRow(style, element, parentRow, facts, steps);
    kept.row = this.memory!.shared(decided, steps);
    return number;
  }

  /** Reads of a row that is known what may be another now, in the order of the first time. */
  private readKnown(
    known: KnownRow,
    style: CSSStyleDeclaration,
    element: Element,
    parentRow: number,
  ): number {
    const number = this.known.number(known, parentRow);
    if (number !== undefined) return number;
    const parent = this.rows[parentRow];
    const base = this.known.base(known);
    const row = [...(base ?? this.initial)];
    let map: StylePropertyMapReadOnly | null = null;
    for (const { column, value, from } of base ? known.open : known.steps) {
      if (value !== null) row[column] = this.strings.number(value);
      else if (from === 'parent') row[column] = parent![column]!;
      else {
        const property = COLUMNS[column]!;
        const now =
          from === 'style'
            ? style.getPropertyValue(property)
            : String((map ??= element.computedStyleMap()).get(property) ?? '');
        row[column] = this.strings.number(now);
      }
    }
    this.unbox(row);
    const read = this.styles.number(row);
    this.rows[read] ??= row;
    this.known.add(known, parentRow, row, read);
    return read;
  }

  /** @param steps where how it is read is written down; null where nobody wants to know */
  private readRow(
    style: CSSStyleDeclaration,
    element: Element | null,
    parentRow: number,
    facts: StyleFacts,
    steps: RowStep[] | null,
  ): number {
    const row = [...this.initial];
    const kept = this.kept(element);
    const set = (column: number, value: string, from: RowStep['from'] | 'kept') => {
      row[column] = this.strings.number(value);
      if (steps === null) return;
      const stays = from === 'kept' || this.memory!.keeps(column);
      steps.push({ column, value: stays ? value : null, from: from === 'kept' ? 'style' : from });
    };
    const read = (property: string): string => {
      const column = columnOf(property);
      const value = this.once(kept, column, () => style.getPropertyValue(property));
      set(column, value, 'style');
      return value;
    };
    const display = read('display');
    const position = read('position');
    const overflow = read('overflow-x') + read('overflow-y');
    read('box-sizing');
    read('background-color');
    for (const property of this.rare) if (this.maySet(element, property)) read(property);
    if (row[columnOf('background-image')] !== this.initial[columnOf('background-image')])
      read('background-size');
    const isItem = /flex|grid/.test(facts.parentDisplay);
    if (position !== 'static' || isItem) read('z-index');
    if (/grid/.test(facts.parentDisplay)) read('grid-area');
    if (position === 'absolute' || position === 'fixed') read('clip');
    if (/hidden|clip|auto|scroll/.test(overflow)) {
      read('text-overflow');
      read('-webkit-line-clamp');
      if (overflow.includes('clip')) read('overflow-clip-margin');
      if (this.hasRadius) for (const property of RADII) read(property);
      if (/auto|scroll/.test(overflow)) read('scroll-padding-top');
    }
    if (/flex/.test(display)) {
      read('flex-direction');
      read('flex-wrap');
    }
    if (isItem) {
      read('flex-shrink');
      read('flex-grow');
      read('order');
    }
    if (display.startsWith('inline')) read('vertical-align');
    if (facts.isReplaced) read('object-fit');
    if (facts.isRoot) read('scroll-padding-top');
    if (facts.isAnchorTarget) read('scroll-margin-top');
    for (const [side, property] of BORDERS.entries()) if (facts.border[side] !== 0) read(property);
    const parent = this.rows[parentRow];
    const isPlain = element !== null && PLAIN_TAGS.has(element.localName);
    for (const property of this.inherited) {
      const isFollowed = this.sheets?.setOn.has(property) ?? false;
      const isOwn = !(isPlain && isFollowed) || this.maySet(element, property);
      // What nothing is followed of is read where it matters: children can't go by it.
      const isWanted = isFollowed || facts.hasText || !TEXT_ONLY.has(property);
      if (!parent || (isOwn && isWanted)) read(property);
      else {
        const column = columnOf(property);
        row[column] = parent[column]!;
        steps?.push({ column, value: null, from: 'parent' });
      }
    }
    const hasSize = display !== 'inline' || facts.isReplaced;
    const declared = [
      ...(hasSize && isItem ? ['flex-basis'] : []),
      ...(display.endsWith('grid') ? ['grid-template-columns', 'grid-template-rows'] : []),
      ...(position !== 'static' ? OFFSETS : []),
    ];
    const isUnsized = element !== null && UNSIZED_TAGS.has(element.localName);
    if (hasSize) {
      for (const [property, initial] of Object.entries(SIZES)) {
        if (isUnsized && !this.maySet(element, property)) set(columnOf(property), initial, 'kept');
        else declared.push(property);
      }
    }
    let map: StylePropertyMapReadOnly | null = null;
    for (const property of declared) {
      const column = columnOf(property);
      const value = this.once(kept, column, () =>
        element === null
          ? style.getPropertyValue(property)
          : String((map ??= element.computedStyleMap()).get(property) ?? ''),
      );
      set(column, value, 'declared');
    }
    this.unbox(row);
    const number = this.styles.number(row);
    this.rows[number] ??= row;
    return number;
  }

  /** What has no box keeps nothing but what its words have from it (CSS Display 3, section 2.5). */
  private unbox(row: number[]): void {
    if (this.strings.strings[row[columnOf('display')]!] !== 'contents') return;
    for (const property of this.rare) row[columnOf(property)] = this.initial[columnOf(property)]!;
    for (const [property, initial] of Object.entries(OF_BOX))
      row[columnOf(property)] = this.strings.number(initial);
  }
}

/** What decides, beside the styles themselves, which of them are read. */
function textOf({ hasText, isReplaced, isRoot, isAnchorTarget, parentDisplay, border }: StyleFacts): string {
  const sides = border.map((side) => (side === 0 ? '-' : '+')).join('');
  return `${hasText} ${isReplaced} ${isRoot} ${isAnchorTarget} ${parentDisplay} ${sides}`;
}

/** What rows that are known became in one collection. */
class KnownRows {
  private readonly bases = new Map<KnownRow, readonly number[]>();
  /** By the parent's row, from which something may be taken. */
  private readonly numbers = new Map<KnownRow, Map<number, number>>();

  /** The number of a row all of whose values stay; undefined where it is not known yet. */
  number(known: KnownRow, parentRow: number): number | undefined {
    return this.numbers.get(known)?.get(parentRow);
  }

  /** The values that stay; undefined where they were not asked for yet. */
  base(known: KnownRow): readonly number[] | undefined {
    return this.bases.get(known);
  }

  add(known: KnownRow, parentRow: number, row: readonly number[], number: number): void {
    if (!this.bases.has(known)) this.bases.set(known, row);
    if (known.open.some(({ from }) => from !== 'parent')) return;
    let numbers = this.numbers.get(known);
    if (!numbers) this.numbers.set(known, (numbers = new Map<number, number>()));
    numbers.set(parentRow, number);
  }
}
