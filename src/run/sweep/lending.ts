/** Things of which there are a few, handed to whoever has waited longest. Null stands for one that is still to be made. */
export class Lending<T> {
  private readonly idle: (T | null)[];
  private readonly waiting: {
    readonly take: (thing: T | null) => void;
    readonly fail: (error: Error) => void;
  }[] = [];
  private ended: Error | null = null;

  constructor(readonly count: number) {
    this.idle = new Array<null>(count).fill(null);
  }

  take(): Promise<T | null> {
    if (this.ended) return Promise.reject(this.ended);
    const idle = this.idle.pop();
    if (idle !== undefined) return Promise.resolve(idle);
    return new Promise((take, fail) => this.waiting.push({ take, fail }));
  }

  /** @returns whether it is wanted no more */
  giveBack(thing: T | null): boolean {
    if (this.ended) return true;
    const next = this.waiting.shift();
    if (next) next.take(thing);
    else this.idle.push(thing);
    return false;
  }

  /** Fails who waits, and everyone after them. @returns what nobody has */
  end(error: Error): T[] {
    this.ended = error;
    for (const { fail } of this.waiting.splice(0)) fail(error);
    return this.idle.splice(0).filter((thing) => thing !== null);
  }
}
