import { scrollToSamePlace, type Looked } from '../../core/compare/same-place.js';
import { pictureSize } from '../view/lineup.js';
import { paneBoxes, type PaneBox } from './room.js';
import { page, placesOn, renderOf, view } from './state.js';

/** The windows onto the page that are there now, by profile: panes out of sight have none. */
const windows = new Map<string, HTMLElement>();
/** Where panes are brought to; what scrolls there by our doing leads no other pane. */
const goals = new Map<string, number>();
/** What the reader scrolled last, and how far, CSS px: where panes begin that come into sight. */
let leader: { readonly profile: string; readonly y: number } | null = null;
let frame = 0;

const STILL = matchMedia('(prefers-reduced-motion: reduce)');
/** Of the way that is left, in each frame. */
const EASE = 0.35;

export function enter(profile: string, element: HTMLElement): () => void {
  windows.set(profile, element);
  const at = startOf(profile);
  if (at > 0) element.scrollTop = at;
  goals.set(profile, element.scrollTop);
  return () => {
    windows.delete(profile);
    goals.delete(profile);
  };
}

/** A pane was scrolled, by the reader or by us. */
export function scrolled(profile: string): void {
  const element = windows.get(profile);
  const box = boxOf(profile);
  if (!element || !box) return;
  const goal = goals.get(profile);
  // The browser rounds to pixels of the screen.
  if (
    goal !== undefined &&
    (frame !== 0 || Math.abs(goal - element.scrollTop) < 1.5) &&
    leader?.profile !== profile
  )
    return;
  lead(profile, element.scrollTop);
}

/** Brings all panes to where one is. @param top of its window onto the page, px of the reader's window */
function lead(profile: string, top: number): void {
  const box = boxOf(profile);
  if (!box) return;
  leader = { profile, y: top / box.factor };
  goals.set(profile, top);
  if (!view.value.together) return;
  for (const other of windows.keys()) if (other !== profile) goals.set(other, startOf(other));
  frame ||= requestAnimationFrame(move);
}

/** Brings one pane to a height of the page, CSS px, a little below its top edge, and the others with it. */
export function showAt(profile: string, y: number, share = 0.3): void {
  const box = boxOf(profile);
  if (!box) return;
  const top = Math.max(0, y * box.factor - share * box.height);
  const element = windows.get(profile);
  if (element) element.scrollTop = top;
  lead(profile, element?.scrollTop ?? top);
}

/** Begins at the top again, as for another page. */
export function toTop(): void {
  leader = null;
  for (const [profile, element] of windows) {
    goals.set(profile, 0);
    element.scrollTop = 0;
  }
}

/** After the panes got another size: each shows what it showed. */
export function resettle(): void {
  if (!leader) return;
  const box = boxOf(leader.profile);
  const element = windows.get(leader.profile);
  if (box && element) element.scrollTop = leader.y * box.factor;
  for (const [profile, other] of windows) {
    if (profile === leader.profile) continue;
    const at = startOf(profile);
    goals.set(profile, at);
    other.scrollTop = at;
  }
}

function move(): void {
  frame = 0;
  let isDone = true;
  for (const [profile, element] of windows) {
    const goal = goals.get(profile);
    if (goal === undefined || profile === leader?.profile) continue;
    const rest = goal - element.scrollTop;
    if (Math.abs(rest) < 1) continue;
    const before = element.scrollTop;
    element.scrollTop = STILL.matches || Math.abs(rest) < 3 ? goal : before + rest * EASE;
    // At its end, or by a step too small to show, nothing more comes.
    if (element.scrollTop === before) element.scrollTop = goal;
    else isDone = false;
  }
  if (!isDone) frame = requestAnimationFrame(move);
}

/** Where a pane stands so that it shows what the leading one does, px. */
function startOf(profile: string): number {
  if (!leader || !view.value.together) return 0;
  const from = boxOf(leader.profile);
  const to = boxOf(profile);
  if (!from || !to) return 0;
  const [a, b] = [lookedAt(from), lookedAt(to)];
  return a && b ? scrollToSamePlace(a, leader.y * from.factor, b) : 0;
}

function lookedAt({ profile, factor, height }: PaneBox): Looked | null {
  const render = renderOf(page.value.id, profile.name);
  if (!render) return null;
  const pageHeight = pictureSize(profile, render).height;
  return { places: placesOn(page.value.id, profile.name), pageHeight, factor, windowHeight: height };
}

const boxOf = (profile: string) => paneBoxes.value.find((box) => box.profile.name === profile);
