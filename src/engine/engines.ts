import { chromium } from './chromium/launch.js';
import type { Engine } from './engine.js';

/** The engine that is used when none is asked for. */
export const DEFAULT_ENGINE: Engine = chromium;
