import { readFile } from 'node:fs/promises';
import { packageFile } from '../../package-file.js';
import type { Manifest } from '../../run/manifest.js';
import { readPlaces } from '../../run/places-file.js';
import type { ReportData } from '../view/data.js';
import { documentOf } from './document.js';
import { embeddedPictures } from './embedded.js';

export interface HtmlOptions {
  /** The run's folder. */
  readonly run: string;
  /** Holds its pictures itself, so that it can be sent as one file. */
  readonly single?: boolean;
  /** Ids of findings that an earlier run had: the report then tells new from known. */
  readonly known?: readonly string[] | undefined;
}

/** The report as one HTML text: style, script and data inside, pictures by relative path unless it holds them; no network. */
export async function htmlReport(
  manifest: Manifest,
  { run, single = false, known }: HtmlOptions,
): Promise<string> {
  const [style, script, rules, places, pictures] = await Promise.all([
    readFile(packageFile('dist/report/report.css'), 'utf8'),
    readFile(packageFile('dist/report/client.js'), 'utf8'),
    rulesOf(manifest),
    placesOf(manifest, run),
    single ? embeddedPictures(manifest, run) : {},
  ]);
  const data: ReportData = {
    manifest,
    places,
    rules,
    pictures,
    known: known ?? manifest.against?.known ?? null,
  };
  return documentOf({
    style,
    script,
    data,
    unread: 'The findings stand in run.json, and <code>isoptic report</code> tells them as text.',
  });
}

async function placesOf(manifest: Manifest, run: string): Promise<ReportData['places']> {
  const found = await Promise.all(
    manifest.pages.map(async ({ id }) => [id, await readPlaces(run, id)] as const),
  );
  return Object.fromEntries(found.flatMap(([id, places]) => (places ? [[id, places]] : [])));
}

/** What is said of the rules that found something. */
async function rulesOf({ findings }: Manifest): Promise<ReportData['rules']> {
  const all = JSON.parse(
    await readFile(packageFile('dist/report/rules.json'), 'utf8'),
  ) as ReportData['rules'];
  const names = new Set(findings.map(({ rule }) => rule));
  return Object.fromEntries(Object.entries(all).filter(([name]) => names.has(name)));
}
