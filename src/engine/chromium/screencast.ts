import type { CDPSession, Protocol } from 'puppeteer-core';
import type { Frame, FrameOptions } from '../page-session.js';

/** What the screen shows, frame by frame. A reader that is slow gets the newest frame, not all of them. (Domain Page.) */
export async function* screencast(
  session: CDPSession,
  { largest, every, quality }: FrameOptions,
  signal: AbortSignal,
): AsyncIterable<Frame> {
  let newest: Protocol.Page.ScreencastFrameEvent | null = null;
  let wake: (() => void) | null = null;
  const tell = () => wake?.();
  const onFrame = (event: Protocol.Page.ScreencastFrameEvent) => {
    newest = event;
    void session.send('Page.screencastFrameAck', { sessionId: event.sessionId }).catch(() => undefined);
    tell();
  };
  session.on('Page.screencastFrame', onFrame);
  signal.addEventListener('abort', tell);
  try {
    await session.send('Page.startScreencast', {
      format: 'jpeg',
      quality,
      maxWidth: largest.width,
      maxHeight: largest.height,
      everyNthFrame: every,
    });
    while (!signal.aborted) {
      const event = newest as Protocol.Page.ScreencastFrameEvent | null;
      newest = null;
      if (event) {
        const { scrollOffsetX: x, scrollOffsetY: y } = event.metadata;
        yield { jpeg: Buffer.from(event.data, 'base64'), scroll: { x, y } };
      } else {
        await new Promise<void>((resolve) => (wake = resolve));
      }
    }
  } finally {
    signal.removeEventListener('abort', tell);
    session.off('Page.screencastFrame', onFrame);
    await session.send('Page.stopScreencast').catch(() => undefined);
  }
}
