import { stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Compared, CompareRequest } from '../api/compare.js';
import { IsopticError } from '../core/errors.js';
import { BASELINE_FOLDER } from '../run/baseline/store.js';
import { readRun } from '../run/read-run.js';
import type { CompareScope } from '../run/compare/settings.js';
import type { Asked } from './check-request.js';
import type { Config } from './config/schema.js';

/** The word that stands for the baseline. */
export const BASELINE = 'baseline';

/** What one of two arguments of `compare` names, and the profile of a run where one was named. */
interface Input {
  readonly compared: Compared;
  readonly profile: string | null;
}

/**
 * What is compared: a run's folder, `RUN:PROFILE`, the word `baseline`, or pages that are rendered now.
 * @throws IsopticError `bad-usage` for two that can't be compared
 */
export async function comparedOf(
  texts: readonly [string, string],
  asked: Asked,
  baseline: string | undefined,
): Promise<Pick<CompareRequest, 'a' | 'b' | 'profiles'>> {
  const [a, b] = await Promise.all(texts.map((text) => inputOf(text, asked, baseline)));
  if ((a!.profile === null) !== (b!.profile === null)) {
    throw new IsopticError(
      'bad-usage',
      `compare ${texts.join(' ')}: a profile is compared with a profile.`,
      'Write RUN:PROFILE for both, or for neither.',
    );
  }
  return {
    a: a!.compared,
    b: b!.compared,
    profiles: a!.profile !== null && b!.profile !== null ? { a: a!.profile, b: b!.profile } : null,
  };
}

async function inputOf(text: string, asked: Asked, baseline: string | undefined): Promise<Input> {
  if (text === BASELINE)
    return { compared: { baseline: baselineFolder(baseline, asked.settings.config) }, profile: null };
  if (await isRun(text)) return { compared: { run: text }, profile: null };
  const colon = text.indexOf(':', /^[a-z]:[\\/]/i.test(text) ? 2 : 0);
  const run = colon < 0 ? null : text.slice(0, colon);
  if (run !== null && (await isRun(run))) {
    const profile = text.slice(colon + 1);
    const names = (await readRun(run)).profiles.map(({ name }) => name);
    if (names.includes(profile)) return { compared: { run }, profile };
    throw new IsopticError(
      'unknown-profile',
      `${text}: the run has no profile named ${profile}.`,
      `It has ${names.join(', ')}.`,
    );
  }
  const render = await asked.requestFor([text]);
  return { compared: { render, name: text }, profile: null };
}

async function isRun(path: string): Promise<boolean> {
  return stat(join(path, 'run.json')).then(
    () => true,
    () => false,
  );
}

/** Where the baseline lies. */
export function baselineFolder(named: string | undefined, { baseline }: Pick<Config, 'baseline'>): string {
  return named ?? baseline ?? BASELINE_FOLDER;
}

/** How pages are compared: by the configuration, and by what the command line adds for all of them. */
export function scopesOf(
  { compare }: Pick<Config, 'compare'>,
  more: Pick<CompareScope, 'leaveOut' | 'regions' | 'px'>,
): CompareScope[] {
  return [
    ...compare.map(({ pages, regions, without, ...scope }) => ({
      ...scope,
      pages: pages ?? null,
      kinds: without,
      regions: regions?.map(([x, y, width, height]) => ({ x, y, width, height })),
    })),
    { pages: null, ...more },
  ];
}
