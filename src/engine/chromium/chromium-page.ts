import type { CDPSession, Protocol } from 'puppeteer-core';
import { fromWire } from '../../core/layout/wire.js';
import type { LayoutSnapshot } from '../../core/layout/snapshot.js';
import type { Device } from '../../core/profile/profile.js';
import type { Collected } from '../../page/collect.js';
import type { PageApi } from '../../page/main.js';
import type { Cookie } from '../access.js';
import type { Navigation, PageDriver, PictureArea, Point, StyleOrigins } from '../driver.js';
import { PageFault } from '../failures.js';
import type { PageJob } from '../job.js';
import type { PictureFormat } from '../shot.js';
import { LOSSY_QUALITY } from '../picture-file.js';
import type { Frame, FrameOptions, Paper } from '../page-session.js';
import { CHROMIUM_CAPABILITIES } from './chromium-capabilities.js';
import { noteClosedRoots } from './closed-roots.js';
import { emulate, emulateScreen } from './emulate.js';
import { explained } from './explained.js';
import { addGeneratedContent } from './generated-content.js';
import type { FramePump } from './frame-pump.js';
import { grantAccess } from './grant.js';
import { hearInput, moveMouse, pressKey, tap } from './input.js';
import { loadFault } from './net-errors.js';
import { NetworkWatch } from './network.js';
import { listenFirst, PageWorld } from './page-world.js';
import { screencast } from './screencast.js';
import { ChromiumStyles } from './style-origins.js';

/** What the page's own part waits for frames in. */
const WAITS_FOR_FRAMES: ReadonlySet<string> = new Set<keyof PageApi>([
  'settle',
  'resized',
  'scrollThrough',
  'scrolledTo',
]);

/** One tab, driven through a session that is attached to it and shows `about:blank`. */
export class ChromiumPage implements PageDriver {
  readonly capabilities = CHROMIUM_CAPABILITIES;
  readonly network: NetworkWatch;
  dialogs = 0;
  private world: PageWorld | null = null;
  /** From the first thing on that is done with the page. */
  private heard: Promise<void> | null = null;
  /** Scroll bars take room from the page. */
  private hasBars = true;
  private readonly listeners: ((error: Error) => void)[] = [];

  /**
   * @param dispose closes the tab and all that it has
   * @param pump where the browser makes no frames by itself
   */
  constructor(
    private readonly session: CDPSession,
    private readonly url: string,
    private readonly dispose: () => Promise<void>,
    private readonly pump: FramePump | null,
  ) {
    this.network = new NetworkWatch(session);
    session.on('Page.javascriptDialogOpening', () => {
      this.dialogs++;
      void session.send('Page.handleJavaScriptDialog', { accept: true }).catch(() => undefined);
    });
    session.once('Inspector.targetCrashed', () => {
      this.end(new PageFault({ code: 'page-crashed', message: `${this.url} crashed the browser's tab.` }));
    });
  }

  onEnd(listener: (error: Error) => void): void {
    this.listeners.push(listener);
  }

  /** Tells that the page is gone. */
  end(error: Error): void {
    this.pump?.stop();
    for (const listener of this.listeners.splice(0)) listener(error);
  }

  explained(error: unknown): Error {
    return explained(error);
  }

  async begin({ device, access, url }: PageJob): Promise<void> {
    this.hasBars = device.scrollBars === 'classic';
    const { session } = this;
    const [{ frameTree }] = await Promise.all([
      session.send('Page.getFrameTree'),
      session.send('Page.enable'),
      session.send('Network.enable'),
      session.send('Inspector.enable'),
      session.send('Runtime.enable'),
      emulate(session, device),
      hearInput(session, false),
      listenFirst(session),
      grantAccess(session, access, url),
    ]);
    const frameId = frameTree.frame.id;
    this.network.watchFrame(frameId);
    this.world = new PageWorld(session, frameId);
    this.pump?.start();
  }

  async navigate(url: string): Promise<Navigation> {
    const { session } = this;
    const loaded = new Promise<void>((resolve) => session.once('Page.loadEventFired', () => resolve()));
    const { errorText, isDownload } = (await session.send('Page.navigate', { url })) as {
      errorText?: string;
      isDownload?: boolean;
    };
    if (errorText === undefined && isDownload !== true) return { fault: null, loaded };
    return { fault: loadFault(url, isDownload === true ? 'net::ERR_ABORTED' : errorText!), loaded };
  }

  async stopLoading(): Promise<void> {
    await this.session.send('Page.stopLoading');
  }

  call<Name extends keyof PageApi>(
    name: Name,
    ...args: Parameters<PageApi[Name]>
  ): Promise<Awaited<ReturnType<PageApi[Name]>>> {
    const call = () => this.world!.call(name, ...args);
    if (this.pump && name === 'resized') return this.pump.once(call);
    return this.pump && WAITS_FOR_FRAMES.has(name) ? this.pump.during(call) : call();
  }

  async completed({ snapshot, untold, suspects }: Collected): Promise<LayoutSnapshot> {
    const { session } = this;
    if (suspects.length > 0)
      await noteClosedRoots(session, snapshot, suspects, (uid) => this.world!.handleOf(uid));
    await addGeneratedContent(session, snapshot, untold);
    // The window of a phone is wider than its layout where the page is, not by a bar.
    const viewport = this.hasBars ? snapshot.viewport : { ...snapshot.viewport, scrollbar: 0 };
    return fromWire({ ...snapshot, viewport });
  }

  async runScript(script: string): Promise<string | null> {
    const { exceptionDetails } = await this.session.send('Runtime.evaluate', {
      expression: `(async () => { ${script}\n})()`,
      awaitPromise: true,
      userGesture: true,
    });
    if (!exceptionDetails) return null;
    const text = exceptionDetails.exception?.description ?? exceptionDetails.text;
    return text.split('\n', 1)[0]!;
  }

  async resize(device: Device): Promise<void> {
    this.hasBars = device.scrollBars === 'classic';
    await emulateScreen(this.session, device);
  }

  async scaleTo(factor: number): Promise<void> {
    await this.session.send('Emulation.setPageScaleFactor', { pageScaleFactor: factor });
  }

  async press(key: string): Promise<void> {
    await this.hearing();
    await pressKey(this.session, key);
  }

  async type(text: string): Promise<void> {
    await this.session.send('Input.insertText', { text });
  }

  async pointTo(point: Point): Promise<void> {
    await this.hearing();
    await moveMouse(this.session, point, false);
  }

  async clickAt(point: Point): Promise<void> {
    await this.hearing();
    await moveMouse(this.session, point, true);
  }

  async tapAt(point: Point): Promise<void> {
    await this.hearing();
    await tap(this.session, point);
  }

  private hearing(): Promise<void> {
    return (this.heard ??= hearInput(this.session, true));
  }

  async picture(area: PictureArea | null, format: PictureFormat): Promise<Buffer> {
    const take = () =>
      this.session.send('Page.captureScreenshot', {
        format,
        ...(format !== 'png' && { quality: LOSSY_QUALITY }),
        optimizeForSpeed: true,
        ...(area && clipOf(area)),
      });
    const { data } = await (this.pump ? this.pump.during(take, true) : take());
    return Buffer.from(data, 'base64');
  }

  frames(options: FrameOptions, signal: AbortSignal): AsyncIterable<Frame> {
    const frames = screencast(this.session, options, signal);
    return this.pump?.through(frames) ?? frames;
  }

  async printed(paper: Paper): Promise<Buffer> {
    const { data } = await this.session.send('Page.printToPDF', {
      printBackground: true,
      preferCSSPageSize: paper === null,
      ...(paper && { paperWidth: paper.width, paperHeight: paper.height }),
      ...(paper && { marginTop: 0, marginBottom: 0, marginLeft: 0, marginRight: 0 }),
    });
    return Buffer.from(data, 'base64');
  }

  styles(origin: string): StyleOrigins {
    return new ChromiumStyles(this.session, this.world!, origin);
  }

  async cookies(): Promise<Cookie[]> {
    // Storage.getCookies, its successor, answers for the browser's first context from a page's session.
    const { cookies } = await this.session.send('Network.getAllCookies');
    return cookies.map(({ name, value, domain, path, secure, httpOnly, sameSite, session, expires }) => ({
      name,
      value,
      domain,
      path,
      secure,
      httpOnly,
      ...(sameSite && { sameSite }),
      ...(!session && { expires }),
    }));
  }

  stopScripts(): void {
    void this.session.send('Runtime.terminateExecution').catch(() => undefined);
  }

  close(): Promise<void> {
    this.pump?.stop();
    return this.dispose();
  }
}

function clipOf({ onScreen = false, ...clip }: PictureArea): Partial<Protocol.Page.CaptureScreenshotRequest> {
  return { captureBeyondViewport: !onScreen, clip };
}
