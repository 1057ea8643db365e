import type { Declaration } from '../core/cause/cause.js';
import type { FoundQuery } from '../core/css/found-query.js';
import type { LayoutSnapshot } from '../core/layout/snapshot.js';
import type { Rect } from '../core/geometry/rect.js';
import type { LayoutChange, StyleChange } from '../page/trial.js';

export type { LayoutChange, StyleChange };

/** A media query that does not hold at this width, with the first declaration in it that is about given elements. */
export interface IdleMedia {
  readonly condition: string;
  readonly declaration: Declaration;
}

export type Generated = 'before' | 'after';

/** The live page behind a snapshot, for experiments. Elements are told by their `uid`. */
export interface Probe {
  /** The page as it would be laid out with a change, which is taken back before this returns. */
  layoutWith(change: LayoutChange): Promise<LayoutSnapshot>;
  /**
   * A part of the page as it would look with styles changed, once for each set of them, each taken back before the next: PNG files at device
   * pixels; null where the engine takes none. @param area CSS px from the page's top left
   */
  picturesWith(changes: readonly (readonly StyleChange[])[], area: Rect): Promise<Buffer[] | null>;
  /** The media queries about the width that do not hold, though their rules are about one of the elements. */
  idleMedia(uids: readonly number[]): Promise<IdleMedia[]>;
  /**
   * The author's declaration of a property that is in force on an element; null where there is none.
   * @param generated which pseudo-element it is, or null for an element
   */
  declarationOf(uid: number, property: string, generated: Generated | null): Promise<Declaration | null>;
  /** Every condition on sizes that the page names, where it names it. Empty where the engine does not tell of style sheets. */
  queries(): Promise<FoundQuery[]>;
  /** What the screen shows with the page scrolled to a height, CSS px, a PNG file at device pixels; null where the engine takes none. The page is where it was afterwards. */
  screenAt(y: number): Promise<Buffer | null>;
  /**
   * What the screen shows with the page scrolled to a height and at rest there, CSS px, once for each set of changed styles, each taken back
   * before the next: PNG files at device pixels; null where the engine takes none. The page is where it was afterwards, and at rest.
   */
  screensWith(changes: readonly (readonly StyleChange[])[], y: number): Promise<Buffer[] | null>;
  close(): Promise<void>;
}
