import { handOver, isHanded, rulesIn, type WrittenSheet } from './handed-sheets.js';

/** A style rule with what it stands in. Selectors are written out only when they are asked for: it is what costs most. */
export class FoundRule {
  private text: string | null = null;

  constructor(
    private readonly rule: CSSStyleRule,
    readonly style: CSSStyleDeclaration,
    /** The style rule that it is nested in; null at the top of a sheet. */
    private readonly holder: FoundRule | null,
    /** The media queries that it stands in, the outermost first, those of imports too. */
    readonly media: readonly MediaList[],
    readonly sheet: CSSStyleSheet,
    /** Whether it stands in nothing that the browser says it does not support. */
    readonly isSupported: boolean,
    /** Whether its selector means the same as at the top of a sheet. */
    readonly isPlain: boolean,
  ) {}

  /** Whether the page itself can read it. What it can't is not known in every page that is opened, but only where it is kept open. */
  get isOfOrigin(): boolean {
    return !isHanded(this.sheet);
  }

  /** As it is written. */
  get selectorText(): string {
    this.text ??= this.rule.selectorText;
    return this.text;
  }

  /** As it would stand by itself: the selectors of the rules round it are put in. */
  get selector(): string {
    return this.holder === null ? this.selectorText : nested(this.selectorText, this.holder.selector);
  }
}

/** Declarations that are no style rule's, or whose selector says nothing without what stands round it. */
export interface BoundDeclarations {
  readonly style: CSSStyleDeclaration;
  /** Whether it is a rule of elements; else a step of an animation. */
  readonly isOfElements: boolean;
  readonly hasSelector: boolean;
}

/** All that the style sheets of a document or shadow tree hold, in their order. */
export interface StyleIndex {
  readonly rules: readonly FoundRule[];
  readonly bound: readonly BoundDeclarations[];
  /** The media queries of sheets, imports and rules. */
  readonly conditions: readonly MediaList[];
  /** The kinds of other at-rules, by the names of their interfaces. */
  readonly otherRules: ReadonlySet<string>;
  /** The sheets that could not be read: they are of another origin. */
  readonly unread: readonly CSSStyleSheet[];
}

type Root = Document | ShadowRoot;

const kept = new WeakMap<Root, Reading>();

/**
 * The style sheets of a document or shadow tree: read once, and again only when sheets or rules came or went or a declaration
 * got longer or shorter. (What a script writes over in place, as many properties as before, is not noticed.)
 */
export function styleIndex(root: Root): StyleIndex {
  const known = kept.get(root);
  if (known?.isCurrent()) return known;
  const fresh = new Reading(root);
  kept.set(root, fresh);
  return fresh;
}

/** The addresses of sheets that the page can't read. */
export function unreadSheets(root: Root): string[] {
  return styleIndex(root).unread.flatMap(({ href }) => href ?? []);
}

/** Makes what is written in sheets of other origins known. */
export function handSheets(written: readonly WrittenSheet[]): void {
  handOver(styleIndex(document).unread, written);
}

/** What was worked out from the sheets of a root, for as long as these are the same. */
export function perSheets<T>(compute: (index: StyleIndex) => T): (root: Root) => T {
  const answers = new WeakMap<StyleIndex, T>();
  return (root) => {
    const index = styleIndex(root);
    let answer = answers.get(index);
    if (answer === undefined) answers.set(index, (answer = compute(index)));
    return answer;
  };
}

/** What a rule takes over from what it stands in. */
interface Around {
  readonly media: readonly MediaList[];
  /** The style rule that it is nested in. */
  readonly holder: FoundRule | null;
  readonly isPlain: boolean;
  readonly isSupported: boolean;
  readonly sheet: CSSStyleSheet;
}

class Reading implements StyleIndex {
  readonly rules: FoundRule[] = [];
  readonly bound: BoundDeclarations[] = [];
  readonly conditions: MediaList[] = [];
  readonly otherRules = new Set<string>();
  readonly unread: CSSStyleSheet[] = [];
  private readonly sheets: readonly CSSStyleSheet[];
  private readonly enabled: readonly boolean[];
  /** Everything that holds rules, and how many each held. */
  private readonly groups: { readonly rules: CSSRuleList; readonly length: number }[] = [];
  private readonly declarations: CSSStyleDeclaration[] = [];
  private readonly properties: number;

  constructor(private readonly root: Root) {
    this.sheets = sheetsOf(root);
    this.enabled = this.sheets.map(({ disabled }) => !disabled);
    for (const sheet of this.sheets) {
      const media = sheet.media.length > 0 ? [sheet.media] : [];
      this.conditions.push(sheet.media);
      this.readSheet(sheet, { media, holder: null, isPlain: true, isSupported: !sheet.disabled, sheet });
    }
    this.properties = this.countProperties();
  }

  isCurrent(): boolean {
    const { sheets, enabled } = this;
    const now = sheetsOf(this.root);
    return (
      now.length === sheets.length &&
      now.every((sheet, i) => sheet === sheets[i] && !sheet.disabled === enabled[i]) &&
      !this.unread.some(isHanded) &&
      this.groups.every(({ rules, length }) => rules.length === length) &&
      this.countProperties() === this.properties
    );
  }

  private countProperties(): number {
    let count = 0;
    for (const { length } of this.declarations) count += length;
    return count;
  }

  private readSheet(sheet: CSSStyleSheet, around: Around): void {
    const rules = rulesIn(sheet);
    if (rules) this.readRules(rules, around);
    else this.unread.push(sheet);
  }

  private readRules(rules: CSSRuleList, around: Around): void {
    this.groups.push({ rules, length: rules.length });
    for (const rule of rules) this.readRule(rule, around);
  }

  private readRule(rule: CSSRule, around: Around): void {
    if (rule instanceof CSSStyleRule) this.readStyleRule(rule, around);
    else if (rule instanceof CSSMediaRule) {
      this.conditions.push(rule.media);
      this.readRules(rule.cssRules, { ...around, media: [...around.media, rule.media] });
    } else if (rule instanceof CSSImportRule) {
      this.conditions.push(rule.media);
      const { styleSheet: sheet } = rule;
      if (sheet) this.readSheet(sheet, { ...around, media: [...around.media, rule.media], sheet });
    } else if (rule instanceof CSSKeyframesRule) {
      // What moves is known by its animation.
      for (const frame of rule.cssRules)
        this.bound.push({
          style: (frame as CSSKeyframeRule).style,
          isOfElements: false,
          hasSelector: false,
        });
    } else if (!(rule instanceof CSSFontFaceRule)) this.readOther(rule, around);
  }

  private readStyleRule(rule: CSSStyleRule, around: Around): void {
    const { style } = rule;
    const { holder, media, sheet, isSupported, isPlain } = around;
    const found = new FoundRule(rule, style, holder, media, sheet, isSupported, isPlain);
    this.rules.push(found);
    this.declarations.push(style);
    if (rule.cssRules.length > 0) this.readRules(rule.cssRules, { ...around, holder: found, isPlain: false });
  }

  /** Conditions, layers, scopes, containers, and declarations that stand in no rule of their own. */
  private readOther(rule: CSSRule, around: Around): void {
    this.otherRules.add(rule.constructor.name);
    if ('style' in rule) {
      const { style } = rule as CSSRule & { style: CSSStyleDeclaration };
      this.bound.push({ style, isOfElements: true, hasSelector: 'selectorText' in rule });
      this.declarations.push(style);
    }
    if (!('cssRules' in rule)) return;
    const isSupported =
      around.isSupported && (!(rule instanceof CSSSupportsRule) || CSS.supports(rule.conditionText));
    const isPlain = around.isPlain && !('style' in rule) && rule.constructor.name !== 'CSSScopeRule';
    this.readRules((rule as CSSGroupingRule).cssRules, { ...around, isSupported, isPlain });
  }
}

function sheetsOf(root: Root): CSSStyleSheet[] {
  return [...root.styleSheets, ...root.adoptedStyleSheets];
}

/** CSS Nesting 1, section 3: `&` stands for the selector of the rule round it, which begins a selector without one. */
function nested(selector: string, around: string): string {
  return selector.includes('&') ? selector.replaceAll('&', `:is(${around})`) : `:is(${around}) ${selector}`;
}
