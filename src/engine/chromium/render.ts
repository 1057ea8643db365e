import type { LayoutSnapshot } from '../../core/layout/snapshot.js';
import type { CDPSession } from 'puppeteer-core';
import { Deadline, OutOfTime } from '../deadline.js';
import type { SignedInState } from '../access.js';
import {
  NO_TIMINGS,
  type Capture,
  type RenderFault,
  type RenderJob,
  type RenderOutcome,
  type RenderTimings,
} from '../engine.js';
import { statesOf } from '../steps.js';
import { withoutQuery } from '../../core/delivery/urls.js';
import { messageOf } from '../../core/errors.js';
import { captureFold, captureFull } from './capture.js';
import { emulate } from './emulate.js';
import { grantAccess } from './grant.js';
import { LiveProbe } from './live-probe.js';
import { loadFault } from './net-errors.js';
import { NetworkWatch } from './network.js';
import { isLostContext, listenFirst, PageWorld } from './page-world.js';
import { runSteps, StepFailed } from './run-steps.js';

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

/** Loads, prepares, settles, collects and captures one page in a session that shows `about:blank`. */
export async function renderInSession(session: CDPSession, job: RenderJob): Promise<RenderOutcome> {
  const deadline = new Deadline(job.timeoutMs, job.signal);
  const work = new RenderWork(session, job, deadline);
  const crashed = new Promise<never>((_, reject) => {
    const fault = { code: 'page-crashed', message: `${job.url} crashed the browser's tab.` };
    session.once('Inspector.targetCrashed', () => reject(new PageFault(fault)));
  });
  crashed.catch(() => undefined);
  try {
    await Promise.race([work.run(), crashed]);
    const signedIn = job.keepState === true ? await work.state() : undefined;
    return { ...(await work.facts()), status: 'ok', ...(signedIn && { signedIn }) };
  } catch (error) {
    if (error instanceof PageFault) {
      return { ...(await work.facts()), status: 'failed', error: error.fault, picture: null };
    }
    if (error instanceof StepFailed) {
      const fault = { code: 'step-failed', message: error.message };
      const picture = await captureFold(session, deadline).catch(() => null);
      return { ...(await work.facts()), status: 'failed', error: fault, picture };
    }
    if (error instanceof OutOfTime) {
      endScripts(session);
      const fault = timeFault(job, error, work.dialogs.count);
      return { ...(await work.facts(false)), status: 'failed', error: fault, picture: null };
    }
    throw error;
  } finally {
    deadline.dispose();
  }
}

/** One render under way, with what it has come to so far. */
class RenderWork {
  readonly dialogs: { count: number };
  private readonly timings: RenderTimings = { ...NO_TIMINGS };
  private readonly notes = new Set<string>();
  private readonly network: NetworkWatch;
  private readonly captures: Capture[] = [];
  private world: PageWorld | null = null;

  constructor(
    private readonly session: CDPSession,
    private readonly job: RenderJob,
    private readonly deadline: Deadline,
  ) {
    this.network = new NetworkWatch(session);
    this.dialogs = answerDialogs(session);
  }

  /** @param askPage false where the page does not answer any more */
  async facts(
    askPage = true,
  ): Promise<Pick<RenderOutcome, 'finalUrl' | 'httpStatus' | 'delivery' | 'timings' | 'notes' | 'captures'>> {
    const { network, job, timings, captures, dialogs } = this;
    const structure = askPage ? await this.deadline.race(network.structure()).catch(() => null) : null;
    if (dialogs.count > 0)
      this.notes.add(`${dialogs.count} dialog${dialogs.count === 1 ? '' : 's'} answered`);
    const { finalUrl } = network;
    return {
      // Of an address that the page led to itself, the query is not written down.
      finalUrl: finalUrl === null || finalUrl === job.url ? finalUrl : withoutQuery(finalUrl),
      httpStatus: network.httpStatus,
      delivery: network.delivery(structure),
      timings,
      notes: [...this.notes],
      captures,
    };
  }

  /** What a sign-in left: the cookies of the context and the storage of the page that it ended on. */
  async state(): Promise<SignedInState> {
    // Storage.getCookies, its successor, answers for the browser's first context from a page's session.
    const { cookies } = await this.deadline.race(this.session.send('Network.getAllCookies'));
    const { origin, entries } = await this.world!.call('storage');
    return {
      cookies: cookies.map(({ name, value, domain, path, secure, httpOnly, sameSite, session, expires }) => ({
        name,
        value,
        domain,
        path,
        secure,
        httpOnly,
        ...(sameSite && { sameSite }),
        ...(!session && { expires }),
      })),
      storage: Object.keys(entries).length > 0 ? { [origin]: entries } : {},
    };
  }

  async run(): Promise<void> {
    const { session, job, deadline, timings } = this;
    const clock = stopwatch();
    await deadline.race(
      Promise.all([
        session.send('Page.enable'),
        session.send('Network.enable'),
        session.send('Inspector.enable'),
        session.send('Runtime.enable'),
        emulate(session, job.device),
        listenFirst(session),
        grantAccess(session, job.access, job.url),
      ]),
    );
    const { frameTree } = await deadline.race(session.send('Page.getFrameTree'));
    const frameId = frameTree.frame.id;
    this.network.watchFrame(frameId);
    await this.load(job.url);
    timings.loadMs = clock();

    this.world = new PageWorld(session, frameId, deadline);
    if (job.preparations.length > 0) await this.prepare(this.world);
    if (!job.preparations.some((preparation) => statesOf(preparation).length > 0)) {
      await this.capture(this.world, null);
    }
  }

  /** Goes to an address and waits for its load event, within the bound. */
  private async load(url: string): Promise<void> {
    const { session, job, deadline } = this;
    const loaded = new Promise<void>((resolve) => session.once('Page.loadEventFired', () => resolve()));
    const { errorText, isDownload } = (await deadline.race(session.send('Page.navigate', { url }))) as {
      errorText?: string;
      isDownload?: boolean;
    };
    if (errorText !== undefined || isDownload === true) {
      throw new PageFault(loadFault(url, isDownload === true ? 'net::ERR_ABORTED' : errorText!));
    }
    const bound = job.timeoutMs * LOAD_SHARE;
    if (!(await deadline.upTo(bound, loaded))) {
      this.notes.add(`the load event had not come after ${Math.round(bound / 1000)} s`);
    }
  }

  /** The page is brought to rest once; from then on the steps decide where it is scrolled to. */
  private async prepare(world: PageWorld): Promise<void> {
    const { session, job, deadline, network, notes } = this;
    await steadily(job, deadline, () => this.settle(world, true));
    for (const preparation of job.preparations) {
      await runSteps(preparation, job.url, {
        session,
        world,
        network,
        deadline,
        notes,
        device: job.device,
        go: async (url) => {
          await this.load(url);
          await world.enter();
        },
        onMark: (state) => this.capture(world, state),
      });
    }
  }

  private async capture(world: PageWorld, state: string | null): Promise<void> {
    const { session, job, deadline, timings, notes } = this;
    const snapshot = await steadily(job, deadline, async () => {
      await this.settle(world, state === null);
      const clock = stopwatch();
      const collected = await world.collect([...job.locate, ...job.alter.mask]);
      timings.collectMs += clock();
      return collected;
    });
    for (const { what, count } of snapshot.leftOut) notes.add(`left out: ${count} ${what}`);
    const clock = stopwatch();
    const fold = job.shots.fold ? await captureFold(session, deadline) : null;
    const full = job.shots.full ? await this.captureWhole(world, snapshot) : null;
    if (full?.cut) notes.add('the full picture is cut where the page is longer than a picture can be');
    timings.shotMs += clock();
    const capture: Capture = { state, snapshot, shots: { fold, full: full?.png ?? null } };
    this.captures.push(capture);
    await this.investigate(world, capture);
  }

  private async captureWhole(world: PageWorld, snapshot: LayoutSnapshot): ReturnType<typeof captureFull> {
    const { session, job, deadline } = this;
    await world.call('holdForPicture', true);
    const picture = await captureFull(session, job.device, snapshot, deadline);
    await world.call('holdForPicture', false);
    return picture;
  }

  /** What is found out about causes is an addition; a page that does not stand it, or has no time left, keeps its capture. */
  private async investigate(world: PageWorld, capture: Capture): Promise<void> {
    const { session, job, deadline, timings } = this;
    if (!job.investigate) return;
    const clock = stopwatch();
    const probe = new LiveProbe(session, world, deadline, new URL(job.url).origin);
    try {
      await job.investigate(capture, probe);
      await probe.close();
    } catch (error) {
      if (error instanceof OutOfTime) endScripts(session);
      else if (!isLostContext(error))
        this.notes.add(`causes were not looked for to the end: ${messageOf(error)}`);
    }
    timings.causeMs += clock();
  }

  /** Brings the page to rest. @param fromTop scrolls through it first, to bring in what is lazy, and back to the top */
  private async settle(world: PageWorld, fromTop: boolean): Promise<void> {
    const { notes, timings } = this;
    const clock = stopwatch();
    await world.enter();
    if (fromTop) for (const bound of (await world.call('scrollThrough')).bounds) notes.add(bound);
    await quietNetwork(this.network, this.deadline, notes);
    const { hide, remove } = this.job.alter;
    if (hide.length + remove.length > 0) await world.call('alter', { hide, remove });
    for (const bound of (await world.call('settle')).bounds) notes.add(bound);
    timings.settleMs += clock();
  }
}

/** Does something with the page again where the page went elsewhere meanwhile. */
async function steadily<T>(job: RenderJob, deadline: Deadline, work: () => Promise<T>): Promise<T> {
  for (let moves = 0; ; moves++) {
    try {
      return await work();
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

/** An endless script would keep the tab busy while it is closed. */
function endScripts(session: CDPSession): void {
  void session.send('Runtime.terminateExecution').catch(() => undefined);
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
