import type { CDPSession } from 'puppeteer-core';
import type { LayoutSnapshot } from '../../core/layout/snapshot.js';
import type { Device } from '../../core/profile/profile.js';
import type { Deadline } from '../deadline.js';

/** The browser paints a picture in one texture; this is as long as its sides get. */
const MAX_SIDE = 16_384;

/** What the screen shows first, at device pixels, as PNG. */
export async function captureFold(session: CDPSession, deadline: Deadline): Promise<Buffer> {
  const { data } = await deadline.race(
    session.send('Page.captureScreenshot', { format: 'png', optimizeForSpeed: true }),
  );
  return Buffer.from(data, 'base64');
}

/** The whole page at one picture pixel a CSS px, as PNG; `cut` says that it is longer than a picture can be. */
export async function captureFull(
  session: CDPSession,
  device: Device,
  { document: page, viewport }: Pick<LayoutSnapshot, 'document' | 'viewport'>,
  deadline: Deadline,
): Promise<{ png: Buffer; cut: boolean }> {
  const width = Math.max(page.width, viewport.width);
  const height = Math.max(page.height, viewport.height);
  const { data } = await deadline.race(
    session.send('Page.captureScreenshot', {
      format: 'png',
      optimizeForSpeed: true,
      captureBeyondViewport: true,
      clip: {
        x: 0,
        y: 0,
        width: Math.min(width, MAX_SIDE),
        height: Math.min(height, MAX_SIDE),
        scale: 1 / device.dpr,
      },
    }),
  );
  return { png: Buffer.from(data, 'base64'), cut: width > MAX_SIDE || height > MAX_SIDE };
}
