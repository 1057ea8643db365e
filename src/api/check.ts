import { pickDevices, type Catalogue, type Pick } from '../core/profile/pick.js';
import type { Conditions } from '../core/profile/conditions.js';
import type { RuleSettings } from '../core/findings/settings.js';
import type { Waiver } from '../core/findings/waivers.js';
import type { Device } from '../core/profile/profile.js';
import { RULES } from '../core/rules/index.js';
import type { Rule } from '../core/rules/rule.js';
import { NO_ACCESS, type Access } from '../engine/access.js';
import type { Engine, EngineLog } from '../engine/engine.js';
import { NO_ALTERATIONS } from '../engine/job.js';
import type { ShotKinds } from '../engine/shot.js';
import { loadCatalogue } from '../run/catalogue.js';
import type { EvidenceChoice } from '../run/evidence.js';
import type { Manifest } from '../run/manifest.js';
import type { CheckEvent } from '../run/plan.js';
import type { TargetOptions } from '../site/targets.js';
import { IsopticError } from '../core/errors.js';
import { knownDevices } from '../run/sweep/known-devices.js';
import { USUAL_SWEEP, type SweepRange } from '../run/sweep/plan.js';
import { runCheck, type FoundEvent } from './run-check.js';

/** What a script says of a check; only the targets have to be named. */
export interface CheckOptions {
  /** URLs, HTML files, folders, lists of pages, sitemaps. */
  readonly targets: readonly string[];
  /** How pages are found in them: `{ all: true }` for every HTML file of a folder. */
  readonly find?: Partial<TargetOptions>;
  /** Names of profiles (`ios-phone-390:landscape`), sizes (`390x844@3+mobile`), or devices; the default lineup unless told. */
  readonly profiles?: readonly (string | Device)[];
  /** What a user or their system asks for beside the device: `{ scheme: 'dark' }`. */
  readonly conditions?: Conditions;
  /** Folder of the run, new or empty; a new one below `isoptic-runs/` unless told. */
  readonly out?: string;
  /** Put the run in place of one that is already there. */
  readonly replace?: boolean;
  readonly shots?: ShotKinds;
  readonly evidence?: EvidenceChoice;
  /** Search every width of a plain window, too; with no profiles, nothing but that. Whole CSS px. */
  readonly sweep?: { readonly from?: number; readonly to?: number; readonly height?: number };
  /** Rules beside Isoptic's own. */
  readonly rules?: readonly Rule[];
  /** How rules are to be taken, by their name. */
  readonly settings?: RuleSettings;
  readonly waivers?: readonly Waiver[];
  readonly access?: Partial<Access>;
  readonly fonts?: 'platform' | 'host';
  /** For each page and profile, ms. */
  readonly timeoutMs?: number;
  /** Path of the Chromium or Chrome to use. */
  readonly browser?: string;
  readonly engine?: Engine;
  readonly signal?: AbortSignal;
  readonly onEvent?: (event: CheckEvent | FoundEvent) => void;
  readonly log?: EngineLog;
}

/** A finished check: what its manifest says, and where it was written. */
export type CheckedRun = Manifest & { readonly folder: string; readonly report: string };

const TIMEOUT_MS = 30_000;

/**
 * Renders pages on device profiles, flags what is broken, and writes a run.
 * Pages that fail are in the result; what was aborted by the signal is, too, with `interrupted`.
 * @throws IsopticError with a `code` for targets, profiles, browser or folder that can't be used
 */
export async function check(options: CheckOptions): Promise<CheckedRun> {
  const { rules = [], targets, find, access, out, browser, engine } = options;
  const isSweepOnly = options.sweep !== undefined && options.profiles?.length === 0;
  const devices = isSweepOnly ? [] : await pickProfiles(options.profiles, options.conditions);
  const { manifest, folder, report } = await runCheck(
    {
      targets,
      find: { all: false, ...find },
      devices,
      ...(options.sweep && { sweep: await rangeOf(options.sweep) }),
      shots: options.shots ?? { fold: true, full: true },
      evidence: options.evidence ?? 'classes',
      access: access ? { ...NO_ACCESS, ...access } : NO_ACCESS,
      signIn: null,
      signInAgain: false,
      preparations: [],
      alter: NO_ALTERATIONS,
      essentials: [],
      rules: options.settings ?? {},
      ruleSet: [...RULES, ...rules],
      waivers: options.waivers ?? [],
      secrets: { add: () => undefined, redact: (value) => value },
      keepLayouts: true,
      timeoutMs: options.timeoutMs ?? TIMEOUT_MS,
      fonts: options.fonts ?? 'platform',
      out,
      replace: options.replace ?? false,
      browser,
    },
    {
      ...(engine && { engine }),
      signal: options.signal ?? new AbortController().signal,
      log: options.log ?? (() => undefined),
      onEvent: options.onEvent ?? (() => undefined),
    },
  );
  return { ...manifest, folder, report };
}

async function rangeOf({
  from = USUAL_SWEEP.from,
  to = USUAL_SWEEP.to,
  height = USUAL_SWEEP.height,
}: NonNullable<CheckOptions['sweep']>): Promise<SweepRange> {
  if (!(Number.isInteger(from) && Number.isInteger(to) && from >= 50 && from < to))
    throw new IsopticError(
      'bad-option',
      `sweep from ${from} to ${to}: that is no range.`,
      'Give whole CSS px, the narrower first.',
    );
  const [device] = await pickProfiles([`${to}x${height}`]);
  const known = knownDevices(await loadCatalogue());
  return { axis: 'width', from, to, device: device!, every: false, known, ranges: [], own: [] };
}

/**
 * The devices of names and sizes, in their order; the default lineup where there are none.
 * @throws IsopticError `unknown-profile`, `unknown-orientation` with the nearest names; `bad-size`
 */
export async function pickProfiles(
  wanted: readonly (string | Device)[] = [],
  conditions: Conditions = {},
  catalogue?: Catalogue,
): Promise<Device[]> {
  const known = catalogue ?? (await loadCatalogue());
  const picked = (pick: Pick) => pickDevices([pick], known, { conditions });
  if (wanted.length === 0) return picked({ lineup: 'default' });
  return wanted.flatMap((each) => {
    if (typeof each !== 'string') return [each];
    return picked(/^\d+x\d/.test(each) ? { at: each } : { on: each });
  });
}
