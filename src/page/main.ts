import { choose, focusField, holds, locate, scrollTo, storage } from './act.js';
import { alter } from './alter.js';
import { collect } from './collect.js';
import { elementOf, putOn, takeBack } from './experiment.js';
import { idleMedia, withMedia } from './media-trial.js';
import { scrollThrough, settle } from './settle.js';
import { withViewport } from './viewport-trial.js';

/**
 * The entry of the bundle that the engine evaluates in an isolated world of the page: page scripts can neither see it
 * nor change the prototypes it uses. Every function takes and returns plain data, which crosses to the engine as JSON.
 */
const isoptic = {
  collectWith,
  collectWithViewport,
  collectWithMedia,
  idleMediaOf,
  scrollThrough,
  settle,
  collect,
  alter,
  locate,
  scrollTo,
  focusField,
  choose,
  holds,
  storage,
};

export type PageApi = typeof isoptic;

/** The snapshot as it would be with other styles on some elements. */
function collectWith(
  changes: readonly {
    readonly nodes: readonly number[];
    readonly styles: Readonly<Record<string, string>>;
  }[],
) {
  for (const { nodes, styles } of changes) for (const node of nodes) putOn(node, styles);
  try {
    return collect([], false);
  } finally {
    takeBack();
  }
}

/** The snapshot as it would be with another viewport meta tag. */
async function collectWithViewport(content: string) {
  const takeAway = await withViewport(content);
  try {
    return collect([], false);
  } finally {
    await takeAway();
  }
}

/** The snapshot as it would be with the rules of a media query in force. */
function collectWithMedia(condition: string) {
  const takeAway = withMedia(condition);
  try {
    return collect([], false);
  } finally {
    takeAway();
  }
}

function idleMediaOf(nodes: readonly number[]) {
  return idleMedia(nodes.map(elementOf));
}

/** Calls a function by name; the answer is one string. */
const call = async (name: keyof PageApi, args: unknown[]): Promise<string> =>
  JSON.stringify((await (isoptic[name] as (...args: unknown[]) => unknown)(...args)) ?? null);

Object.defineProperty(globalThis, 'isoptic', { value: call, configurable: true });
Object.defineProperty(globalThis, 'isopticElement', { value: elementOf, configurable: true });
