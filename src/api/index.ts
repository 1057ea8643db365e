/** What a script may import: docs/api.md has examples of all of it. */
export { check, pickProfiles, type CheckedRun, type CheckOptions } from './check.js';
export { compareRuns, type ComparedRuns, type CompareOptions } from './compare-runs.js';
export {
  dropBaseline,
  listBaselines,
  saveBaseline,
  takeIntoBaseline,
  type BaselineOptions,
  type KeptBaseline,
  type TakeOptions,
} from './baseline.js';
export type { CompareScope } from '../run/compare/settings.js';
export type { FoundEvent } from './run-check.js';
export type { CheckEvent } from '../run/plan.js';

// Pages.
export { openTargets, type Site, type SitePage, type TargetOptions } from '../site/targets.js';

// Devices.
export { loadCatalogue } from '../run/catalogue.js';
export { resizedDevice } from '../core/profile/resize.js';
export type { Catalogue } from '../core/profile/pick.js';
export type { Conditions } from '../core/profile/conditions.js';
export type { Device, Profile, Size } from '../core/profile/profile.js';

// A page that stays open.
export { DEFAULT_ENGINE } from '../engine/engines.js';
export type { BrowserSession, Engine, EngineLog, LaunchOptions } from '../engine/engine.js';
export type { Capabilities, Feature } from '../engine/capabilities.js';
export type { PageDriver } from '../engine/driver.js';
export { openPage } from '../engine/open-page.js';
export type {
  CollectRequest,
  Frame,
  FrameOptions,
  PageSession,
  SettleKind,
  ShotRequest,
} from '../engine/page-session.js';
export type { Shot } from '../engine/shot.js';
export { BrowserGone, PageFault, PageNotOpened, StepFailed, WorldLost } from '../engine/failures.js';
export { OutOfTime } from '../engine/deadline.js';
export { NO_ALTERATIONS, type Alterations, type PageJob } from '../engine/job.js';
export { NO_ACCESS, type Access, type Cookie } from '../engine/access.js';
export type { Input, WaitCondition } from '../engine/steps.js';
export type { Probe } from '../engine/probe.js';

// Layouts and rules.
export { SnapshotView, type NodeIndex } from '../core/layout/view.js';
export type { LayoutSnapshot } from '../core/layout/snapshot.js';
export type { Rect } from '../core/geometry/rect.js';
export { signature } from '../core/identity/signature.js';
export { RULES } from '../core/rules/index.js';
export { FAMILIES, type Family, type Rule, type RuleMeta } from '../core/rules/rule.js';
export { SEVERITIES, type RenderView, type Severity, type Sighting } from '../core/sightings/sighting.js';
export type { RuleSettings } from '../core/findings/settings.js';
export type { Waiver } from '../core/findings/waivers.js';

// Runs and what is made of them.
export { manifestSchema, type FindingRecord, type Manifest, type RenderRecord } from '../run/manifest.js';
export { readRun } from '../run/read-run.js';
export { htmlReport } from '../report/html/write.js';
export { IsopticError } from '../core/errors.js';
