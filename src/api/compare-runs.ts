import type { Comparison } from '../run/compare/record.js';
import type { CompareScope } from '../run/compare/settings.js';
import { runCompare, type Compared } from './compare.js';

/** What a script says of a comparison of two runs; nothing has to be said. */
export interface CompareOptions {
  /** What is left out, and how much may differ: of all pages, or of those that are named. */
  readonly scopes?: readonly CompareScope[];
  /** One profile of each run, where profiles are compared. */
  readonly profiles?: { readonly a: string; readonly b: string };
  /** Compare the pictures of the runs too; done unless told. */
  readonly pixels?: boolean;
  /** Folder of the comparison, new or empty; a new one below `isoptic-runs/` unless told. */
  readonly out?: string;
  /** Put the comparison in place of one that is already there. */
  readonly replace?: boolean;
  readonly signal?: AbortSignal;
  readonly onCompared?: (event: {
    readonly page: string;
    readonly done: number;
    readonly of: number;
  }) => void;
}

/** What differs, and where it was written. */
export type ComparedRuns = Comparison & { readonly folder: string; readonly report: string };

/**
 * What differs between two runs that are there, written to a folder with its report.
 * @param a a run's folder, or `{ baseline: folder }`
 * @throws IsopticError with a `code` for runs and folders that can't be used
 */
export async function compareRuns(
  a: string | { readonly baseline: string },
  b: string | { readonly baseline: string },
  options: CompareOptions = {},
): Promise<ComparedRuns> {
  const compared = (what: typeof a): Compared => (typeof what === 'string' ? { run: what } : what);
  const { comparison, folder, report } = await runCompare(
    {
      a: compared(a),
      b: compared(b),
      profiles: options.profiles ?? null,
      scopes: options.scopes ?? [],
      pixels: options.pixels ?? true,
      out: options.out,
      replace: options.replace ?? false,
    },
    {
      signal: options.signal ?? new AbortController().signal,
      log: () => undefined,
      onEvent: (event) => {
        if (event.kind === 'compared') options.onCompared?.(event);
      },
    },
  );
  return { ...comparison, folder, report };
}
