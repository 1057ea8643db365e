import { setMaxListeners } from 'node:events';

/** Thrown when the time of a render is up or the run was interrupted. */
export class OutOfTime extends Error {
  override readonly name = 'OutOfTime';
  constructor(readonly interrupted: boolean) {
    super(interrupted ? 'interrupted' : 'out of time');
  }
}

/**
 * One end for everything about an open page: its time is up, the run is interrupted, or the page or its browser is gone.
 * Whatever is awaited through `race` ends with it. Nothing that has come is held on to: a page may stay open for hours.
 */
export class Deadline {
  private readonly end: number;
  private readonly waiting = new Set<(error: Error) => void>();
  private over: Error | null = null;
  private readonly timer: NodeJS.Timeout | undefined;
  private readonly onAbort = () => this.fail(new OutOfTime(true));

  /**
   * @param ms Infinity for a page that stays open until it is closed
   * @param explain what an error that a call failed with means
   */
  constructor(
    ms: number,
    private readonly signal: AbortSignal,
    private readonly explain: (error: unknown) => Error = asError,
  ) {
    this.end = performance.now() + ms;
    if (Number.isFinite(ms)) this.timer = setTimeout(() => this.fail(new OutOfTime(false)), ms);
    // Every open page listens to the signal of its run: many listeners are no leak.
    setMaxListeners(0, signal);
    if (signal.aborted) this.onAbort();
    else signal.addEventListener('abort', this.onAbort, { once: true });
  }

  get remainingMs(): number {
    return Math.max(0, this.end - performance.now());
  }

  /** Ends it for another reason; the first one counts. */
  fail(error: Error): void {
    if (this.over) return;
    this.over = error;
    for (const reject of this.waiting) reject(error);
    this.waiting.clear();
  }

  /** @throws OutOfTime, or what it was ended with */
  race<T>(promise: Promise<T>): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      if (this.over) {
        promise.catch(() => undefined);
        reject(this.over);
        return;
      }
      this.waiting.add(reject);
      promise
        .then(resolve, (error: unknown) => reject(this.explain(error)))
        .finally(() => this.waiting.delete(reject));
    });
  }

  /** Waits for `promise`, at most `ms`; says whether it came. Rejections count as come. @throws OutOfTime */
  async upTo(ms: number, promise: Promise<unknown>): Promise<boolean> {
    let timer: NodeJS.Timeout | undefined;
    const late = new Promise<boolean>((resolve) => {
      timer = setTimeout(() => resolve(false), ms);
    });
    try {
      return await this.race(Promise.race([promise.then(() => true), late]));
    } finally {
      clearTimeout(timer);
    }
  }

  pause(ms: number): Promise<void> {
    return this.race(new Promise((resolve) => setTimeout(resolve, ms)));
  }

  dispose(): void {
    clearTimeout(this.timer);
    this.signal.removeEventListener('abort', this.onAbort);
  }
}

function asError(error: unknown): Error {
  return error instanceof Error ? error : new Error(String(error));
}
