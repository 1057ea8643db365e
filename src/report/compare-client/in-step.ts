import { unpackPlaces } from '../../core/compare/packed-places.js';
import type { Place } from '../../core/compare/places.js';
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
  /** With the places of what each shows, which are asked for at every scroll. */
  private readonly windows = new Map<Window, readonly Place[]>();
  /** Which the reader scrolls; what the others do follows from it. */
  private leading: Window | null = null;

  /** @returns what takes it away again */
  add(window: Window): () => void {
    this.windows.set(window, placesIn(window));
    return () => void this.windows.delete(window);
  }

  scrolled(element: HTMLElement): void {
    const from = [...this.windows.keys()].find((window) => window.element === element);
    if (!from || (this.leading !== null && this.leading !== from)) return;
    this.leading = from;
    const looked = lookedAt(from, this.windows.get(from)!);
    for (const [window, places] of this.windows) {
      if (window === from) continue;
      window.element.scrollTop = scrollToSamePlace(looked, element.scrollTop, lookedAt(window, places));
    }
    // What scrolls by our doing is told in the next frame.
    requestAnimationFrame(() => requestAnimationFrame(() => (this.leading = null)));
  }
}

function placesIn({ pair, side }: Window): readonly Place[] {
  const places = comparison.places[pair.page];
  return places ? unpackPlaces(places, `${side} ${pair[side]}`) : [];
}

function lookedAt({ pair, side, element }: Window, places: readonly Place[]): Looked {
  const { width, height } = pair.sizes[side] ?? { width: 1, height: 1 };
  const picture = element.querySelector('img');
  return {
    places,
    pageHeight: height,
    factor: (picture?.clientWidth ?? width) / width,
    windowHeight: element.clientHeight,
  };
}
