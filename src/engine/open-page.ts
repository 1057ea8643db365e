import { withoutQuery } from '../core/delivery/urls.js';
import { IsopticError } from '../core/errors.js';
import type { LayoutSnapshot } from '../core/layout/snapshot.js';
import type { Device, Size } from '../core/profile/profile.js';
import { resizedDevice } from '../core/profile/resize.js';
import type { SignedInState } from './access.js';
import { Deadline } from './deadline.js';
import { Dispatcher } from './dispatch.js';
import type { PageDriver } from './driver.js';
import { PageFault, PageNotOpened, WorldLost } from './failures.js';
import { heldForPicture } from './held.js';
import { NO_TIMINGS, type PageJob, type RenderFacts } from './job.js';
import type { PictureFormat, Shot } from './shot.js';
import { LiveProbe } from './live-probe.js';
import type {
  CollectRequest,
  Frame,
  FrameOptions,
  PageSession,
  Paper,
  SettleKind,
  ShotOptions,
  ShotRequest,
} from './page-session.js';
import { joined, picturePlan } from './long-picture.js';
import { scaledTo } from './picture-file.js';
import type { Probe } from './probe.js';
import { quietNetwork } from './quiet-network.js';
import { stopwatch } from './stopwatch.js';
import type { Input, WaitCondition } from './steps.js';

/** Of a page's time, what the load event may take before the page is looked at without it. */
const LOAD_SHARE = 0.5;
/** Of the time that is left, what each wait on the way to rest may take. */
const WAIT_SHARE = 0.2;
/** Requests that a note names. */
const MOST_NAMED = 3;
/** What it may take in a page that has no end of its time, ms. */
const LOAD_MS = 15_000;
/** A page that goes elsewhere again and again while it is read is given up after this many times. */
const MAX_MOVES = 5;
const MOVED_MS = 200;
/** Smaller than any page is shown. */
const LEAST_SCALE = 0.1;

/** Opens a page over an engine's driver. @throws PageNotOpened, BrowserGone */
export async function openPage(driver: PageDriver, job: PageJob): Promise<PageSession> {
  const page = new OpenPage(driver, job);
  try {
    await page.begin();
    await page.go(job.url);
    return page;
  } catch (error) {
    page.stopScripts();
    const facts = await page.facts(false);
    await page.close();
    throw new PageNotOpened(error, facts);
  }
}

class OpenPage implements PageSession {
  private readonly timings = { ...NO_TIMINGS };
  private readonly notes = new Set<string>();
  private readonly deadline: Deadline;
  private readonly dispatcher: Dispatcher;
  private readonly closing = new AbortController();
  private device: Device;
  private hasAskedForSheets = false;
  private lastSettle: SettleKind = 'loaded';
  private lastSnapshot: Pick<LayoutSnapshot, 'document' | 'viewport' | 'scroll' | 'direction'> | null = null;

  constructor(
    private readonly driver: PageDriver,
    private readonly job: PageJob,
  ) {
    this.device = job.device;
    this.deadline = new Deadline(job.timeoutMs, job.signal, (error) => driver.explained(error));
    this.dispatcher = new Dispatcher(driver, this.deadline, this.device.touchPoints > 0, (note) =>
      this.note(note),
    );
    driver.onEnd((error) => this.deadline.fail(error));
  }

  async begin(): Promise<void> {
    await this.deadline.race(this.driver.begin(this.job));
  }

  async go(url: string): Promise<void> {
    const { driver, deadline, timings, job } = this;
    const clock = stopwatch();
    const { fault, loaded } = await deadline.race(driver.navigate(url));
    if (fault) throw new PageFault(fault);
    const bound = Number.isFinite(job.timeoutMs) ? job.timeoutMs * LOAD_SHARE : LOAD_MS;
    if (!(await deadline.upTo(bound, loaded))) {
      const waiting = driver.network.pending().slice(0, MOST_NAMED);
      const what = waiting.length > 0 ? `; still waited for: ${waiting.join(', ')}` : '';
      this.note(`the load event had not come after ${Math.round(bound / 1000)} s${what}`);
      // A style sheet that never comes keeps the page from being shown at all.
      await deadline.race(driver.stopLoading());
    }
    timings.loadMs += clock();
  }

  async resize(viewport: Size): Promise<void> {
    this.device = resizedDevice(this.device, viewport);
    await this.deadline.race(this.driver.resize(this.device));
  }

  settle(kind: SettleKind): Promise<void> {
    this.lastSettle = kind;
    return this.steadily(() => this.settleOnce(kind));
  }

  private async settleOnce(kind: SettleKind): Promise<void> {
    const { driver, deadline, timings } = this;
    const clock = stopwatch();
    if (kind === 'resized') {
      await this.settleResized();
      if (!driver.network.isQuiet(0, Infinity)) {
        // Another picture of a set, or what a script asks for at this size.
        await this.noteQuiet();
        await this.noteBounds(driver.call('settle', this.waitMs()));
      }
    } else {
      if (kind === 'loaded') await this.noteBounds(driver.call('scrollThrough'));
      await this.noteQuiet();
      const { hide, remove } = this.job.alter;
      if (hide.length + remove.length > 0) await deadline.race(driver.call('alter', { hide, remove }));
      await this.noteBounds(driver.call('settle', this.waitMs()));
    }
    timings.settleMs += clock();
  }

  private async settleResized(): Promise<void> {
    const { driver, deadline, device } = this;
    const { width, height, mobile } = device;
    const { initialScale, unread } = await this.noteBounds(driver.call('resized', { width, height, mobile }));
    if (unread.length > 0 && !this.hasAskedForSheets) await this.handSheets(unread);
    // However far it was shrunk to fit before, it is shown as it would be at first: at its own scale, or as small as it gets.
    if (mobile) await deadline.race(driver.scaleTo(initialScale ?? LEAST_SCALE));
  }

  /**
   * Tells the page what is written in style sheets that it can't read itself: without, nothing could be kept from one size to
   * the next. Once, since a page that is given others all the time would wait for them at every size.
   */
  private async handSheets(addresses: readonly string[]): Promise<void> {
    const { driver, deadline, job } = this;
    this.hasAskedForSheets = true;
    const styles = driver.styles(new URL(job.url).origin);
    try {
      await deadline.race(driver.call('handSheets', await deadline.race(styles.textsOf(addresses))));
    } finally {
      await styles.close();
    }
  }

  private async noteQuiet(): Promise<void> {
    const { driver, deadline } = this;
    if (!(await quietNetwork(driver.network, deadline, this.waitMs())))
      this.note('the network was never quiet');
  }

  /** What each wait may take of the time that is left: one that never ends must not cost the page. */
  private waitMs(): number {
    return Math.round(Math.min(60_000, this.deadline.remainingMs) * WAIT_SHARE);
  }

  /** Notes the waits whose bound was hit. */
  private async noteBounds<T extends { readonly bounds: readonly string[] }>(result: Promise<T>): Promise<T> {
    const found = await this.deadline.race(result);
    for (const bound of found.bounds) this.note(bound);
    return found;
  }

  async collect({ locate }: CollectRequest): Promise<LayoutSnapshot> {
    const { driver, deadline } = this;
    let isElsewhere = false;
    const snapshot = await this.steadily(async () => {
      // Another page than the one that was brought to rest.
      if (isElsewhere) await this.settleOnce(this.lastSettle);
      isElsewhere = true;
      const clock = stopwatch();
      const collected = await deadline.race(driver.call('collect', locate));
      const completed = await deadline.race(driver.completed(collected));
      this.timings.collectMs += clock();
      return completed;
    });
    for (const { what, count } of snapshot.leftOut) this.note(`left out: ${count} ${what}`);
    this.lastSnapshot = snapshot;
    return snapshot;
  }

  async shoot(
    what: ShotRequest,
    { format = 'png', fullPixels = 'css', foldScale }: ShotOptions = {},
  ): Promise<Shot> {
    const { driver, deadline, timings } = this;
    if (!driver.capabilities.has('pictures')) {
      throw new IsopticError('no-pictures', 'This engine takes no pictures.', 'Leave them out.');
    }
    const clock = stopwatch();
    try {
      if (what === 'full') return await this.shootWhole(format, fullPixels);
      if (what === 'fold' && foldScale !== undefined)
        return { file: await this.shootSmall(foldScale, format), format, cut: false };
      const take = () =>
        deadline.race(driver.picture(what === 'fold' ? null : { ...what, scale: 1 }, format));
      const file = await (what === 'fold' ? take() : heldForPicture(driver, deadline, take));
      return { file, format, cut: false };
    } finally {
      timings.shotMs += clock();
    }
  }

  /** What the screen shows, at so many picture pixels a CSS px. */
  private async shootSmall(perPx: number, format: PictureFormat): Promise<Buffer> {
    const { driver, deadline, device } = this;
    const { scroll, direction } = this.lastSnapshot ?? (await this.collect({ locate: [] }));
    const { width, height, dpr } = device;
    // An area of a page that is read from the right to the left is pictured beside its place, and a phone may show a page shrunk.
    if (direction === 'rtl' || device.mobile) {
      const large = await deadline.race(driver.picture(null, 'png'));
      return deadline.race(scaledTo(large, Math.round(width * perPx), format));
    }
    const screen = { ...scroll, width, height, onScreen: true, scale: perPx / dpr };
    return heldForPicture(driver, deadline, () => deadline.race(driver.picture(screen, format)));
  }

  private async shootWhole(format: PictureFormat, pixels: 'css' | 'device'): Promise<Shot> {
    const { driver, deadline, device } = this;
    const { document: page, viewport, scroll } = this.lastSnapshot ?? (await this.collect({ locate: [] }));
    const perPx = pixels === 'device' ? device.dpr : 1;
    const plan = picturePlan(
      { width: Math.max(page.width, viewport.width), height: Math.max(page.height, viewport.height) },
      perPx,
      format,
    );
    // Where a page reads from the right to the left, Chromium pictures it beside its place if asked for more than just the screen.
    const isAtTop = scroll.x === 0 && scroll.y === 0;
    const onScreen = isAtTop && page.width <= viewport.width && page.height <= viewport.height;
    // As long as the browser holds it so, what is fixed to the screen stands where the first screen has it, in whichever part.
    const parts = await heldForPicture(driver, deadline, async () => {
      const taken: Buffer[] = [];
      for (const area of plan.parts)
        taken.push(
          await deadline.race(
            driver.picture({ ...area, onScreen, scale: perPx / device.dpr }, plan.partFormat),
          ),
        );
      return taken;
    });
    if (plan.cut) this.note('the full picture is cut where the page is longer than a picture can be');
    const [first] = parts as [Buffer];
    const file = parts.length === 1 ? first : await deadline.race(joined(parts, plan.format));
    return { file, format: plan.format, cut: plan.cut };
  }

  dispatch(input: Input): Promise<void> {
    return this.dispatcher.dispatch(input);
  }

  until(condition: WaitCondition): Promise<void> {
    return this.dispatcher.until(condition);
  }

  async *frames(options: FrameOptions): AsyncIterable<Frame> {
    yield* this.driver.frames(options, this.closing.signal);
  }

  async print(paper: Paper): Promise<Buffer> {
    const { driver, deadline } = this;
    if (!driver.capabilities.has('print'))
      throw new IsopticError('no-print', 'This engine does not print.', 'Use another one.');
    return deadline.race(driver.printed(paper));
  }

  probe(): Probe {
    return new LiveProbe(this.driver, this.deadline, new URL(this.job.url).origin);
  }

  async state(): Promise<SignedInState> {
    const { driver, deadline } = this;
    const cookies = await deadline.race(driver.cookies());
    const { origin, entries } = await deadline.race(driver.call('storage'));
    return { cookies, storage: Object.keys(entries).length > 0 ? { [origin]: entries } : {} };
  }

  async facts(askPage = true): Promise<RenderFacts> {
    const { driver, job, timings } = this;
    const { network, dialogs } = driver;
    const structure = askPage ? await this.deadline.race(network.structure()).catch(() => null) : null;
    const { finalUrl } = network;
    return {
      // Of an address that the page led to itself, the query is not written down.
      finalUrl: finalUrl === null || finalUrl === job.url ? finalUrl : withoutQuery(finalUrl),
      httpStatus: network.httpStatus,
      delivery: network.delivery(structure),
      timings: { ...timings },
      notes: [
        ...this.notes,
        ...(dialogs > 0 ? [`${dialogs} dialog${dialogs === 1 ? '' : 's'} answered`] : []),
      ],
    };
  }

  note(text: string): void {
    this.notes.add(text);
  }

  stopScripts(): void {
    this.driver.stopScripts();
  }

  async close(): Promise<void> {
    this.closing.abort();
    this.deadline.dispose();
    await this.driver.close();
  }

  /** Does something with the page again where the page went elsewhere meanwhile. */
  private async steadily<T>(work: () => Promise<T>): Promise<T> {
    for (let moves = 0; ; moves++) {
      try {
        return await work();
      } catch (error) {
        if (!(error instanceof WorldLost)) throw error;
        if (moves >= MAX_MOVES) {
          const message = `${this.job.url} keeps going to another page.`;
          throw new PageFault({ code: 'never-settles', message });
        }
        await this.deadline.pause(MOVED_MS);
      }
    }
  }
}
