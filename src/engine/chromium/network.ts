import type { CDPSession, Protocol } from 'puppeteer-core';
import type { Delivery, ResourceFailure } from '../../core/delivery/delivery.js';
import { withoutQuery } from '../../core/delivery/urls.js';
import { structureOf } from '../../core/delivery/structure.js';
import type { NetworkLog } from '../driver.js';

interface Started {
  readonly url: string;
  readonly kind: string;
  readonly since: number;
}

/** A page that fails without end fills no run folder. */
const MAX_FAILURES = 100;
const MAX_MESSAGES = 20;
const MAX_MESSAGE_LENGTH = 300;

/** Follows a page's requests: what is under way, what came, what did not, and what the page said of itself. */
export class NetworkWatch implements NetworkLog {
  httpStatus: number | null = null;
  finalUrl: string | null = null;
  private contentType: string | null = null;
  private timing: Delivery['timing'] = null;
  private documentRequest: string | null = null;
  private readonly redirects: { url: string; status: number }[] = [];
  private readonly requests: Record<string, { count: number; bytes: number }> = {};
  private readonly failures: ResourceFailure[] = [];
  private readonly consoleErrors = new Set<string>();
  private readonly pageErrors = new Set<string>();
  private readonly started = new Map<string, Started>();
  private readonly underWay = new Set<string>();
  private lastChange = performance.now();
  private mainFrame: string | null = null;

  constructor(private readonly session: CDPSession) {
    session.on('Network.requestWillBeSent', (event) => this.onRequest(event));
    session.on('Network.responseReceived', (event) => this.onResponse(event));
    session.on('Network.loadingFinished', (event) => {
      const started = this.started.get(event.requestId);
      const kind = started && this.requests[started.kind];
      if (kind) kind.bytes += Math.max(0, event.encodedDataLength);
      this.over(event.requestId);
    });
    session.on('Network.loadingFailed', (event) => this.onFailed(event));
    session.on('Runtime.exceptionThrown', ({ exceptionDetails }) => {
      const text = exceptionDetails.exception?.description ?? exceptionDetails.text;
      remember(this.pageErrors, text.split('\n', 1)[0] ?? '');
    });
    session.on('Runtime.consoleAPICalled', ({ type, args }) => {
      if (type !== 'error' && type !== 'assert') return;
      remember(this.consoleErrors, args.map((arg) => String(arg.value ?? arg.description ?? '')).join(' '));
    });
  }

  watchFrame(frameId: string): void {
    this.mainFrame = frameId;
  }

  private onRequest(event: Protocol.Network.RequestWillBeSentEvent): void {
    if (/^(data|blob):/.test(event.request.url)) return;
    const kind = (event.type ?? 'Other').toLowerCase();
    if (event.redirectResponse && event.type === 'Document' && event.frameId === this.mainFrame) {
      this.redirects.push({
        url: withoutQuery(event.redirectResponse.url),
        status: event.redirectResponse.status,
      });
    }
    const counted = (this.requests[kind] ??= { count: 0, bytes: 0 });
    counted.count++;
    this.started.set(event.requestId, { url: event.request.url, kind, since: performance.now() });
    this.underWay.add(event.requestId);
    this.lastChange = performance.now();
  }

  private onResponse(event: Protocol.Network.ResponseReceivedEvent): void {
    const { response } = event;
    const isHttp = /^https?:/.test(response.url);
    if (event.type === 'Document' && event.frameId === this.mainFrame) {
      this.httpStatus = isHttp ? response.status : null;
      this.finalUrl = response.url;
      this.contentType = response.mimeType;
      this.documentRequest = event.requestId;
      this.timing = response.timing ? timingOf(response.timing) : null;
    } else if (isHttp && response.status >= 400) {
      this.fail(event.requestId, response.status, `the server answered ${response.status}`, false);
    }
  }

  private onFailed(event: Protocol.Network.LoadingFailedEvent): void {
    // What the page itself called off is no failure.
    if (event.canceled !== true && event.errorText !== 'net::ERR_ABORTED') {
      const blocked = event.blockedReason !== undefined;
      this.fail(
        event.requestId,
        null,
        blocked ? `the browser refused it (${event.blockedReason!})` : event.errorText.replace(/^net::/, ''),
        blocked,
      );
    }
    this.over(event.requestId);
  }

  private fail(requestId: string, status: number | null, reason: string, blocked: boolean): void {
    const started = this.started.get(requestId);
    if (!started || this.failures.length >= MAX_FAILURES) return;
    this.failures.push({ url: withoutQuery(started.url), kind: started.kind, status, reason, blocked });
  }

  private over(requestId: string): void {
    if (this.underWay.delete(requestId)) this.lastChange = performance.now();
  }

  isQuiet(quietMs: number, longLivedMs: number): boolean {
    const now = performance.now();
    const waiting = [...this.underWay].some((id) => now - (this.started.get(id)?.since ?? 0) < longLivedMs);
    return !waiting && now - this.lastChange >= quietMs;
  }

  pending(): string[] {
    return [...this.underWay].map((id) => withoutQuery(this.started.get(id)?.url ?? ''));
  }

  async structure(): Promise<string | null> {
    if (this.documentRequest === null) return null;
    const body = await this.session
      .send('Network.getResponseBody', { requestId: this.documentRequest })
      .catch(() => null);
    return body === null || body.base64Encoded ? null : structureOf(body.body);
  }

  delivery(structure: string | null): Delivery {
    return {
      redirects: this.redirects,
      contentType: this.contentType,
      requests: this.requests,
      failures: this.failures,
      consoleErrors: [...this.consoleErrors],
      pageErrors: [...this.pageErrors],
      timing: this.timing,
      structure,
    };
  }
}

function remember(messages: Set<string>, text: string): void {
  if (messages.size < MAX_MESSAGES && text !== '') messages.add(text.slice(0, MAX_MESSAGE_LENGTH));
}

function timingOf(timing: Protocol.Network.ResourceTiming): Delivery['timing'] {
  const between = (from: number, to: number) => (from < 0 || to < 0 ? 0 : Math.round((to - from) * 10) / 10);
  return {
    dnsMs: between(timing.dnsStart, timing.dnsEnd),
    connectMs: between(timing.connectStart, timing.connectEnd),
    tlsMs: between(timing.sslStart, timing.sslEnd),
    waitMs: between(timing.sendEnd, timing.receiveHeadersEnd),
  };
}
