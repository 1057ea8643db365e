/** Thrown when the time of a render is up or the run was interrupted. */
export class OutOfTime extends Error {
  override readonly name = 'OutOfTime';
  constructor(readonly interrupted: boolean) {
    super(interrupted ? 'interrupted' : 'out of time');
  }
}

/** One limit for everything about a render: whatever is awaited through `race` ends with it. */
export class Deadline {
  private readonly end: number;
  private readonly expired: Promise<never>;
  private timer: NodeJS.Timeout | undefined;
  private onAbort: (() => void) | undefined;

  constructor(
    ms: number,
    private readonly signal: AbortSignal,
  ) {
    this.end = performance.now() + ms;
    this.expired = new Promise<never>((_, reject) => {
      this.timer = setTimeout(() => reject(new OutOfTime(false)), ms);
      this.onAbort = () => reject(new OutOfTime(true));
      if (signal.aborted) this.onAbort();
      else signal.addEventListener('abort', this.onAbort, { once: true });
    });
    // Nobody may be waiting when it ends.
    this.expired.catch(() => undefined);
  }

  get remainingMs(): number {
    return Math.max(0, this.end - performance.now());
  }

  /** @throws OutOfTime */
  race<T>(promise: Promise<T>): Promise<T> {
    return Promise.race([promise, this.expired]);
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

  dispose(): void {
    clearTimeout(this.timer);
    if (this.onAbort) this.signal.removeEventListener('abort', this.onAbort);
  }
}
