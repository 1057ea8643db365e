import type { Location, Log, ReportingDescriptor, Result } from 'sarif';
import { RULES } from '../core/rules/index.js';
import type { FindingRecord, Manifest } from '../run/manifest.js';
import { pageNames } from './page-name.js';

const LEVELS = { error: 'error', warning: 'warning', notice: 'note' } as const;

/**
 * SARIF 2.1.0 (OASIS): a result a finding, at the author's declaration where that is known, else at the page; what is waived is
 * suppressed.
 */
export function sarifReport(manifest: Manifest): string {
  const names = pageNames(manifest);
  const used = [...new Set(manifest.findings.map(({ rule }) => rule))].sort();
  const log: Log = {
    $schema: 'https://json.schemastore.org/sarif-2.1.0.json',
    version: '2.1.0',
    runs: [
      {
        tool: {
          driver: { name: manifest.tool.name, version: manifest.tool.version, rules: used.map(descriptorOf) },
        },
        invocations: [
          { executionSuccessful: manifest.summary.failed === 0, startTimeUtc: manifest.startedAt },
        ],
        results: manifest.findings.map((finding) => resultOf(finding, used.indexOf(finding.rule), names)),
      },
    ],
  };
  return `${JSON.stringify(log, null, 2)}\n`;
}

function descriptorOf(name: string): ReportingDescriptor {
  const meta = RULES.find((rule) => rule.meta.name === name)?.meta;
  if (!meta) return { id: name };
  return {
    id: name,
    shortDescription: { text: meta.summary },
    defaultConfiguration: { level: LEVELS[meta.severity] },
    properties: { family: meta.family },
  };
}

function resultOf(finding: FindingRecord, ruleIndex: number, names: ReadonlyMap<string, string>): Result {
  const { id, rule, severity, message, details, cause, waived, seen } = finding;
  const why = cause ? ` ${cause.message}` : '';
  return {
    ruleId: rule,
    ruleIndex,
    level: LEVELS[severity],
    message: { text: [`${message}${why}`, ...details].join('\n') },
    locations: locationsOf(finding, names),
    partialFingerprints: { 'finding/v1': id },
    ...(waived && { suppressions: [{ kind: 'external', justification: waived.reason }] }),
    properties: {
      seen: seen.map(({ page, profile, rect, by }) => ({ page: names.get(page) ?? page, profile, rect, by })),
    },
  };
}

function locationsOf(
  { pages, page, selector, cause }: FindingRecord,
  names: ReadonlyMap<string, string>,
): Location[] {
  const logicalLocations = [{ fullyQualifiedName: selector, kind: 'element' }];
  const source = /^(.+):(\d+)$/.exec(cause?.declaration?.source ?? '');
  if (source) {
    const [, file = '', line = '1'] = source;
    return [
      {
        physicalLocation: {
          artifactLocation: { uri: uriOf(file) },
          region: { startLine: Math.max(1, Number(line)) },
        },
        logicalLocations,
      },
    ];
  }
  const all = pages.length > 0 ? pages : [page];
  return all.map((id) => ({
    physicalLocation: { artifactLocation: { uri: uriOf(names.get(id) ?? id) } },
    logicalLocations,
  }));
}

/** RFC 3986: what may not stand in an address is encoded. */
function uriOf(text: string): string {
  return encodeURI(text.replaceAll('\\', '/')).replace(/[[\]]/g, encodeURIComponent);
}
