import { IsopticError } from '../core/errors.js';
import type { Severity } from '../core/sightings/sighting.js';
import type { Manifest } from '../run/manifest.js';

export interface ReportOptions {
  /** The least severity that fails a case, where a format has cases. */
  readonly failOn: Severity;
  /** The run's folder: its pictures, and what else lies beside the manifest. */
  readonly run: string;
  /** The user's browser, where they named one; for pdf. */
  readonly browser?: string | undefined;
  /** Whether html holds its pictures itself. */
  readonly single?: boolean;
  /** Ids of what an earlier run had already, for html. */
  readonly known?: readonly string[] | undefined;
}

interface Format {
  /** Of the file in the run folder. */
  readonly file: string;
  readonly make: (manifest: Manifest, options: ReportOptions) => Promise<string | Buffer>;
}

export type FormatName = 'html' | 'pdf' | 'json' | 'csv' | 'junit' | 'sarif' | 'markdown';

/** What a run can be told as; each is loaded when it is asked for. */
export const FORMATS: Readonly<Record<FormatName, Format>> = {
  html: {
    file: 'report.html',
    make: async (manifest, options) => (await import('./html/write.js')).htmlReport(manifest, options),
  },
  pdf: {
    file: 'report.pdf',
    make: async (manifest, options) => (await import('./pdf.js')).pdfReport(manifest, options),
  },
  json: { file: 'run.json', make: (manifest) => Promise.resolve(`${JSON.stringify(manifest, null, 2)}\n`) },
  csv: { file: 'report.csv', make: async (manifest) => (await import('./csv.js')).csvReport(manifest) },
  junit: {
    file: 'report.junit.xml',
    make: async (manifest, { failOn }) => (await import('./junit.js')).junitReport(manifest, failOn),
  },
  sarif: {
    file: 'report.sarif',
    make: async (manifest) => (await import('./sarif.js')).sarifReport(manifest),
  },
  markdown: {
    file: 'report.md',
    make: async (manifest) => (await import('./markdown.js')).markdownReport(manifest),
  },
};

/** @throws IsopticError `bad-option` for a name that is none */
export function parseFormats(text: string, option: string): FormatName[] {
  const names = text.split(',').map((name) => name.trim());
  const unknown = names.find((name) => !(name in FORMATS));
  if (unknown === undefined) return [...new Set(names)] as FormatName[];
  throw new IsopticError(
    'bad-option',
    `${option} ${text}: there is no format "${unknown}".`,
    `Write ${Object.keys(FORMATS).join(', ')}, several with commas.`,
  );
}
