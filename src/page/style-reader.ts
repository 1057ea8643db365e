import { DECLARED_PROPERTIES, STYLE_PROPERTIES } from '../core/layout/snapshot.js';
import type { Edges } from './edges.js';
import type { Interner, RowInterner } from './columns.js';
import { sheetFacts, type SheetFacts } from './sheet-facts.js';

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

/** Inherited: an element without text of its own has its parent's. */
const OF_TEXT = [
  'white-space',
  'overflow-wrap',
  'font-family',
  'font-size',
  'line-height',
  'color',
  'text-indent',
] as const;

/** Initial unless some style sheet or style attribute names them, so pages that don't are spared the reading. */
const RARE: Readonly<Record<string, string>> = {
  opacity: '1',
  transform: 'none',
  filter: 'none',
  float: 'none',
  'background-image': 'none',
  translate: 'none',
  rotate: 'none',
  scale: 'none',
  perspective: 'none',
  'backdrop-filter': 'none',
  'mix-blend-mode': 'normal',
  isolation: 'auto',
  'mask-image': 'none',
  'clip-path': 'none',
  contain: 'none',
  'will-change': 'auto',
  'container-type': 'normal',
  'box-shadow': 'none',
  'writing-mode': 'horizontal-tb',
  'text-transform': 'none',
  'image-rendering': 'auto',
};

const BORDERS = [
  'border-top-color',
  'border-right-color',
  'border-bottom-color',
  'border-left-color',
] as const;
const RADII = [
  'border-top-left-radius',
  'border-top-right-radius',
  'border-bottom-right-radius',
  'border-bottom-left-radius',
];
const SIZES: Readonly<Record<string, string>> = {
  width: 'auto',
  'min-width': 'auto',
  'max-width': 'none',
  height: 'auto',
  'max-height': 'none',
};
/** Those that only the styles of the page give a size; of others, the browser's own styles and attributes do. */
const UNSIZED = new Set(
  (
    'div span p a li ul ol dl dt dd h1 h2 h3 h4 h5 h6 section article header footer nav main aside figure figcaption ' +
    'strong em b i u s small code pre blockquote label form address abbr cite time sup sub kbd samp var mark'
  ).split(' '),
);
const INHERITED = new Set(['writing-mode', 'text-transform', 'image-rendering']);
const OFFSETS = ['left', 'right', 'top', 'bottom'];
const COLUMNS = [...STYLE_PROPERTIES, ...DECLARED_PROPERTIES] as readonly string[];
const COLUMN = new Map(COLUMNS.map((property, i) => [property, i]));
const columnOf = (property: string) => COLUMN.get(property)!;

/** Reads computed styles into rows of string numbers, only what can matter of an element: reading is what collecting costs. */
export class StyleReader {
  /** What the style sheets say; null where that can't be known. */
  private readonly sheets: SheetFacts | null;
  /** A row for what has no style. */
  readonly none: number;
  /** Every row that was read, by its number. */
  private readonly rows: number[][] = [];
  private readonly rare: readonly string[];
  private readonly hasRadius: boolean;
  private readonly hasPopovers: boolean;
  private readonly initial: readonly number[];

  constructor(
    private readonly strings: Interner,
    private readonly styles: RowInterner,
    document: Document,
  ) {
    const followed = [
      ...Object.keys(RARE).filter((property) => !INHERITED.has(property)),
      ...Object.keys(SIZES),
    ];
    this.sheets = sheetFacts(document, followed);
    this.hasPopovers = document.querySelector('[popover]') !== null;
    const used = this.sheets?.properties ?? null;
    this.rare = Object.keys(RARE).filter((property) => used === null || used.has(property));
    this.hasRadius = used === null || RADII.some((property) => used.has(property));
    this.initial = COLUMNS.map((property) => strings.number(RARE[property] ?? ''));
    const none = COLUMNS.map(() => strings.number(''));
    this.none = styles.number(none);
    this.rows[this.none] = none;
  }

  /** Whether some rule may make a pseudo-element of an element. */
  mayHavePseudo(element: Element): boolean {
    return this.sheets?.hosts?.has(element) ?? element.localName !== 'svg';
  }

  /** What a row has for a property. */
  value(row: number, property: string): string {
    return this.strings.strings[this.rows[row]?.[columnOf(property)] ?? -1] ?? '';
  }

  /**
   * @param element null for a pseudo-element, which has no computed style map
   * @param parentRow the row of the parent, for what is inherited
   */
  read(style: CSSStyleDeclaration, element: Element | null, parentRow: number, facts: StyleFacts): number {
    const row = [...this.initial];
    const set = (property: string, value: string) => {
      row[columnOf(property)] = this.strings.number(value);
    };
    const read = (property: string): string => {
      const value = style.getPropertyValue(property);
      set(property, value);
      return value;
    };
    const display = read('display');
    const position = read('position');
    read('visibility');
    read('direction');
    const overflow = read('overflow-x') + read('overflow-y');
    read('box-sizing');
    read('background-color');
    // An element's own attributes say what no rule does.
    const own = element === null || element.hasAttribute('style') || element.localName === 'svg';
    const maySet = (property: string) => own || (this.sheets?.setOn.get(property)?.has(element) ?? true);
    for (const property of this.rare) if (maySet(property)) read(property);
    if (row[columnOf('background-image')] !== this.initial[columnOf('background-image')])
      read('background-size');
    const isItem = /flex|grid/.test(facts.parentDisplay);
    if (position !== 'static' || isItem) read('z-index');
    if (position === 'absolute' || position === 'fixed') read('clip');
    if (/hidden|clip|auto|scroll/.test(overflow)) {
      read('text-overflow');
      read('-webkit-line-clamp');
      if (overflow.includes('clip')) read('overflow-clip-margin');
      if (this.hasRadius) for (const property of RADII) read(property);
    }
    if (/flex/.test(display)) {
      read('flex-direction');
      read('flex-wrap');
    }
    if (isItem) read('flex-shrink');
    if (display.startsWith('inline')) read('vertical-align');
    if (facts.isReplaced) read('object-fit');
    if (facts.isRoot) read('scroll-padding-top');
    if (facts.isAnchorTarget) read('scroll-margin-top');
    for (const [side, property] of BORDERS.entries()) if (facts.border[side] !== 0) read(property);
    const parent = this.rows[parentRow];
    if (facts.hasText || !parent) for (const property of OF_TEXT) read(property);
    else for (const property of OF_TEXT) row[columnOf(property)] = parent[columnOf(property)]!;
    const hasSize = display !== 'inline' || facts.isReplaced;
    const declared = [
      ...(hasSize && isItem ? ['flex-basis'] : []),
      ...(position !== 'static' ? OFFSETS : []),
    ];
    const isUnsized = !own && UNSIZED.has(element.localName) && !this.hasPopovers;
    if (hasSize) {
      for (const [property, initial] of Object.entries(SIZES)) {
        if (isUnsized && !maySet(property)) set(property, initial);
        else declared.push(property);
      }
    }
    const map = declared.length > 0 ? element?.computedStyleMap() : undefined;
    for (const property of declared) {
      set(property, map ? String(map.get(property) ?? '') : style.getPropertyValue(property));
    }
    const number = this.styles.number(row);
    this.rows[number] ??= row;
    return number;
  }
}
