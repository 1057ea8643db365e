import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { IsopticError, messageOf } from '../core/errors.js';
import type { Manifest } from '../run/manifest.js';
import { htmlReport } from './html/write.js';
import { printed } from './printed.js';

/** The report as it prints: one page of the site after another. */
export async function pdfReport(
  manifest: Manifest,
  { run, browser }: { readonly run: string; readonly browser?: string | undefined },
): Promise<Buffer> {
  // Beside its pictures, so that it shows them.
  const file = join(run, `.report-to-print-${process.pid}.html`);
  try {
    await writeFile(file, await htmlReport(manifest, { run }));
  } catch (error) {
    throw new IsopticError(
      'out-unwritable',
      `${run}: what is printed could not be written there (${messageOf(error)}).`,
      'See to it that you may write there and that the disk has room.',
    );
  }
  try {
    return await printed(file, { address: 'as=print', paper: null, browser });
  } finally {
    await rm(file, { force: true });
  }
}
