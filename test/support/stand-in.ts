import { NO_DELIVERY } from '../../src/core/delivery/delivery.js';
import type { LayoutSnapshot } from '../../src/core/layout/snapshot.js';
import { fromWire, toWire } from '../../src/core/layout/wire.js';
import type { Device } from '../../src/core/profile/profile.js';
import type { Capabilities } from '../../src/engine/capabilities.js';
import type { PageDriver } from '../../src/engine/driver.js';
import type { BrowserSession, Engine } from '../../src/engine/engine.js';
import { openPage } from '../../src/engine/open-page.js';
import type { PageJob } from '../../src/engine/job.js';
import type { Collected } from '../../src/page/collect.js';
import { viewOf, type Node, type PageOptions } from './snapshot.js';

/** What the stand-in was asked, in order. */
export type Asked = string[];

/** A page that a stand-in knows: laid out by hand for each width that it is asked for. */
export type LaidOut = (device: Pick<Device, 'width' | 'height'>) => {
  readonly options: PageOptions;
  readonly children: readonly Node[];
};

export interface StandIn extends Engine {
  readonly asked: Asked;
  /** Sessions and pages that are open. */
  readonly open: { sessions: number; pages: number };
}

/**
 * An engine without a browser and without capabilities: it can say how a page is laid out, and nothing else. Whatever runs on it
 * is typed on no browser.
 */
export function standIn(laidOut: LaidOut, capabilities: Capabilities = new Set()): StandIn {
  const asked: Asked = [];
  const open = { sessions: 0, pages: 0 };
  const engine: StandIn = {
    name: 'stand-in',
    capabilities,
    asked,
    open,
    find: () => Promise.resolve({ executable: 'none', origin: 'test' }),
    launch: () => {
      open.sessions++;
      const session: BrowserSession = {
        engine,
        version: '1.2.3',
        alive: true,
        open: (job) => {
          open.pages++;
          return openPage(
            driverOf(laidOut, capabilities, asked, job, () => {
              open.pages--;
            }),
            job,
          );
        },
        close: () => {
          open.sessions--;
          return Promise.resolve();
        },
      };
      return Promise.resolve(session);
    },
  };
  return engine;
}

function driverOf(
  laidOut: LaidOut,
  capabilities: Capabilities,
  asked: Asked,
  job: PageJob,
  onClose: () => void,
): PageDriver {
  let device: Pick<Device, 'width' | 'height'> = job.device;
  const cannot = () => Promise.reject(new Error('the stand-in can not do that'));
  const layout = (): LayoutSnapshot => {
    const { options, children } = laidOut(device);
    return viewOf(options, children).snapshot;
  };
  const answers: Record<string, () => unknown> = {
    scrollThrough: () => ({ bounds: [] }),
    settle: () => ({ bounds: ['nothing moved'] }),
    resized: () => ({ bounds: [], initialScale: 1, unread: [] }),
    alter: () => undefined,
    collect: (): Collected => ({ snapshot: toWire(layout()), untold: [], suspects: [] }),
    trial: (): Collected => ({ snapshot: toWire(layout()), untold: [], suspects: [] }),
    endTrial: () => undefined,
    idleMediaOf: () => [],
  };
  return {
    capabilities,
    dialogs: 0,
    network: {
      httpStatus: 200,
      finalUrl: job.url,
      isQuiet: () => true,
      pending: () => [],
      structure: () => Promise.resolve(null),
      delivery: () => NO_DELIVERY,
    },
    onEnd: () => undefined,
    explained: (error) => (error instanceof Error ? error : new Error(String(error))),
    begin: () => {
      asked.push(`begin ${job.device.name}`);
      return Promise.resolve();
    },
    navigate: (url) => {
      asked.push(`navigate ${new URL(url).pathname}`);
      return Promise.resolve({ fault: null, loaded: Promise.resolve() });
    },
    stopLoading: () => Promise.resolve(),
    call: ((name: string) => {
      asked.push(name);
      const answer = answers[name];
      return answer ? Promise.resolve(answer()) : cannot();
    }) as PageDriver['call'],
    completed: ({ snapshot }) => Promise.resolve(fromWire(snapshot)),
    resize: (to) => {
      device = to;
      return Promise.resolve();
    },
    scaleTo: () => Promise.resolve(),
    runScript: cannot,
    press: cannot,
    type: cannot,
    pointTo: cannot,
    clickAt: cannot,
    tapAt: cannot,
    picture: cannot,
    printed: cannot,
    frames: () => {
      throw new Error('the stand-in can not do that');
    },
    styles: () => {
      throw new Error('the stand-in can not do that');
    },
    cookies: cannot,
    stopScripts: () => undefined,
    close: () => {
      onClose();
      return Promise.resolve();
    },
  };
}
