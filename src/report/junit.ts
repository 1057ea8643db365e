import XMLBuilder from 'fast-xml-builder';
import { SEVERITIES, type Severity } from '../core/sightings/sighting.js';
import type { FindingRecord, Manifest, RenderRecord } from '../run/manifest.js';
import { pageName } from './page-name.js';

/**
 * A suite a page, a case a profile, as servers that build and test read it: a case fails where something of the severity or
 * worse was found on it, and is in error where it could not be rendered.
 * @param failOn the least severity that fails a case
 */
export function junitReport(manifest: Manifest, failOn: Severity = 'error'): string {
  const counted = SEVERITIES.slice(0, SEVERITIES.indexOf(failOn) + 1);
  const suites = manifest.pages.map((page) => {
    const renders = manifest.renders.filter((render) => render.page === page.id);
    const cases = renders.map((render) => caseOf(pageName(page), render, foundOn(manifest, render, counted)));
    return {
      '@name': plain(pageName(page)),
      '@tests': cases.length,
      '@failures': cases.filter((entry) => entry.failure).length,
      '@errors': cases.filter((entry) => entry.error).length,
      '@time': seconds(renders.reduce((sum, render) => sum + timeOf(render), 0)),
      '@timestamp': manifest.startedAt.replace(/\.\d+Z$/, ''),
      testcase: cases,
    };
  });
  const sum = (count: '@tests' | '@failures' | '@errors') =>
    suites.reduce((total, suite) => total + suite[count], 0);
  const builder = new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: '@', format: true });
  const body = builder.build({
    testsuites: {
      '@name': 'isoptic',
      '@tests': sum('@tests'),
      '@failures': sum('@failures'),
      '@errors': sum('@errors'),
      '@time': seconds(manifest.durationMs),
      testsuite: suites,
    },
  });
  return `<?xml version="1.0" encoding="UTF-8"?>\n${body}`;
}

function caseOf(page: string, render: RenderRecord, found: readonly FindingRecord[]) {
  const { status, error } = render;
  return {
    '@name': plain(render.profile),
    '@classname': plain(page),
    '@time': seconds(timeOf(render)),
    ...(status === 'failed' && {
      error: {
        '@message': plain(error?.message ?? 'It could not be rendered.'),
        '@type': error?.code ?? 'failed',
      },
    }),
    ...(found.length > 0 && {
      failure: {
        '@message': plain(found.length === 1 ? textOf(found[0]!) : `${found.length} findings`),
        '@type': found[0]!.rule,
        '#text': plain(found.map(textOf).join('\n')),
      },
    }),
  };
}

function foundOn(
  { findings }: Manifest,
  { page, profile }: RenderRecord,
  counted: readonly Severity[],
): FindingRecord[] {
  return findings
    .filter(({ severity, waived }) => !waived && counted.includes(severity))
    .flatMap((finding) => {
      const here = finding.seen.find((entry) => entry.page === page && entry.profile === profile);
      return here ? [{ ...finding, message: here.message ?? finding.message }] : [];
    });
}

function textOf({ severity, rule, selector, message, cause }: FindingRecord): string {
  const why = cause ? ` ${cause.message}` : '';
  const source = cause?.declaration?.source;
  return `${severity} ${rule} ${selector}: ${message}${why}${source ? ` (${source})` : ''}`;
}

function timeOf({ timings }: RenderRecord): number {
  return Object.values(timings).reduce((sum, ms) => sum + ms, 0);
}

function seconds(ms: number): string {
  return (ms / 1000).toFixed(3);
}

/** Without what XML 1.0 has no way to write (section 2.2). */
function plain(text: string): string {
  return text.replace(/[^\t\n\r\u{20}-\u{D7FF}\u{E000}-\u{FFFD}\u{10000}-\u{10FFFF}]/gu, ' ');
}
