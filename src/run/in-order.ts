import { setTimeout } from 'node:timers/promises';

/** Lets things that run at once go through one gate in the order of their places. */
export class InOrder {
  private readonly passed: readonly PromiseWithResolvers[];

  constructor(count: number) {
    this.passed = Array.from({ length: count }, promiseWithResolvers);
  }

  /** Waits until all places before this one have passed, at most `boundMs`; says whether they have. */
  async before(place: number, boundMs: number): Promise<boolean> {
    const bound = new AbortController();
    const inOrder = await Promise.race([
      Promise.all(this.passed.slice(0, place).map(({ promise }) => promise)).then(() => true),
      setTimeout(boundMs, false, { signal: bound.signal }).catch(() => false),
    ]);
    bound.abort();
    return inOrder;
  }

  pass(place: number): void {
    this.passed[place]?.resolve();
  }
}

interface PromiseWithResolvers {
  readonly promise: Promise<void>;
  readonly resolve: () => void;
}

function promiseWithResolvers(): PromiseWithResolvers {
  let resolve!: () => void;
  const promise = new Promise<void>((done) => {
    resolve = done;
  });
  return { promise, resolve };
}
