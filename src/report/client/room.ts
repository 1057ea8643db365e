import { computed, signal } from '@preact/signals';
import { factorOf, type Room } from '../view/scale.js';
import type { ProfileRecord } from '../view/lineup.js';
import { shownProfiles, view } from './state.js';

/** Room for panes, px of the window: what the wall measures of itself. */
export const room = signal<Room>({ width: 800, height: 500, ratio: devicePixelRatio });

/** What a pane has around its picture, px. */
export const PANE_HEAD = 40;
export const STRIP = 12;
/** A pane is never narrower: its head has to be read. */
const LEAST_PANE = 132;
export const GAP = 16;
/** Room for one pane at a time only, px. */
const SMALL = 600;

export interface PaneBox {
  readonly profile: ProfileRecord;
  /** Px of the window for a CSS px. */
  readonly factor: number;
  /** Of the window onto the page, px. */
  readonly width: number;
  readonly height: number;
  /** Of the whole pane in the row. */
  readonly left: number;
  readonly outer: number;
}

export const paneBoxes = computed<readonly PaneBox[]>(() => {
  const { scale, zoom } = view.value;
  const all = shownProfiles.value;
  const here = room.value;
  let left = GAP;
  return all.map((profile) => {
    const factor = factorOf(scale, profile, all, here) * zoom;
    const width = profile.width * factor;
    const height = Math.min(profile.height * factor, here.height);
    // In the hand there is one at a time.
    const outer = Math.max(here.width < SMALL ? here.width + STRIP : LEAST_PANE, width + STRIP);
    const box = { profile, factor, width, height, left, outer };
    left += outer + GAP;
    return box;
  });
});

export const wallWidth = computed(() => {
  const last = paneBoxes.value.at(-1);
  return last ? last.left + last.outer + GAP : 0;
});
