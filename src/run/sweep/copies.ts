import pLimit from 'p-limit';
import { messageOf } from '../../core/errors.js';
import type { Judge } from '../../core/findings/judge.js';
import type { FoundQuery } from '../../core/css/found-query.js';
import { SelectorWriter } from '../../core/identity/selector.js';
import { SnapshotView } from '../../core/layout/view.js';
import type { Device, Size } from '../../core/profile/profile.js';
import { SharedNumbers } from '../../core/sweep/numbers.js';
import type { Sample } from '../../core/sweep/sample.js';
import type { BrowserSession } from '../../engine/engine.js';
import { PageNotOpened } from '../../engine/failures.js';
import type { PageSession, ShotOptions } from '../../engine/page-session.js';
import { runSteps } from '../../engine/run-steps.js';
import { statesOf } from '../../engine/steps.js';
import type { SitePage } from '../../site/targets.js';
import { isFor } from '../captures.js';
import { LookMemory } from '../look-memory.js';
import { covered, maskedRects } from '../masked.js';
import type { CheckPlan } from '../plan.js';
import { Lending } from './lending.js';
import { deviceAt, type SweepRange } from './plan.js';
import { Sampler, type Copy } from './sampler.js';

/** A page that loads waits a third of its time: others load meanwhile. */
const LOADS_A_COPY = 1.5;

/** How often a size is tried when the page dies under it. */
const TRIES = 2;

/** A container of a page, by its number and as it is told. */
export interface NamedContainer {
  readonly number: number;
  readonly selector: string;
}

export interface PageQueries {
  readonly queries: readonly FoundQuery[];
  /** The containers that a container query asks. */
  readonly containersOf: (query: FoundQuery) => readonly NamedContainer[];
}

/**
 * Open copies of one page, each in a context of its own, that are given one size after another. All of them are asked at once for
 * as many sizes as there are copies.
 */
export class Copies {
  private readonly copies: Lending<Copy>;
  private readonly loads: ReturnType<typeof pLimit>;
  private readonly numbers = new SharedNumbers();
  private readonly sampler: Sampler;
  /** What is seen where the page is loaded is not told from what was seen where it was not, and the other way round. */
  private readonly looksInPlace: LookMemory;
  private readonly looksAnew: LookMemory;
  private readonly preparations;
  /** Tabs that the page was loaded in to confirm a size, for the next size. */
  private readonly visited: Copy[] = [];
  private closed = false;

  constructor(
    private readonly page: SitePage,
    private readonly plan: CheckPlan,
    private readonly range: SweepRange,
    private readonly browser: () => Promise<BrowserSession>,
    private readonly signal: AbortSignal,
    rules: ConstructorParameters<typeof Judge>[0],
    count: number,
  ) {
    this.copies = new Lending(count);
    this.loads = pLimit(Math.ceil(LOADS_A_COPY * count));
    this.looksInPlace = new LookMemory(range.every);
    this.looksAnew = new LookMemory(range.every);
    this.sampler = new Sampler(page.id, plan.rules, range.axis, rules);
    this.preparations = plan.preparations.filter(
      (preparation) => isFor(page.id, preparation.pages) && statesOf(preparation).length === 0,
    );
  }

  /** Every condition on sizes that the page names. From then on the containers that they ask are measured. */
  queries(): Promise<PageQueries> {
    // The others load meanwhile. What is wrong with one is told when it is asked for something.
    const others = this.copies.count - 1;
    for (let i = 0; i < others; i++) void this.withCopy(async () => {}).catch(() => undefined);
    return this.withCopy(async ({ page, numbersOf }) => {
      const probe = page.probe();
      const queries = await probe.queries().finally(() => probe.close());
      const uids = new Set(queries.flatMap((query) => query.containers ?? []));
      if (uids.size === 0) return { queries, containersOf: () => [] };
      const view = new SnapshotView(await page.collect({ locate: [] }));
      const numbers = numbersOf(view);
      const selectors = new SelectorWriter(view);
      const named = new Map<number, NamedContainer>();
      for (let i = 0; i < view.count; i++) {
        if (!uids.has(view.uid(i))) continue;
        named.set(view.uid(i), { number: numbers[i]!, selector: selectors.write(i) });
        this.sampler.measure(numbers[i]!);
      }
      return {
        queries,
        containersOf: ({ containers = [] }) => containers.flatMap((uid) => named.get(uid) ?? []),
      };
    });
  }

  /** What is seen at a size of the window that the page was open in before. */
  inPlace(size: number): Promise<Sample> {
    return this.withCopy(async (copy) => {
      const device = deviceAt(this.range, size);
      await resized(copy.page, device);
      return this.sampler.sampleOf(copy, device, size);
    });
  }

  /** What the screen shows at a size of the window, a PNG file at device pixels unless told otherwise. */
  picture(viewport: Size, options?: ShotOptions): Promise<Buffer> {
    return this.withCopy(async ({ page }) => {
      await resized(page, viewport);
      return this.screenOf(page, options);
    });
  }

  /** The same of the page as it is loaded at a size. */
  pictureAnew(size: number, options?: ShotOptions): Promise<Buffer> {
    return this.anewAt(size, ({ page }) => this.screenOf(page, options));
  }

  private async screenOf(page: PageSession, options?: ShotOptions): Promise<Buffer> {
    const shot = await page.shoot('fold', options);
    const { mask } = this.plan.alter;
    if (mask.length === 0) return shot.file;
    const snapshot = await page.collect({ locate: mask });
    const { scroll, viewport, document } = snapshot;
    const scale = (options?.foldScale ?? this.range.device.dpr) * viewport.scale;
    return covered(shot, maskedRects(snapshot, mask), { ...scroll, scale, width: document.width });
  }

  /** What the screen shows at the device's own size with the page scrolled to a height, CSS px, a PNG file at device pixels. */
  screenAt(y: number): Promise<Buffer> {
    return this.withCopy(async ({ page }) => {
      const probe = page.probe();
      const picture = await probe.screenAt(y);
      await probe.close();
      return picture ?? (await this.screenOf(page));
    });
  }

  /** How far the page can be scrolled at the device's own size, CSS px. */
  scrollableHeight(): Promise<number> {
    return this.withCopy(async ({ page }) => {
      const { document, viewport } = await page.collect({ locate: [] });
      return Math.max(0, Math.round(document.height - viewport.shownHeight));
    });
  }

  /** What is seen at a size where the page is loaded anew. */
  anew(size: number): Promise<Sample> {
    return this.anewAt(size, (copy, device) => this.sampler.sampleOf(copy, device, size));
  }

  /**
   * What is seen at a size where the page is loaded in a tab that it may have been in before, which takes much less than a tab of its own.
   * Where something else is seen than was thought, it may hang on what the page has kept of that visit.
   */
  again(size: number): Promise<Sample> {
    const device = deviceAt(this.range, size);
    return this.loads(async () => {
      if (this.closed) throw new SearchEnded();
      const visited = this.visited.pop();
      let copy = visited;
      try {
        const sample = await this.inTime(
          async () => (copy = visited ? await this.loadedAgain(visited, device) : await this.open(device)),
          (opened) => this.sampler.sampleOf(opened, device, size),
          false,
        );
        this.visited.push(copy!);
        return sample;
      } catch (error) {
        await copy?.page.close().catch(() => undefined);
        throw error;
      }
    });
  }

  private anewAt<T>(size: number, work: (copy: Copy, device: Device) => Promise<T>): Promise<T> {
    const device = deviceAt(this.range, size);
    return this.loads(() => {
      if (this.closed) throw new SearchEnded();
      return this.inTime(
        () => this.open(device),
        (copy) => work(copy, device),
        true,
      );
    });
  }

  private async open(device: Device): Promise<Copy> {
    const { plan, signal } = this;
    const page = await (
      await this.browser()
    ).open({
      url: this.page.url,
      device,
      access: plan.access,
      alter: plan.alter,
      timeoutMs: Infinity,
      signal,
    });
    try {
      return await this.atRest(page);
    } catch (error) {
      await page.close();
      throw error;
    }
  }

  private async loadedAgain({ page }: Copy, device: Device): Promise<Copy> {
    await page.resize(device);
    await page.go(this.page.url);
    return this.atRest(page);
  }

  private async atRest(page: PageSession): Promise<Copy> {
    await page.settle('loaded');
    for (const preparation of this.preparations)
      await runSteps(page, preparation, this.page.url, () => Promise.resolve());
    if (this.preparations.length > 0) await page.settle('changed');
    return { page, numbersOf: this.numbers.copy(), looks: this.looksAnew };
  }

  /** Does something with a copy that is free; with a new one where it died under the work. @throws what a page or browser did */
  private async withCopy<T>(work: (copy: Copy) => Promise<T>): Promise<T> {
    let copy = await this.copies.take();
    try {
      for (let tries = 1; ; tries++) {
        try {
          const opened = copy;
          return await this.inTime(async () => (copy = opened ?? (await this.openFirst())), work, false);
        } catch (error) {
          await copy?.page.close().catch(() => undefined);
          copy = null;
          if (tries >= TRIES || this.closed || this.signal.aborted || error instanceof PageNotOpened)
            throw error;
        }
      }
    } finally {
      this.give(copy);
    }
  }

  /** All copies begin at the same size, so that what a script builds by its size is the same in all of them. */
  private async openFirst(): Promise<Copy> {
    const loaded = await this.open(deviceAt(this.range, this.range.to));
    const copy: Copy = { ...loaded, looks: this.looksInPlace };
    copy.numbersOf(new SnapshotView(await copy.page.collect({ locate: [] })));
    return copy;
  }

  /** A page that hangs must not keep the search for ever. */
  private async inTime<T>(
    open: () => Promise<Copy>,
    work: (copy: Copy) => Promise<T>,
    closes: boolean,
  ): Promise<T> {
    let copy: Copy | undefined;
    let timer: NodeJS.Timeout | undefined;
    const late = new Promise<never>((_, reject) => {
      timer = setTimeout(() => {
        copy?.page.stopScripts();
        reject(new Error(`not ready after ${Math.round(this.plan.timeoutMs / 1000)} s`));
      }, this.plan.timeoutMs);
    });
    const done = async () => {
      copy = await open();
      try {
        return await work(copy);
      } finally {
        if (closes) await copy.page.close();
      }
    };
    const working = done();
    working.catch(() => undefined);
    try {
      return await Promise.race([working, late]);
    } finally {
      clearTimeout(timer);
    }
  }

  private give(copy: Copy | null): void {
    if (this.copies.giveBack(copy)) void copy?.page.close().catch(() => undefined);
  }

  async close(): Promise<void> {
    this.closed = true;
    // One that failed ends the search; the others must not open pages after it.
    const left = [...this.copies.end(new SearchEnded()), ...this.visited.splice(0)];
    await Promise.all(left.map(({ page }) => page.close().catch(() => undefined)));
  }
}

/** The search of a page is over. */
class SearchEnded extends Error {
  override readonly name = 'SearchEnded';
}

/** Why a page could not be searched, in words. */
export function failureText(error: unknown): string {
  return error instanceof PageNotOpened ? messageOf(error.reason) : messageOf(error);
}

/** Gives a page another size and waits until it is at rest in it. Both are asked for at once: it waits for the size by itself. */
async function resized(page: PageSession, viewport: Size): Promise<void> {
  await Promise.all([page.resize(viewport), page.settle('resized')]);
}
