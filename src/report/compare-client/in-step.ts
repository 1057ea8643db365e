import { unpackPlaces } from '../../core/compare/packed-places.js';
import { scrollToSamePlace, type Looked } from '../../core/compare/same-place.js';
import type { PairRecord } from '../../run/compare/record.js';
import { comparison } from './state.js';

export type Side = 'a' | 'b';

/** A window onto the picture of one side of a pair. */
export interface Window {
  readonly pair: PairRecord;
  readonly side: Side;
  readonly element: HTMLElement;
}

/** Windows that are scrolled together, by what both pictures show: a heading stays at the same height in all of them. */
export class Together {
  private readonly windows = new Set<Window>();
  /** Which the reader scrolls; what the others do follows from it. */
  private leading: Window | null = null;

  /** @returns what takes it away again */
  add(window: Window): () => void {
    this.windows.add(window);
    return () => void this.windows.delete(window);
  }

  scrolled(element: HTMLElement): void {
    const from = [...this.windows].find((window) => window.element === element);
    if (!from || (this.leading !== null && this.leading !== from)) return;
    this.leading = from;
    const looked = lookedAt(from);
    for (const window of this.windows) {
      if (window === from) continue;
      window.element.scrollTop = scrollToSamePlace(looked, element.scrollTop, lookedAt(window));
    }
    // What scrolls by our doing is told in the next frame.
    requestAnimationFrame(() => requestAnimationFrame(() => (this.leading = null)));
  }
}

function lookedAt({ pair, side, element }: Window): Looked {
  const { width, height } = pair.sizes[side] ?? { width: 1, height: 1 };
  const places = comparison.places[pair.page];
  const picture = element.querySelector('img');
  return {
    places: places ? unpackPlaces(places, `${side} ${pair[side]}`) : [],
    pageHeight: height,
    factor: (picture?.clientWidth ?? width) / width,
    windowHeight: element.clientHeight,
  };
}
