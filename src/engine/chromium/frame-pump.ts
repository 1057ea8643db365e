import type { CDPSession } from 'puppeteer-core';

/** The time between two frames of a screen, ms. */
const SCREEN_MS = 16;
/** What one who waits for one frame gets to end with it, ms. */
const BRIEF_MS = 8;

/**
 * Asks for the frames of a tab whose browser makes none by itself: while somebody waits for what a frame brings, one after
 * another; else as often as a screen would. Nothing is painted but for a picture: a page that is only measured needs to be
 * laid out, and most of what a frame costs is its pixels. (Chrome DevTools Protocol, domain HeadlessExperimental.)
 */
export class FramePump {
  /** How many wait for frames, and how many of these for what they paint. */
  private urgent = 0;
  private painted = 0;
  /** How many of them will likely need no frame but the next. */
  private brief = 0;
  private running = false;
  private wake: (() => void) | null = null;

  constructor(private readonly session: CDPSession) {}

  /** Frames come from now on, until the tab or its browser is gone. */
  start(): void {
    if (this.running) return;
    this.running = true;
    void this.run();
  }

  stop(): void {
    this.running = false;
    this.wake?.();
  }

  /** Waits for work that waits for frames. @param isPainted whether it wants them painted */
  async during<T>(work: () => Promise<T>, isPainted = false): Promise<T> {
    const end = this.begin(isPainted);
    try {
      return await work();
    } finally {
      end();
    }
  }

  /** Waits for work that one frame is likely enough for: the next one lets it be a little. */
  async once<T>(work: () => Promise<T>): Promise<T> {
    this.brief++;
    try {
      return await this.during(work);
    } finally {
      this.brief--;
    }
  }

  /** Passes on what comes of painted frames, one by one. */
  async *through<T>(items: AsyncIterable<T>): AsyncIterable<T> {
    const end = this.begin(true);
    try {
      yield* items;
    } finally {
      end();
    }
  }

  private begin(isPainted: boolean): () => void {
    this.urgent++;
    if (isPainted) this.painted++;
    // What is asked of the page now is on its way before the frame: it can wait for that one already.
    setImmediate(() => this.wake?.());
    return () => {
      this.urgent--;
      if (isPainted) this.painted--;
    };
  }

  private async run(): Promise<void> {
    while (this.running) {
      // What a tab says while it goes from one document to the next is no reason to stop; its end is told by `stop`.
      const made = await this.session
        .send('HeadlessExperimental.beginFrame', { noDisplayUpdates: this.painted === 0 })
        .catch(() => null);
      if (this.urgent > 0 && this.brief === this.urgent) await this.pause(BRIEF_MS);
      if (this.urgent === 0 || made === null) await this.pause(SCREEN_MS);
    }
  }

  private pause(mostMs: number): Promise<void> {
    if (!this.running) return Promise.resolve();
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, mostMs);
      this.wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }
}
