import { readFile, stat } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { IsopticError, messageOf } from '../core/errors.js';
import { manifestSchema, type Manifest } from './manifest.js';

const VERSION = 1;

/** The manifest of a run folder. @throws IsopticError `bad-run` with what is wrong and what to do */
export async function readRun(run: string): Promise<Manifest> {
  const folder = resolve(run);
  const bad = (what: string, hint: string) => new IsopticError('bad-run', `${run}: ${what}.`, hint);
  let text: string;
  try {
    text = await readFile(join(folder, 'run.json'), 'utf8');
  } catch (error) {
    const is = await stat(folder).catch(() => null);
    if (!is)
      throw bad('there is no such folder', 'Name the folder that a check wrote; `isoptic runs` lists them.');
    if (!is.isDirectory())
      throw bad('this is a file, and a run is a folder', 'Name the folder that a check wrote.');
    if (!/ENOENT/.test(messageOf(error)))
      throw bad(`its run.json can not be read (${messageOf(error)})`, 'See to it that you may read it.');
    throw bad(
      'there is no run.json in it, so no run was written to its end here',
      'Name the folder that a check wrote; `isoptic runs` lists them.',
    );
  }
  const again = 'Make the run again.';
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw bad('its run.json is no whole JSON: it was cut off, or changed', again);
  }
  const { format, version } = (typeof value === 'object' && value !== null ? value : {}) as Record<
    string,
    unknown
  >;
  if (format !== 'isoptic-run')
    throw bad('its run.json is of another program', 'Name the folder that a check wrote.');
  if (typeof version === 'number' && version > VERSION)
    throw bad(
      `it was written by a newer Isoptic (format ${version}; this one reads ${VERSION})`,
      'Use the newer one.',
    );
  const parsed = manifestSchema.safeParse(value);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  const where = issue?.path.map(String).join('.') ?? '';
  throw bad(
    `its run.json does not say what this Isoptic needs (${where}: ${issue?.message ?? 'another shape'}); an earlier one may have written it`,
    again,
  );
}
