import { BASELINE_FOLDER, Baseline } from '../run/baseline/store.js';
import type { BaselineIndex } from '../run/baseline/index-file.js';
import { keptRun } from '../run/compare/kept.js';

/** Which baseline is meant. */
export interface BaselineOptions {
  /** Where it lies; `isoptic-baseline` unless told. */
  readonly folder?: string;
  /** The branch that is meant; the one that is checked out unless told. */
  readonly branch?: string;
}

/** What a script takes over of a run; all of it where nothing is named. */
export interface TakeOptions extends BaselineOptions {
  /** Ids of pages. */
  readonly pages?: readonly string[];
  /** Names of profiles. */
  readonly profiles?: readonly string[];
}

/** What is kept for one branch. */
export interface KeptBaseline {
  readonly branch: string;
  /** ISO 8601. */
  readonly savedAt: string;
  readonly pages: readonly string[];
  readonly profiles: readonly string[];
  /** Ids of the findings that are known. */
  readonly findings: readonly string[];
}

/**
 * Keeps a run as what later ones are held against.
 * @param run its folder
 * @throws IsopticError for a run that can't be read
 */
export async function saveBaseline(run: string, options: BaselineOptions = {}): Promise<KeptBaseline> {
  const baseline = await opened(options);
  return toldOf(baseline.branch, await baseline.save(await keptRun(run)));
}

/**
 * Takes over what is meant of a run; the rest stays as it was.
 * @returns what is kept then, and how many renders were taken over
 * @throws IsopticError `no-baseline` where there is none yet, and for a run that can't be read
 */
export async function takeIntoBaseline(
  run: string,
  { pages = [], profiles = [], ...options }: TakeOptions = {},
): Promise<KeptBaseline & { readonly taken: number }> {
  const baseline = await opened(options);
  const { index, taken } = await baseline.take(await keptRun(run), { pages, profiles, renders: [] });
  return { ...toldOf(baseline.branch, index), taken };
}

/** What is kept, the main branch first. @throws IsopticError `bad-baseline` for one that is damaged */
export async function listBaselines({ folder }: Pick<BaselineOptions, 'folder'> = {}): Promise<
  KeptBaseline[]
> {
  const baseline = await opened({ ...(folder !== undefined && { folder }) });
  const branches = await baseline.branches();
  return Promise.all(branches.map(async (branch) => toldOf(branch, (await baseline.readOf(branch))!)));
}

/** Removes the baseline of a branch, and what only it holds. @returns whether there was one */
export async function dropBaseline(options: BaselineOptions = {}): Promise<boolean> {
  return (await opened(options)).drop();
}

function opened({ folder = BASELINE_FOLDER, branch }: BaselineOptions): Promise<Baseline> {
  return Baseline.open(folder, branch);
}

function toldOf(branch: string, { savedAt, run, findings }: BaselineIndex): KeptBaseline {
  return {
    branch,
    savedAt,
    pages: run.pages.map(({ id }) => id),
    profiles: run.profiles.map(({ name }) => name),
    findings: findings.map(({ id }) => id),
  };
}
