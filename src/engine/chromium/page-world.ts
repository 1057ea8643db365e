import { readFile } from 'node:fs/promises';
import type { CDPSession } from 'puppeteer-core';
import { fromWire } from '../../core/layout/wire.js';
import type { LayoutSnapshot } from '../../core/layout/snapshot.js';
import type { Collected } from '../../page/collect.js';
import type { PageApi } from '../../page/main.js';
import type { Deadline } from '../deadline.js';
import type { LayoutChange } from '../../page/trial.js';
import { noteClosedRoots } from './closed-roots.js';
import { addGeneratedContent } from './generated-content.js';

let source: Promise<string> | undefined;

/** The collector bundle, read once. */
function collectorSource(): Promise<string> {
  source ??= readFile(new URL('../../page/collector.js', import.meta.url), 'utf8');
  return source;
}

const WORLD = 'isoptic';

/** The first listener of a window is the one that can keep an event from the others: it has to come before the page's scripts. */
const LISTENER = `addEventListener('resize', (event) => globalThis.isopticOnResize?.(event))`;

/** Has every document that is loaded from now on listen for the collector, in its world. */
export async function listenFirst(session: CDPSession): Promise<void> {
  await session.send('Page.addScriptToEvaluateOnNewDocument', { source: LISTENER, worldName: WORLD });
}

/**
 * The collector in an isolated world of the page's main frame: it sees the page's document, the page sees nothing of
 * it. A world dies when the page goes elsewhere; calls then throw and `enter` makes a new one.
 */
export class PageWorld {
  private context: number | null = null;

  constructor(
    private readonly session: CDPSession,
    private readonly frameId: string,
    private readonly deadline: Deadline,
  ) {}

  async enter(): Promise<void> {
    const expression = await collectorSource();
    const { executionContextId } = await this.deadline.race(
      this.session.send('Page.createIsolatedWorld', { frameId: this.frameId, worldName: WORLD }),
    );
    this.context = executionContextId;
    await this.evaluate(expression);
  }

  /** Calls a function of the collector bundle. */
  async call<Name extends keyof PageApi>(
    name: Name,
    ...args: Parameters<PageApi[Name]>
  ): Promise<Awaited<ReturnType<PageApi[Name]>>> {
    const given = args.map((arg) => JSON.stringify(arg)).join();
    const answer = await this.evaluate(`isoptic(${JSON.stringify(name)}, [${given}])`);
    return JSON.parse(answer) as Awaited<ReturnType<PageApi[Name]>>;
  }

  async collect(wanted: readonly string[]): Promise<LayoutSnapshot> {
    const collected = await this.call('collect', wanted);
    await this.deadline.race(
      noteClosedRoots(this.session, collected.snapshot, collected.suspects, (row) => this.handleOf(row)),
    );
    return this.completed(collected);
  }

  /** The page as it would be laid out with a change. */
  async collectWith(change: LayoutChange): Promise<LayoutSnapshot> {
    try {
      return await this.completed(await this.call('trial', change));
    } finally {
      await this.call('endTrial');
    }
  }

  private async completed({ snapshot, untold }: Collected): Promise<LayoutSnapshot> {
    await this.deadline.race(addGeneratedContent(this.session, snapshot, untold));
    return fromWire(snapshot);
  }

  /** The protocol's handle of an element of the last snapshot; null for what is no element. */
  async handleOf(node: number): Promise<string | null> {
    const { result } = await this.deadline.race(
      this.session.send('Runtime.evaluate', {
        expression: `isopticElement(${node})`,
        contextId: this.context!,
      }),
    );
    return result.objectId ?? null;
  }

  private async evaluate(expression: string): Promise<string> {
    const { result, exceptionDetails } = await this.deadline.race(
      this.session.send('Runtime.evaluate', {
        expression,
        contextId: this.context!,
        awaitPromise: true,
        returnByValue: true,
      }),
    );
    if (exceptionDetails) {
      throw new Error(exceptionDetails.exception?.description ?? exceptionDetails.text);
    }
    return String(result.value);
  }
}

/** Whether an error says that the page went elsewhere while it was being read. */
export function isLostContext(error: unknown): boolean {
  return error instanceof Error && /context|navigated|Cannot find|No frame|detached/i.test(error.message);
}
