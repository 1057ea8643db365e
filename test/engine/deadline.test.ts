import { Deadline } from '../../src/engine/deadline.js';

const NEVER = new Promise<never>(() => undefined);

test('all that is awaited on the pages of a run ends with it', async () => {
  const run = new AbortController();
  const pages = Array.from({ length: 13 }, () => new Deadline(Infinity, run.signal));
  const waiting = pages.map((page) => page.race(NEVER));
  run.abort();
  for (const each of waiting) await expect(each).rejects.toMatchObject({ interrupted: true });
});

test('what is awaited ends when the time is up, and first with what it was ended with before', async () => {
  const { signal } = new AbortController();
  const late = new Deadline(5, signal);
  await expect(late.race(NEVER)).rejects.toMatchObject({ name: 'OutOfTime', interrupted: false });
  const ended = new Deadline(Infinity, signal);
  ended.fail(new Error('the page went away'));
  ended.fail(new Error('something later'));
  await expect(ended.race(Promise.resolve())).rejects.toThrow('the page went away');
});
