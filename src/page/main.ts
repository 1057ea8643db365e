import { choose, focusField, holds, locate, scrollTo, storage } from './act.js';
import { alter } from './alter.js';
import { collect } from './collect.js';
import { containersOf } from './containers.js';
import { elementOf } from './identity.js';
import { holdForPicture } from './for-picture.js';
import { mediaAttributes } from './media-attributes.js';
import { idleMedia } from './media-trial.js';
import { resized, scrolledTo, scrollThrough, settle } from './settle.js';
import { handSheets } from './style-index.js';
import { dress, endTrial, trial } from './trial.js';

/**
 * The entry of the bundle that the engine evaluates in an isolated world of the page: page scripts can neither see it
 * nor change the prototypes it uses. Every function takes and returns plain data, which crosses to the engine as JSON.
 */
const isoptic = {
  trial,
  dress,
  endTrial,
  idleMediaOf,
  mediaAttributes,
  containersOf,
  scrollThrough,
  scrolledTo,
  settle,
  resized,
  handSheets,
  collect,
  alter,
  holdForPicture,
  locate,
  scrollTo,
  focusField,
  choose,
  holds,
  storage,
};

export type PageApi = typeof isoptic;

function idleMediaOf(uids: readonly number[]) {
  return idleMedia(uids.map(elementOf));
}

/** Calls a function by name; the answer is one string. */
const call = async (name: keyof PageApi, args: unknown[]): Promise<string> =>
  JSON.stringify((await (isoptic[name] as (...args: unknown[]) => unknown)(...args)) ?? null);

Object.defineProperty(globalThis, 'isoptic', { value: call, configurable: true });
Object.defineProperty(globalThis, 'isopticElement', { value: elementOf, configurable: true });
