import { jest } from '@jest/globals';
import type { CDPSession } from 'puppeteer-core';
import { FramePump } from '../../src/engine/chromium/frame-pump.js';

// A clock of its own: how often frames come must not hang on how busy the machine is.
beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const pause = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));
/** What some work comes to, with the clock going on for so many ms. */
async function after<T>(ms: number, work: Promise<T>): Promise<T> {
  const [found] = await Promise.all([work, jest.advanceTimersByTimeAsync(ms)]);
  return found;
}

/** A tab that makes a frame in a millisecond, and keeps whether each was to be painted. */
function tab(fails = false) {
  const painted: boolean[] = [];
  const send = async (method: string, { noDisplayUpdates }: { noDisplayUpdates: boolean }) => {
    expect(method).toBe('HeadlessExperimental.beginFrame');
    await pause(1);
    painted.push(!noDisplayUpdates);
    if (fails) throw new Error('the frame was not made');
    return { hasDamage: false };
  };
  return { painted, pump: new FramePump({ send } as unknown as CDPSession) };
}

test('frames come one after another while somebody waits for them, and unpainted', async () => {
  const { painted, pump } = tab();
  pump.start();
  pump.start();
  const before = painted.length;
  const work = async () => {
    await pause(120);
    return 'done';
  };
  expect(await after(120, pump.during(work))).toBe('done');
  const during = painted.length - before;
  await jest.advanceTimersByTimeAsync(120);
  const idle = painted.length - before - during;
  pump.stop();
  // As often as a screen has them, when nobody waits.
  expect(during).toBeGreaterThan(2 * idle);
  expect(idle).toBeGreaterThan(1);
  expect(painted).not.toContain(true);
});

test('they are painted for who wants to see them, and for nobody after that', async () => {
  const { painted, pump } = tab();
  pump.start();
  const failing = async () => {
    await pause(30);
    throw new Error('no picture');
  };
  await after(30, expect(pump.during(failing, true)).rejects.toThrow('no picture'));
  expect(painted).toContain(true);
  await jest.advanceTimersByTimeAsync(40);
  pump.stop();
  expect(painted.at(-1)).toBe(false);
});

test('what is read frame by frame is painted until the reader stops', async () => {
  const { painted, pump } = tab();
  pump.start();
  async function* numbers() {
    for (let i = 0; ; i++) {
      await pause(15);
      yield i;
    }
  }
  const read = async () => {
    for await (const i of pump.through(numbers())) if (i === 2) break;
  };
  await after(45, read());
  expect(painted).toContain(true);
  await jest.advanceTimersByTimeAsync(40);
  pump.stop();
  expect(painted.at(-1)).toBe(false);
});

test('a frame that is refused, as while a tab changes its document, does not end them; stopping does', async () => {
  const { painted, pump } = tab(true);
  pump.start();
  await after(
    100,
    pump.during(() => pause(100)),
  );
  expect(painted.length).toBeGreaterThan(1);
  pump.stop();
  await jest.advanceTimersByTimeAsync(30);
  const { length } = painted;
  await jest.advanceTimersByTimeAsync(60);
  expect(painted).toHaveLength(length);
});
