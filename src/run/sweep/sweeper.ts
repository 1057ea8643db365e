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
import { searchPage, type PageSweep, type SearchWork } from './search-page.js';
import { pictureWidths } from './width-shots.js';

/** An open page waits a third of its time, for frames and for what reads it: others are looked at meanwhile. */
const OPEN_A_CORE = 1.5;
/** Tabs that are given one size after another at once. */
const OPEN_AT_ONCE = Math.ceil(OPEN_A_CORE * availableParallelism());

/** What a search needs of the tools of a check. */
export type SweepTools = Pick<
  CheckTools,
  'engine' | 'browser' | 'fonts' | 'folder' | 'signal' | 'log' | 'onEvent'
>;

/** Searches the pages of one run over sizes, in a browser of its own: its frames come as fast as the machine makes them. */
export class Sweeper {
  private readonly limit = pLimit(OPEN_AT_ONCE);
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
    const isPictured = (plan.shots.fold || plan.shots.full) && range.axis === 'width';
    return this.withCopies(page, (copies, search) =>
      search({
        confirms: true,
        ...(isPictured && {
          picture: (edges, isAnew) => pictureWidths(page.id, edges, isAnew, copies, range, tools.folder),
        }),
      }),
    );
  }

  /**
   * Does something with open copies of a page: the fewer pages there are, the more copies of each.
   * @param work is given the copies, and what searches them
   */
  withCopies<T>(
    page: SitePage,
    work: (copies: Copies, search: (how: Omit<SearchWork, 'onLooked'>) => Promise<PageSweep>) => Promise<T>,
  ): Promise<T> {
    return this.limit(async () => {
      const { plan, tools, rules } = this;
      const range = rangeFor(this.range, page.id);
      const count = Math.max(1, Math.floor(OPEN_AT_ONCE / plan.pages.length));
      const copies = new Copies(page, plan, range, () => this.browser(), tools.signal, rules, count);
      const onLooked = (layouts: number) => tools.onEvent({ kind: 'looked', page: page.id, layouts });
      try {
        return await work(copies, (how) => searchPage(page.id, copies, range, { ...how, onLooked }));
      } finally {
        await copies.close();
      }
    });
  }

  /** Starts its browser, so that it starts while other things are made ready. */
  warmUp(): void {
    // Whoever needs it is told of what is wrong with it.
    this.browser().catch(() => undefined);
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
