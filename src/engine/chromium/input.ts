import type { CDPSession } from 'puppeteer-core';
import type { Point } from '../driver.js';
import { keyEvent } from '../keys.js';

/**
 * A browser without a window tells each page that loads of a mouse at its top left corner, also that of a phone: what is there would
 * be hovered over. Until somebody does something with the page, it hears of nothing.
 */
export async function hearInput(session: CDPSession, hears: boolean): Promise<void> {
  await session.send('Input.setIgnoreInputEvents', { ignore: !hears });
}

/** Presses and lets go of a key, `Control+A` or `Enter` for instance. (Chrome DevTools Protocol, domain Input.) */
export async function pressKey(session: CDPSession, written: string): Promise<void> {
  const key = keyEvent(written)!;
  await session.send('Input.dispatchKeyEvent', { type: 'keyDown', ...key });
  await session.send('Input.dispatchKeyEvent', { type: 'keyUp', ...key });
}

/** @param isPressed whether the button is pressed and let go there */
export async function moveMouse(session: CDPSession, { x, y }: Point, isPressed: boolean): Promise<void> {
  await session.send('Input.dispatchMouseEvent', { type: 'mouseMoved', x, y });
  if (!isPressed) return;
  for (const type of ['mousePressed', 'mouseReleased'] as const)
    await session.send('Input.dispatchMouseEvent', { type, x, y, button: 'left', clickCount: 1 });
}

export async function tap(session: CDPSession, { x, y }: Point): Promise<void> {
  const touchPoints = [{ x: Math.round(x), y: Math.round(y) }];
  await session.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints });
  await session.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
}
