import { findingsOfPage } from '../core/findings/group.js';
import type { RuleSettings } from '../core/findings/settings.js';
import type { Waiver } from '../core/findings/waivers.js';
import { RULES } from '../core/rules/index.js';
import { mergedUnderWaivers } from './check.js';
import { findingRecord } from './finding-record.js';
import { summarise } from './summarise.js';
import { layoutPath, readLayout } from './layout-file.js';
import type { FindingRecord, Manifest } from './manifest.js';

export interface Judging {
  readonly rules: RuleSettings;
  readonly waivers: readonly Waiver[];
}

/**
 * The findings of a run, decided again from the layouts that it kept, without a browser. Causes were proven in the live
 * page: they stay with the findings that are still there, as evidence does.
 * @param full gives the path of a file of the run
 * @throws IsopticError `no-layout`
 */
export async function judgeAgain(
  manifest: Manifest,
  full: (path: string) => string,
  judging: Judging,
): Promise<Manifest> {
  // A template's finding has the id of its first page; its key is the same on all of them.
  const evidenceAt = new Map(
    manifest.findings.flatMap(({ key, seen }) =>
      seen.map(({ page, profile, evidence }) => [[key, page, profile].join('\n'), evidence] as const),
    ),
  );
  const findings: FindingRecord[] = [];
  for (const page of manifest.pages.filter(({ of }) => of === undefined)) {
    const ids = manifest.pages.filter(({ id, of }) => id === page.id || of === page.id).map(({ id }) => id);
    const renders = manifest.renders.filter(({ page: id, status }) => status === 'ok' && ids.includes(id));
    const views = await Promise.all(
      renders.map(({ page: id, profile }) => readLayout(full(layoutPath(id, profile)))),
    );
    const causes = new Map(
      manifest.findings.flatMap(({ pages, key, cause }) =>
        cause && pages.some((on) => ids.includes(on)) ? [[key, cause] as const] : [],
      ),
    );
    for (const finding of findingsOfPage(page.id, views, RULES, { settings: judging.rules, causes })) {
      const seen = finding.seen.map((entry) => {
        const evidence = evidenceAt.get([finding.key, entry.page, entry.profile].join('\n'));
        return { ...entry, ...(evidence !== undefined && { evidence }) };
      });
      findings.push(findingRecord(finding, seen));
    }
  }
  const judged = mergedUnderWaivers(findings, judging.waivers, new Date());
  return { ...manifest, ...judged, summary: summarise(manifest.renders, judged.findings) };
}
