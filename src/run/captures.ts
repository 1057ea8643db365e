import picomatch from 'picomatch';
import type { Preparation } from '../engine/steps.js';
import { statesOf } from '../engine/steps.js';
import type { SitePage } from '../site/targets.js';

/** A preparation and the pages it is for. */
export interface ScopedPreparation extends Preparation {
  /** Page ids, `*` for any run of characters; null for every page. */
  readonly pages: readonly string[] | null;
}

export interface ScopedEssential {
  readonly selector: string;
  readonly pages: readonly string[] | null;
}

/** One entry of the run's list of pages: a page as it loads, or a state of it. */
export interface CapturedPage {
  readonly id: string;
  readonly source: string;
  readonly state: string | null;
}

/** One load of a page: what is done to it, and the entries that it is captured for. */
export interface PageLoad {
  readonly preparations: readonly Preparation[];
  readonly captured: readonly CapturedPage[];
}

/**
 * The loads that a page takes on each device: one for the page itself, one more for each preparation that marks states.
 * Preparations without marks come first in all of them.
 */
export function loadsOf(page: SitePage, preparations: readonly ScopedPreparation[]): PageLoad[] {
  const own = preparations.filter(({ pages }) => isFor(page.id, pages));
  const always = own.filter((preparation) => statesOf(preparation).length === 0);
  const marking = own.filter((preparation) => statesOf(preparation).length > 0);
  const { id, source } = page;
  const taken = new Set<string>();
  /** Also a folder's name; two states may be written alike but for case and spaces. */
  const idOf = (state: string) => {
    const base = stateId(id, state);
    let name = base;
    for (let n = 2; taken.has(name); n++) name = `${base}-${n}`;
    taken.add(name);
    return name;
  };
  return [
    { preparations: always, captured: [{ id, source, state: null }] },
    ...marking.map((preparation) => ({
      preparations: [...always, preparation],
      captured: statesOf(preparation).map((state) => ({ id: idOf(state), source, state })),
    })),
  ];
}

/** Only the star means something in a pattern, and it stands for anything. */
const STARS = { bash: true, dot: true, nobrace: true, noextglob: true, nonegate: true } as const;

/** Whether a page is one of those meant; patterns are page ids in which `*` stands for anything. */
export function isFor(id: string, patterns: readonly string[] | null): boolean {
  return patterns === null || picomatch.isMatch(id, [...patterns], STARS);
}

function stateId(page: string, state: string): string {
  return `${page}--${state.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '-')}`;
}
