import { collect } from './collect.js';
import { scrollThrough, settle } from './settle.js';

/**
 * The entry of the bundle that the engine evaluates in an isolated world of the page: page scripts can neither see it
 * nor change the prototypes it uses. It returns JSON text, which crosses to the engine as one string.
 */
const isoptic = {
  scrollThrough: async () => JSON.stringify(await scrollThrough()),
  settle: async () => JSON.stringify(await settle()),
  collect: () => JSON.stringify(collect()),
};

export type PageApi = typeof isoptic;

Object.defineProperty(globalThis, 'isoptic', { value: isoptic, configurable: true });
