import type { Judge } from '../../src/core/findings/judge.js';
import type { Doubt } from '../../src/core/sightings/doubt.js';
import type { Probe, StyleChange } from '../../src/engine/probe.js';
import { takeLooks } from '../../src/run/looks.js';
import { line, renderOf } from '../support/render.js';

const area = { x: 10, y: 10, width: 80, height: 20 };

/** Of a page with a picture and two words on it, the uids that the pictures of some doubts change, each picture's. */
async function changed(doubts: (at: { picture: number; a: number; b: number }) => readonly Doubt[]) {
  const render = renderOf({ width: 400, height: 300 }, [
    { tag: 'img', box: [0, 0, 400, 100] },
    { tag: 'p', box: [10, 10, 80, 20], lines: [line(10, 10, 80)] },
    { tag: 'p', box: [110, 10, 80, 20], lines: [line(110, 10, 80)] },
  ]);
  const at = { picture: 2, a: 3, b: 4 };
  let seen: readonly StyleChange[][] = [];
  const probe = {
    picturesWith: (changes: readonly StyleChange[][]) => {
      seen = changes;
      return Promise.resolve(null);
    },
  } as unknown as Probe;
  await takeLooks({ doubts: () => doubts(at) } as unknown as Judge, render, probe);
  const uids = (changes: readonly StyleChange[]) => changes.flatMap((change) => change.uids).sort();
  return { pictures: seen.map(uids), uid: (node: number) => render.view.uid(node) };
}

test('words that are taken away to see what they hide are not made visible in the same pictures', async () => {
  const hiding = (cover: number, under: number): Doubt => ({
    cover,
    under,
    area,
    byWords: true,
    sign: 'picture',
  });
  const unread = (words: number): Doubt => ({ cover: words, under: words, area, unread: true });
  const one = await changed(({ picture, a, b }) => [hiding(a, picture), unread(a), unread(b)]);
  const { uid } = one;
  // As it is, without the picture and the other words, without the first words and with the others readable, and both.
  expect(one.pictures[1]).toEqual([uid(2), uid(4)]);
  expect(one.pictures[2]).toEqual([uid(3), uid(4)]);
  const alone = await changed(({ a }) => [unread(a)]);
  expect(alone.pictures.slice(1, 3)).toEqual([[uid(3)], [uid(3)]]);
});
