import type { RuleSettings } from '../core/findings/settings.js';
import type { Waiver } from '../core/findings/waivers.js';
import type { Device } from '../core/profile/profile.js';
import type { Access } from '../engine/access.js';
import type { Alterations } from '../engine/job.js';
import type { ShotKinds } from '../engine/shot.js';
import type { Engine, EngineLog } from '../engine/engine.js';
import type { SitePage } from '../site/targets.js';
import type { Rule } from '../core/rules/rule.js';
import type { EvidenceChoice } from './evidence.js';
import type { ScopedEssential, ScopedPreparation } from './captures.js';
import type { SweepRange } from './sweep/plan.js';
import type { FindingRecord } from './manifest.js';
import type { RunFolder } from './run-folder.js';

export interface CheckPlan {
  readonly pages: readonly SitePage[];
  /** None where a search over sizes is all. */
  readonly devices: readonly Device[];
  /** Search every page over all sizes of a range. */
  readonly sweep?: SweepRange | undefined;
  readonly shots: ShotKinds;
  readonly evidence: EvidenceChoice;
  readonly access: Access;
  readonly preparations: readonly ScopedPreparation[];
  readonly alter: Alterations;
  /** What must be seen in the first screen of every device. */
  readonly essentials: readonly ScopedEssential[];
  readonly rules: RuleSettings;
  readonly waivers: readonly Waiver[];
  /** Which rules there are; Isoptic's own unless told. */
  readonly ruleSet?: readonly Rule[];
  readonly timeoutMs: number;
  /** Whether layout snapshots are written to the run, to be judged again. */
  readonly keepLayouts: boolean;
}

/** A copy of plain data without what must not be written anywhere. */
export type Redact = <T>(value: T) => T;

export interface CheckTools {
  readonly engine: Engine;
  readonly browser: string | undefined;
  /** Whether text is laid out with each platform's fonts or with the machine's own. */
  readonly fonts: 'platform' | 'host';
  readonly folder: RunFolder;
  readonly signal: AbortSignal;
  readonly log: EngineLog;
  /** Takes out of what is written what must not be. */
  readonly redact: Redact;
  readonly onEvent: (event: CheckEvent) => void;
}

/** What a check tells as it goes. */
export type CheckEvent =
  | { readonly kind: 'planned'; readonly pages: number; readonly profiles: number; readonly loads: number }
  | {
      readonly kind: 'rendered';
      readonly page: string;
      readonly profile: string;
      /** Failed where one of its states did. */
      readonly status: 'ok' | 'failed';
      readonly done: number;
      readonly of: number;
    }
  /** A picture of a film was drawn. */
  | { readonly kind: 'filmed'; readonly page: string; readonly done: number; readonly of: number }
  /** A size of a page was looked at. */
  | { readonly kind: 'looked'; readonly page: string; readonly layouts: number }
  /** The findings of one page, before those of several pages are put together and waivers are applied. */
  | { readonly kind: 'judged'; readonly page: string; readonly findings: readonly FindingRecord[] };
