import { messageOf } from '../core/errors.js';
import type { LayoutSnapshot } from '../core/layout/snapshot.js';
import { OutOfTime } from './deadline.js';
import { unmetNotes } from './capabilities.js';
import type { BrowserSession } from './engine.js';
import { BrowserGone, PageFault, PageNotOpened, StepFailed, WorldLost } from './failures.js';
import type { Capture, RawShots, RenderFacts, RenderFault, RenderJob, RenderOutcome } from './job.js';
import type { PageSession, SettleKind } from './page-session.js';
import type { Shot } from './shot.js';
import { runSteps } from './run-steps.js';
import { statesOf } from './steps.js';
import { stopwatch } from './stopwatch.js';

/**
 * Loads, prepares, settles, collects and captures one page. Never hangs past the job's time limit and never throws for what a
 * page does: that is a `failed` outcome.
 * @throws BrowserGone when the browser itself went away under it
 */
export async function render(browser: BrowserSession, job: RenderJob): Promise<RenderOutcome> {
  let page: PageSession;
  try {
    page = await browser.open(job);
  } catch (error) {
    if (!(error instanceof PageNotOpened)) throw error;
    return failure(job, error.reason, error.facts, []);
  }
  const { name, capabilities } = browser.engine;
  for (const note of unmetNotes(name, capabilities, job.device, job.shots)) page.note(note);
  const shots = capabilities.has('pictures') ? job.shots : { fold: false, full: false };
  const work = new RenderWork(page, { ...job, shots });
  try {
    await work.run();
    const signedIn = job.keepState === true ? await page.state() : undefined;
    return {
      ...(await work.facts(true)),
      status: 'ok',
      captures: work.captures,
      ...(signedIn && { signedIn }),
    };
  } catch (error) {
    if (error instanceof OutOfTime) page.stopScripts();
    const picture =
      error instanceof StepFailed
        ? await page.shoot('fold').then(
            ({ file }) => file,
            () => null,
          )
        : null;
    return failure(job, error, await work.facts(!(error instanceof OutOfTime)), work.captures, picture);
  } finally {
    await page.close();
  }
}

/** One render under way, with what it has come to so far. */
class RenderWork {
  readonly captures: Capture[] = [];
  private causeMs = 0;

  constructor(
    private readonly page: PageSession,
    private readonly job: RenderJob,
  ) {}

  async facts(askPage: boolean): Promise<RenderFacts> {
    const facts = await this.page.facts(askPage);
    return { ...facts, timings: { ...facts.timings, causeMs: this.causeMs } };
  }

  async run(): Promise<void> {
    const { page, job } = this;
    const { preparations } = job;
    // The page is brought to rest once; from then on the steps decide where it is scrolled to.
    if (preparations.length > 0) await page.settle('loaded');
    for (const preparation of preparations) {
      await runSteps(page, preparation, job.url, (state) => this.capture(state, 'changed'));
    }
    if (!preparations.some((preparation) => statesOf(preparation).length > 0))
      await this.capture(null, endsScrolled(preparations) ? 'changed' : 'loaded');
  }

  private async capture(state: string | null, kind: SettleKind): Promise<void> {
    const { job } = this;
    const snapshot = await this.read(kind);
    // A picture that fails does not cost the layout.
    const shots: { -readonly [Kind in keyof RawShots]: RawShots[Kind] } = { fold: null, full: null };
    const capture: Capture = { state, snapshot, shots };
    this.captures.push(capture);
    for (const shot of ['fold', 'full'] as const) if (job.shots[shot]) shots[shot] = await this.shoot(shot);
    await this.investigate(capture);
  }

  private async shoot(what: 'fold' | 'full'): Promise<Shot | null> {
    try {
      return await this.page.shoot(what, this.job.shots);
    } catch (error) {
      if (isEnd(error)) throw error;
      this.page.note(`the ${what} picture could not be taken: ${messageOf(error)}`);
      return null;
    }
  }

  private async read(kind: SettleKind): Promise<LayoutSnapshot> {
    const { page, job } = this;
    await page.settle(kind);
    return page.collect({ locate: [...job.locate, ...job.alter.mask] });
  }

  /** What is found out about causes is an addition; a page that does not stand it, or has no time left, keeps its capture. */
  private async investigate(capture: Capture): Promise<void> {
    const { page, job } = this;
    if (!job.investigate) return;
    const clock = stopwatch();
    const probe = page.probe();
    try {
      await job.investigate(capture, probe);
      await probe.close();
    } catch (error) {
      if (error instanceof OutOfTime) page.stopScripts();
      else if (!(error instanceof WorldLost))
        page.note(`causes were not looked for to the end: ${messageOf(error)}`);
    }
    this.causeMs += clock();
  }
}

/** Whether steps leave the page scrolled to where it is to be looked at. */
function endsScrolled(preparations: RenderJob['preparations']): boolean {
  return preparations.at(-1)?.steps.at(-1)?.action.kind === 'scrollTo';
}

/** Whether there is nothing more to be had of the page. */
function isEnd(error: unknown): boolean {
  return error instanceof OutOfTime || error instanceof PageFault || error instanceof BrowserGone;
}

/** The outcome for what a page did. @throws what is not the page's doing */
function failure(
  job: RenderJob,
  reason: unknown,
  facts: RenderFacts,
  captures: readonly Capture[],
  picture: Buffer | null = null,
): RenderOutcome {
  return { ...facts, status: 'failed', error: faultOf(job, reason, facts), captures, picture };
}

function faultOf(job: RenderJob, reason: unknown, { notes }: RenderFacts): RenderFault {
  if (reason instanceof PageFault) return reason.fault;
  if (reason instanceof StepFailed) return { code: 'step-failed', message: reason.message };
  if (!(reason instanceof OutOfTime)) throw reason;
  if (reason.interrupted)
    return { code: 'interrupted', message: 'The run was interrupted before this was rendered.' };
  const seconds = Math.round(job.timeoutMs / 100) / 10;
  const dialogs = notes.find((note) => /^\d+ dialogs answered$/.test(note));
  const many = dialogs !== undefined && Number.parseInt(dialogs) > 3;
  const why = many ? ` It opened ${dialogs.replace(' answered', '')}.` : '';
  return {
    code: 'timeout',
    message: `${job.url} was not ready after ${seconds} s.${why} Give it more with --timeout.`,
  };
}
