import { sideOut, type Rect } from '../geometry/rect.js';
import { isBullet } from '../intent/bullets.js';
import { isSymbols } from '../intent/typography.js';
import { controlAround } from '../layout/ancestors.js';
import type { Ink } from '../layout/scene.js';
import { FLAG_FIELD, FLAG_PLAYER } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { RenderView } from './sighting.js';

/** The start of a text, for a message. */
function excerpt(text: string): string {
  const folded = text.trim().replace(/\s+/g, ' ');
  return folded.length > 40 ? `${folded.slice(0, 38).trimEnd()}…` : folded;
}

/** The start of some words, in quotation marks. */
export function quotedWords(words: string): string {
  return `“${excerpt(words)}”`;
}

/** The words of a line, in quotation marks. */
export function quotedText(view: SnapshotView, line: number): string {
  return quotedWords(view.lineText(line));
}

export function quoted(view: SnapshotView, { line }: Ink): string {
  return quotedText(view, line);
}

/** The side of a box that something runs out of, the farther one of an axis. */
export function sideWords(inner: Rect, outer: Rect, axis: 'x' | 'y'): string {
  const side = sideOut(inner, outer, axis);
  return axis === 'x' ? `the ${side} side` : `the ${side}`;
}

/** What a reader sees or uses: `the text “…”`, `the sign “×”`, `the link “Book now”`, `a picture`. */
export function nameOf(view: SnapshotView, ink: Ink): string {
  if (isSymbols(view, ink)) return signName(view, ink);
  if (ink.kind === 'text') return `the text ${quoted(view, ink)}`;
  if (ink.kind === 'control') return controlName(view, ink.node);
  return view.has(ink.node, FLAG_PLAYER) ? 'a player' : `a ${ink.kind}`;
}

/** Signs of icon fonts stand in Unicode's private use areas: in another font they show nothing. */
function signName(view: SnapshotView, ink: Ink): string {
  if (isBullet(view, ink.node)) return `the bullet ${quoted(view, ink)}`;
  return /\p{Co}/u.test(view.lineText(ink.line)) ? 'a sign of an icon font' : `the sign ${quoted(view, ink)}`;
}

const CONTROLS: Readonly<Record<string, string>> = {
  a: 'link',
  button: 'button',
  select: 'list',
  textarea: 'field',
};

/** A control by its kind and its words: `the button “Book now”`, `a link`. */
export function controlName(view: SnapshotView, i: NodeIndex): string {
  const kind = CONTROLS[view.tag(i)] ?? (view.has(i, FLAG_FIELD) ? 'field' : 'control');
  const words = wordsIn(view, i);
  return words === '' ? `a ${kind}` : `the ${kind} “${words}”`;
}

/** So many elements are looked through for words. */
const MOST_NODES = 40;

/** The first words in an element; empty where there are none, or they are found too deep in it. */
export function wordsIn(view: SnapshotView, i: NodeIndex): string {
  const waiting = [i];
  for (let looked = 0; waiting.length > 0 && looked < MOST_NODES; looked++) {
    const at = waiting.pop()!;
    const texts = view.linesOf(at).map((line) => view.lineText(line).trim());
    // A sign of an icon font is no word.
    const words = texts.find((text) => /[\p{L}\p{N}]/u.test(text));
    if (words !== undefined) {
      // A letter that is drawn larger is read with the text that it begins.
      return excerpt(texts.find((text) => text !== words && text.startsWith(words)) ?? words);
    }
    waiting.push(...[...view.childrenOf(at)].reverse());
  }
  return '';
}

/** What is told of the first, and of how many more: the sentence goes on in the plural. */
export function andMore(others: number): { readonly more: string; readonly isMany: boolean } {
  return { more: others > 0 ? ` and ${others} more` : '', isMany: others > 0 };
}

/** How many things some inks are: a control and its words are one. */
export function thingsAmong(view: SnapshotView, inks: readonly Ink[]): number {
  const controls = new Set(inks.filter(({ kind }) => kind === 'control').map(({ node }) => node));
  return inks.filter(({ kind, node }) => kind !== 'text' || !controls.has(controlAround(view, node))).length;
}

/** As the beginning of a sentence. */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** How messages end: on what screen it was measured. */
export function onScreen({ device }: RenderView): string {
  return `on ${/^8/.test(String(device.width)) ? 'an' : 'a'} ${device.width} px wide screen`;
}

/** An element as short as it can be told apart by eye: `div.card.wide`, `nav#menu`. */
export function shortName(view: SnapshotView, i: NodeIndex): string {
  if (!view.isElement(i)) return `${shortName(view, view.parent(i))}${view.tag(i)}`;
  const id = view.id(i);
  const classes = view.classes(i).slice(0, 2);
  return view.tag(i) + (id === '' ? classes.map((name) => `.${name}`).join('') : `#${id}`);
}
