import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { pickDevices } from '../core/profile/pick.js';
import { NO_ACCESS } from '../engine/access.js';
import { DEFAULT_ENGINE } from '../engine/engines.js';
import { NO_ALTERATIONS } from '../engine/job.js';
import type { Paper } from '../engine/page-session.js';
import { loadCatalogue } from '../run/catalogue.js';

interface PrintJob {
  /** What stands after `#`. */
  readonly address: string;
  readonly paper: Paper;
  readonly browser: string | undefined;
}

const TIMEOUT_MS = 120_000;

/** Prints a file of ours through the browser. @returns a PDF file; @throws IsopticError exit status 4 without a browser */
export async function printed(file: string, { address, paper, browser }: PrintJob): Promise<Buffer> {
  const url = pathToFileURL(resolve(file));
  url.hash = address;
  const session = await DEFAULT_ENGINE.launch({
    executable: browser,
    fonts: 'host',
    textScale: 1,
    log: () => undefined,
  });
  try {
    const [device] = pickDevices([{ at: '1280x900' }], await loadCatalogue());
    const page = await session.open({
      url: url.href,
      device: device!,
      access: NO_ACCESS,
      alter: NO_ALTERATIONS,
      timeoutMs: TIMEOUT_MS,
      signal: new AbortController().signal,
    });
    try {
      await page.settle('changed');
      return await page.print(paper);
    } finally {
      await page.close();
    }
  } finally {
    await session.close();
  }
}
