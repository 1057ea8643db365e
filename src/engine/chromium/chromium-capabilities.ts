import { FEATURES, type Capabilities } from '../capabilities.js';

export const CHROMIUM_CAPABILITIES: Capabilities = new Set(FEATURES);
