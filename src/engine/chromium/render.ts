import type { CDPSession } from 'puppeteer-core';
import type { LayoutSnapshot } from '../../core/layout/snapshot.js';
import { Deadline, OutOfTime } from '../deadline.js';
import type { RawShots, RenderFault, RenderJob, RenderOutcome, RenderTimings } from '../engine.js';
import { captureFold, captureFull } from './capture.js';
import { emulate } from './emulate.js';
import { loadFault } from './net-errors.js';
import { NetworkWatch } from './network.js';
import { isLostContext, PageWorld } from './page-world.js';

const QUIET_MS = 120;
const NETWORK_BOUND_MS = 4_000;
/** Of a page's time, what the load event may take before the page is looked at without it. */
const LOAD_SHARE = 0.5;
/** A page that goes elsewhere again and again while it is read is given up after this many times. */
const MAX_MOVES = 5;

/** A failure that is the page's: it ends this render and no other. */
class PageFault extends Error {
  constructor(readonly fault: RenderFault) {
    super(fault.message);
  }
}

/** Loads, settles, collects and captures one page in a session that shows `about:blank`. */
export async function renderInSession(session: CDPSession, job: RenderJob): Promise<RenderOutcome> {
  const deadline = new Deadline(job.timeoutMs, job.signal);
  const timings: RenderTimings = { loadMs: 0, settleMs: 0, collectMs: 0, analyseMs: 0, shotMs: 0 };
  const notes = new Set<string>();
  const network = new NetworkWatch(session);
  const dialogs = answerDialogs(session);
  let structure: string | null = null;
  const outcome = () => ({
    finalUrl: network.finalUrl === null ? null : withoutQuery(network.finalUrl, job.url),
    httpStatus: network.httpStatus,
    delivery: network.delivery(structure),
    timings,
    notes: [...notes],
  });
  try {
    const crashed = new Promise<never>((_, reject) => {
      const fault = { code: 'page-crashed', message: `${job.url} crashed the browser's tab.` };
      session.once('Inspector.targetCrashed', () => reject(new PageFault(fault)));
    });
    crashed.catch(() => undefined);
    const { snapshot, shots } = await Promise.race([
      work(session, job, deadline, network, timings, notes),
      crashed,
    ]);
    structure = await deadline.race(network.structure());
    if (dialogs.count > 0) notes.add(`${dialogs.count} dialog${dialogs.count === 1 ? '' : 's'} answered`);
    return { ...outcome(), status: 'ok', snapshot, shots };
  } catch (error) {
    if (error instanceof PageFault) return { ...outcome(), status: 'failed', error: error.fault };
    if (error instanceof OutOfTime) {
      // An endless script would keep the tab busy while it is closed.
      void session.send('Runtime.terminateExecution').catch(() => undefined);
      return { ...outcome(), status: 'failed', error: timeFault(job, error, dialogs.count) };
    }
    throw error;
  } finally {
    deadline.dispose();
  }
}

async function work(
  session: CDPSession,
  job: RenderJob,
  deadline: Deadline,
  network: NetworkWatch,
  timings: RenderTimings,
  notes: Set<string>,
): Promise<{ snapshot: LayoutSnapshot; shots: RawShots }> {
  const clock = stopwatch();
  await deadline.race(
    Promise.all([
      session.send('Page.enable'),
      session.send('Network.enable'),
      session.send('Inspector.enable'),
      session.send('Runtime.enable'),
      emulate(session, job.device),
    ]),
  );
  const frameId = await load(session, job, deadline, network, notes);
  timings.loadMs = clock();

  const world = new PageWorld(session, frameId, deadline);
  const snapshot = await settleAndCollect(world, network, deadline, timings, notes, job);

  clock();
  const fold = job.shots.fold ? await captureFold(session, deadline) : null;
  const full = job.shots.full ? await captureFull(session, job.device, snapshot, deadline) : null;
  if (full?.cut) notes.add('the full picture is cut where the page is longer than a picture can be');
  timings.shotMs = clock();
  return { snapshot, shots: { fold, full: full?.png ?? null } };
}

/** Goes to the page and waits for its load event, within the bound. Returns the main frame's id. */
async function load(
  session: CDPSession,
  job: RenderJob,
  deadline: Deadline,
  network: NetworkWatch,
  notes: Set<string>,
): Promise<string> {
  const loaded = new Promise<void>((resolve) => session.once('Page.loadEventFired', () => resolve()));
  const { frameTree } = await deadline.race(session.send('Page.getFrameTree'));
  network.watchFrame(frameTree.frame.id);
  const { errorText, isDownload } = (await deadline.race(
    session.send('Page.navigate', { url: job.url }),
  )) as { errorText?: string; isDownload?: boolean };
  if (errorText !== undefined || isDownload === true) {
    throw new PageFault(loadFault(job.url, isDownload === true ? 'net::ERR_ABORTED' : errorText!));
  }
  const bound = job.timeoutMs * LOAD_SHARE;
  if (!(await deadline.upTo(bound, loaded))) {
    notes.add(`the load event had not come after ${Math.round(bound / 1000)} s`);
  }
  return frameTree.frame.id;
}

async function settleAndCollect(
  world: PageWorld,
  network: NetworkWatch,
  deadline: Deadline,
  timings: RenderTimings,
  notes: Set<string>,
  job: RenderJob,
): Promise<LayoutSnapshot> {
  for (let moves = 0; ; moves++) {
    try {
      const clock = stopwatch();
      await world.enter();
      for (const bound of await world.scrollThrough()) notes.add(bound);
      await quietNetwork(network, deadline, notes);
      for (const bound of await world.settle()) notes.add(bound);
      timings.settleMs += clock();
      const snapshot = await world.collect();
      timings.collectMs += clock();
      for (const { what, count } of snapshot.leftOut) notes.add(`left out: ${count} ${what}`);
      return snapshot;
    } catch (error) {
      if (!isLostContext(error)) throw error;
      if (moves >= MAX_MOVES) {
        throw new PageFault({ code: 'never-settles', message: `${job.url} keeps going to another page.` });
      }
      await deadline.race(new Promise((resolve) => setTimeout(resolve, 200)));
    }
  }
}

async function quietNetwork(network: NetworkWatch, deadline: Deadline, notes: Set<string>): Promise<void> {
  const until = performance.now() + NETWORK_BOUND_MS;
  while (!network.isQuiet(QUIET_MS, NETWORK_BOUND_MS / 2)) {
    if (performance.now() > until) {
      notes.add('the network was never quiet');
      return;
    }
    await deadline.race(new Promise((resolve) => setTimeout(resolve, 20)));
  }
}

/** Dialogs are closed as they open: a page can't stop a run by asking something. */
function answerDialogs(session: CDPSession): { count: number } {
  const dialogs = { count: 0 };
  session.on('Page.javascriptDialogOpening', () => {
    dialogs.count++;
    void session.send('Page.handleJavaScriptDialog', { accept: true }).catch(() => undefined);
  });
  return dialogs;
}

function timeFault(job: RenderJob, error: OutOfTime, dialogs: number): RenderFault {
  if (error.interrupted)
    return { code: 'interrupted', message: 'The run was interrupted before this was rendered.' };
  const seconds = Math.round(job.timeoutMs / 100) / 10;
  const why = dialogs > 3 ? ` It opened ${dialogs} dialogs.` : '';
  return {
    code: 'timeout',
    message: `${job.url} was not ready after ${seconds} s.${why} Give it more with --timeout.`,
  };
}

/** Each call gives the milliseconds since the one before it. */
function stopwatch(): () => number {
  let last = performance.now();
  return () => {
    const now = performance.now();
    const passed = now - last;
    last = now;
    return Math.round(passed * 10) / 10;
  };
}

/** Queries may carry tokens: of an address that the page led to itself, the query is not written down. */
function withoutQuery(url: string, asked: string): string {
  return url === asked ? url : url.replace(/[?#].*$/s, '');
}
