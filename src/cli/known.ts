import type { Known } from '../run/against.js';
import { Baseline } from '../run/baseline/store.js';
import { readRun } from '../run/read-run.js';
import { BASELINE, baselineFolder } from './compare-inputs.js';
import type { Config } from './config/schema.js';

/** @param what the word `baseline`, or a run's folder. @throws IsopticError `no-baseline`, `bad-baseline`, `bad-run` */
export async function knownIn(what: string, config: Pick<Config, 'baseline'>): Promise<Known> {
  if (what !== BASELINE) return { name: what, ids: (await readRun(what)).findings.map(({ id }) => id) };
  const kept = await (await Baseline.open(baselineFolder(undefined, config))).kept();
  return { name: kept.name, ids: kept.manifest.findings.map(({ id }) => id) };
}
