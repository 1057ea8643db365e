import { collect, type Collected } from './collect.js';
import { putOn, takeBack } from './experiment.js';
import { withMedia } from './media-trial.js';
import { withViewport } from './viewport-trial.js';

/** Styles put on some elements, over everything else. */
export interface StyleChange {
  /** Of elements and pseudo-elements of the page. */
  readonly uids: readonly number[];
  readonly styles: Readonly<Record<string, string>>;
}

/** What an experiment changes of a page: styles, its viewport meta tag, or a media query that is put in force. */
export type LayoutChange =
  { readonly styles: readonly StyleChange[] } | { readonly viewport: string } | { readonly media: string };

let held: (() => void | Promise<void>) | null = null;

/** The snapshot as it would be with a change, which is in force until `endTrial`. */
export async function trial(change: LayoutChange): Promise<Collected> {
  await dress(change);
  return collect([], true);
}

/** Puts a change in force until `endTrial`, without reading the page. */
export async function dress(change: LayoutChange): Promise<void> {
  await endTrial();
  held = await begin(change);
}

export async function endTrial(): Promise<void> {
  const end = held;
  held = null;
  await end?.();
}

async function begin(change: LayoutChange): Promise<() => void | Promise<void>> {
  if ('viewport' in change) return withViewport(change.viewport);
  if ('media' in change) return withMedia(change.media);
  for (const { uids, styles } of change.styles) for (const uid of uids) putOn(uid, styles);
  return takeBack;
}
