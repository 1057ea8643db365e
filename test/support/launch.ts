import type { BrowserSession, LaunchOptions } from '../../src/engine/engine.js';
import { DEFAULT_ENGINE } from '../../src/engine/engines.js';

/** A browser as it comes, with the letters of Linux unless told. */
export function launched(options: Partial<LaunchOptions> = {}): Promise<BrowserSession> {
  return DEFAULT_ENGINE.launch({
    executable: undefined,
    fonts: 'linux',
    textScale: 1,
    log: () => undefined,
    ...options,
  });
}
