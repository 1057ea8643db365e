import { availableParallelism } from 'node:os';
import pLimit from 'p-limit';
import type { Rule } from '../../core/rules/rule.js';
import type { BrowserSession } from '../../engine/engine.js';
import { BrowserGone } from '../../engine/failures.js';
import { browserKindFor } from '../../engine/pool.js';
import type { SitePage } from '../../site/targets.js';
import type { CheckPlan, CheckTools } from '../plan.js';
import { Copies } from './copies.js';
import { rangeFor, type SweepRange } from './plan.js';
import { searchPage, type PageSweep } from './search-page.js';
import { withWidthShots } from './width-shots.js';

/** What a search needs of the tools of a check. */
export type SweepTools = Pick<
  CheckTools,
  'engine' | 'browser' | 'fonts' | 'folder' | 'signal' | 'log' | 'onEvent'
>;

/** Searches the pages of one run over sizes, in a browser of its own: its frames come as fast as the machine makes them. */
export class Sweeper {
  private readonly cores = availableParallelism();
  private readonly limit = pLimit(this.cores);
  private session: Promise<BrowserSession> | null = null;
  private closed = false;

  constructor(
    private readonly plan: CheckPlan,
    private readonly range: SweepRange,
    private readonly tools: SweepTools,
    private readonly rules: readonly Rule[],
  ) {}

  /** Small pictures of the sizes on the way are written to the run's folder where it asks for pictures. */
  search(page: SitePage): Promise<PageSweep> {
    const { plan, tools } = this;
    const range = rangeFor(this.range, page.id);
    return this.withCopies(page, async (copies, search) => {
      const found = await search(true);
      const isPictured = (plan.shots.fold || plan.shots.full) && range.axis === 'width';
      if (!isPictured || found.record.error !== null) return found;
      return { ...found, record: await withWidthShots(found.record, copies, range, tools.folder) };
    });
  }

  /**
   * Does something with open copies of a page: of a single page there are as many as cores; of many pages, as many pages are open at once.
   * @param work is given the copies, and what searches them, which loads the page anew to confirm what it found unless told
   */
  withCopies<T>(
    page: SitePage,
    work: (copies: Copies, search: (confirms: boolean) => Promise<PageSweep>) => Promise<T>,
  ): Promise<T> {
    return this.limit(async () => {
      const { plan, tools, rules, cores } = this;
      const range = rangeFor(this.range, page.id);
      const count = Math.max(1, Math.floor(cores / Math.min(cores, plan.pages.length)));
      const copies = new Copies(page, plan, range, () => this.browser(), tools.signal, rules, count);
      const onLooked = (layouts: number) => tools.onEvent({ kind: 'looked', page: page.id, layouts });
      try {
        return await work(copies, (confirms) => searchPage(page.id, copies, range, { confirms, onLooked }));
      } finally {
        await copies.close();
      }
    });
  }

  /** A browser that went away is started again. */
  private async browser(): Promise<BrowserSession> {
    if (this.closed) throw new BrowserGone('the search is over');
    if (this.session && !(await this.session).alive) this.session = null;
    const { tools, range } = this;
    this.session ??= tools.engine.launch({
      executable: tools.browser,
      ...browserKindFor(range.device, tools.fonts),
      frames: 'free',
      log: tools.log,
    });
    return this.session;
  }

  async close(): Promise<void> {
    this.closed = true;
    await (await this.session?.catch(() => null))?.close();
  }
}
