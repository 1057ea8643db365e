import type { CDPSession } from 'puppeteer-core';
import type { PageApi } from '../../page/main.js';
import { collectorSource } from '../collector-source.js';
import { WorldLost } from '../failures.js';

const WORLD = 'isoptic';

/** The first listener of a window is the one that can keep an event from the others: it has to come before the page's scripts. */
const LISTENER = `addEventListener('resize', (event) => globalThis.isopticOnResize?.(event))`;

/** Has every document that is loaded from now on listen for the collector, in its world. */
export async function listenFirst(session: CDPSession): Promise<void> {
  await session.send('Page.addScriptToEvaluateOnNewDocument', { source: LISTENER, worldName: WORLD });
}

/** Something that the page's bundle threw. */
class BundleError extends Error {
  override readonly name = 'BundleError';
}

/** What the protocol says of a context, frame or document that is not there any more. */
const LOST =
  /Cannot find (default )?execution context|Cannot find context|context was destroyed|navigated or closed|No frame|frame was detached|uniqueContextId not found/i;

/**
 * The collector in an isolated world of the page's main frame: it sees the page's document, the page sees nothing of
 * it. A world dies when the page goes elsewhere; a call under way then throws `WorldLost`, and the next one makes a new world.
 */
export class PageWorld {
  private context: number | null = null;

  constructor(
    private readonly session: CDPSession,
    private readonly frameId: string,
  ) {
    session.on('Page.frameNavigated', ({ frame }) => {
      if (frame.id === frameId) this.context = null;
    });
    session.on('Runtime.executionContextsCleared', () => {
      this.context = null;
    });
  }

  /** Calls a function of the collector bundle. @throws WorldLost */
  async call<Name extends keyof PageApi>(
    name: Name,
    ...args: Parameters<PageApi[Name]>
  ): Promise<Awaited<ReturnType<PageApi[Name]>>> {
    const given = args.map((arg) => JSON.stringify(arg)).join();
    const answer = await this.evaluate(await this.entered(), `isoptic(${JSON.stringify(name)}, [${given}])`);
    return JSON.parse(answer) as Awaited<ReturnType<PageApi[Name]>>;
  }

  /** The protocol's handle of an element; null for one that is gone. @throws WorldLost */
  async handleOf(uid: number): Promise<string | null> {
    const contextId = await this.entered();
    const { result } = await this.orLost(
      this.session.send('Runtime.evaluate', { expression: `isopticElement(${uid})`, contextId }),
    );
    return result.objectId ?? null;
  }

  private async entered(): Promise<number> {
    if (this.context !== null) return this.context;
    const expression = await collectorSource();
    const { executionContextId } = await this.orLost(
      this.session.send('Page.createIsolatedWorld', { frameId: this.frameId, worldName: WORLD }),
    );
    this.context = executionContextId;
    await this.evaluate(executionContextId, expression);
    return executionContextId;
  }

  private async evaluate(contextId: number, expression: string): Promise<string> {
    const { result, exceptionDetails } = await this.orLost(
      this.session.send('Runtime.evaluate', {
        expression,
        contextId,
        awaitPromise: true,
        returnByValue: true,
      }),
    );
    if (exceptionDetails) {
      throw new BundleError(exceptionDetails.exception?.description ?? exceptionDetails.text);
    }
    return String(result.value);
  }

  /** Only what the protocol says of a call counts: what an error of the page says is the page's. */
  private async orLost<T>(call: Promise<T>): Promise<T> {
    try {
      return await call;
    } catch (error) {
      if (!(error instanceof Error) || !LOST.test(error.message)) throw error;
      this.context = null;
      throw new WorldLost('the page went elsewhere', { cause: error });
    }
  }
}
