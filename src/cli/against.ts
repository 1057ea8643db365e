import { htmlReport } from '../report/html/write.js';
import { Baseline } from '../run/baseline/store.js';
import { readRun } from '../run/read-run.js';
import type { Manifest } from '../run/manifest.js';
import { summarise } from '../run/summarise.js';
import { RunFolder } from '../run/run-folder.js';
import { BASELINE, baselineFolder } from './compare-inputs.js';
import type { Config } from './config/schema.js';

/** What a check is held against: what was found before, by the ids of findings. */
export interface Known {
  readonly name: string;
  readonly ids: readonly string[];
}

/** @param what the word `baseline`, or a run's folder. @throws IsopticError `no-baseline`, `bad-baseline`, `bad-run` */
export async function knownIn(what: string, config: Pick<Config, 'baseline'>): Promise<Known> {
  if (what !== BASELINE) return { name: what, ids: (await readRun(what)).findings.map(({ id }) => id) };
  const kept = await (await Baseline.open(baselineFolder(undefined, config))).kept();
  return { name: kept.name, ids: kept.manifest.findings.map(({ id }) => id) };
}

/** Writes into a finished run what it was held against, and tells it in the report. */
export async function heldAgainst(
  manifest: Manifest,
  folder: string,
  { name, ids }: Known,
): Promise<Manifest> {
  const found = new Set(manifest.findings.map(({ id }) => id));
  const known = ids.filter((id) => found.has(id));
  const held: Manifest = { ...manifest, against: { name, known, gone: ids.length - known.length } };
  const run = RunFolder.open(folder);
  await run.writeWhole('report.html', await htmlReport(held, { run: folder, known }));
  await run.writeManifest(held);
  return held;
}

/** A run without what was known before: what is listed and fails. */
export function onlyNew(manifest: Manifest): Manifest {
  if (!manifest.against) return manifest;
  const known = new Set(manifest.against.known);
  const findings = manifest.findings.filter(({ id }) => !known.has(id));
  return { ...manifest, findings, summary: summarise(manifest.renders, findings) };
}
