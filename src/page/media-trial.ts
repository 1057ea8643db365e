import { styleRules } from './style-rules.js';

/** A media query that does not hold at this width, though its rules are about given elements. */
export interface IdleMedia {
  readonly condition: string;
  /** Of its first rule about one of the elements. */
  readonly selector: string;
  readonly property: string;
  readonly value: string;
  /** The style sheet's address; null for a style element. */
  readonly sheet: string | null;
  /** Rules of the same selector that stand before this one in the sheet. */
  readonly before: number;
}

const WIDTH = /\b(?:(?:min|max)-)?width\b/;
const MOST = 8;

/** The media queries about the width that do not hold, each once, whose rules are about one of the elements. */
export function idleMedia(elements: readonly (Element | null)[]): IdleMedia[] {
  const found = new Map<string, IdleMedia>();
  const met = new Map<CSSStyleSheet, Map<string, number>>();
  for (const { selector, selectorText, style, media, sheet } of styleRules(document)) {
    if (found.size >= MOST) break;
    const inSheet = met.get(sheet) ?? new Map<string, number>();
    met.set(sheet, inSheet);
    const before = inSheet.get(selectorText) ?? 0;
    inSheet.set(selectorText, before + 1);
    const condition = media.findLast(isIdle)?.mediaText;
    if (condition === undefined || found.has(condition) || style.length === 0) continue;
    if (!elements.some((element) => element?.matches(selector))) continue;
    const property = style[0]!;
    const value = style.getPropertyValue(property);
    found.set(condition, { condition, selector: selectorText, property, value, sheet: sheet.href, before });
  }
  return [...found.values()];
}

function isIdle({ mediaText }: MediaList): boolean {
  return WIDTH.test(mediaText) && !/print|hover/.test(mediaText) && !matchMedia(mediaText).matches;
}

/** Puts the rules of a media query in force, wherever it stands, until what it returns is called. */
export function withMedia(condition: string): () => void {
  const changed = new Set<MediaList>();
  for (const { media } of styleRules(document)) {
    for (const list of media) if (list.mediaText === condition) changed.add(list);
  }
  for (const list of changed) list.mediaText = 'all';
  return () => {
    for (const list of changed) list.mediaText = condition;
  };
}
