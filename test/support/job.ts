import type { Device } from '../../src/core/profile/profile.js';
import { NO_ACCESS } from '../../src/engine/access.js';
import { NO_ALTERATIONS, type PageJob } from '../../src/engine/job.js';

/** A page to be opened as it is. */
export function jobOf(url: string, device: Device): PageJob {
  return {
    url,
    device,
    access: NO_ACCESS,
    alter: NO_ALTERATIONS,
    timeoutMs: 60_000,
    signal: new AbortController().signal,
  };
}
