import { setTimeout } from 'node:timers/promises';
import type { CDPSession } from 'puppeteer-core';
import { FramePump } from '../../src/engine/chromium/frame-pump.js';

/** A tab that makes a frame in a millisecond, and keeps whether each was to be painted. */
function tab(fails = false) {
  const painted: boolean[] = [];
  const send = async (method: string, { noDisplayUpdates }: { noDisplayUpdates: boolean }) => {
    expect(method).toBe('HeadlessExperimental.beginFrame');
    await setTimeout(1);
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
  expect(await pump.during(() => setTimeout(120, 'done'))).toBe('done');
  const during = painted.length - before;
  await setTimeout(120);
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
  await expect(
    pump.during(async () => {
      await setTimeout(30);
      throw new Error('no picture');
    }, true),
  ).rejects.toThrow('no picture');
  expect(painted).toContain(true);
  await setTimeout(40);
  pump.stop();
  expect(painted.at(-1)).toBe(false);
});

test('what is read frame by frame is painted until the reader stops', async () => {
  const { painted, pump } = tab();
  pump.start();
  async function* numbers() {
    for (let i = 0; ; i++) {
      await setTimeout(15);
      yield i;
    }
  }
  for await (const i of pump.through(numbers())) if (i === 2) break;
  expect(painted).toContain(true);
  await setTimeout(40);
  pump.stop();
  expect(painted.at(-1)).toBe(false);
});

test('a frame that is refused, as while a tab changes its document, does not end them; stopping does', async () => {
  const { painted, pump } = tab(true);
  pump.start();
  await pump.during(() => setTimeout(100));
  expect(painted.length).toBeGreaterThan(1);
  pump.stop();
  await setTimeout(30);
  const { length } = painted;
  await setTimeout(60);
  expect(painted).toHaveLength(length);
});
