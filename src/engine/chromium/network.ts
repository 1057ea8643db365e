import type { CDPSession } from 'puppeteer-core';

/** Follows a page's requests: what is under way, and what the main document's answer was. */
export class NetworkWatch {
  httpStatus: number | null = null;
  finalUrl: string | null = null;
  private readonly underWay = new Map<string, number>();
  private lastChange = performance.now();
  private mainFrame: string | null = null;

  constructor(session: CDPSession) {
    session.on('Network.requestWillBeSent', (event) => {
      if (event.request.url.startsWith('data:')) return;
      this.underWay.set(event.requestId, performance.now());
      this.lastChange = performance.now();
    });
    session.on('Network.responseReceived', (event) => {
      if (event.type !== 'Document' || event.frameId !== this.mainFrame) return;
      this.httpStatus = /^https?:/.test(event.response.url) ? event.response.status : null;
      this.finalUrl = event.response.url;
    });
    const over = (event: { requestId: string }) => {
      if (this.underWay.delete(event.requestId)) this.lastChange = performance.now();
    };
    session.on('Network.loadingFinished', over);
    session.on('Network.loadingFailed', over);
  }

  watchFrame(frameId: string): void {
    this.mainFrame = frameId;
  }

  /**
   * Whether nothing has been under way for `quietMs`. Requests older than `longLivedMs` are not waited for: streams and
   * long polls never end.
   */
  isQuiet(quietMs: number, longLivedMs: number): boolean {
    const now = performance.now();
    const waiting = [...this.underWay.values()].some((since) => now - since < longLivedMs);
    return !waiting && now - this.lastChange >= quietMs;
  }
}
