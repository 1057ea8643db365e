import { availableParallelism } from 'node:os';
import { BrowserPool } from '../engine/pool.js';
import type { CheckTools } from './plan.js';

type PoolTools = Pick<CheckTools, 'engine' | 'browser' | 'fonts' | 'log'>;

/** A render waits half of its time, for frames and until the network is quiet: others are worked on meanwhile. */
const RENDERS_A_CORE = 2;
/** Renders at once, over all browsers. */
export const CONCURRENCY = Math.ceil(RENDERS_A_CORE * availableParallelism());

/** The browsers for a check: none is started before it is needed. */
export function poolFor({ engine, browser, fonts, log }: PoolTools): BrowserPool {
  return new BrowserPool(engine, {
    executable: browser,
    fonts,
    log,
    concurrency: CONCURRENCY,
    browsers: availableParallelism(),
  });
}
