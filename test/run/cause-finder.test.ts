import { Judge } from '../../src/core/findings/judge.js';
import { RULES } from '../../src/core/rules/index.js';
import { BrowserGone } from '../../src/engine/failures.js';
import type { Probe } from '../../src/engine/probe.js';
import { CauseFinder } from '../../src/run/cause-finder.js';
import { renderOf } from '../support/render.js';
import type { Node } from '../support/snapshot.js';

const box = (width: number): Node => ({
  tag: 'div',
  id: 'box',
  box: [0, 0, width, 40],
  style: { width: '500px' },
  lines: [{ box: [0, 0, Math.min(width, 490), 20], unbreakable: width > 400 }],
});
const broken = () => renderOf({ width: 400, scrollWidth: 500 }, [box(500)]);
const mended = () => renderOf({ width: 400 }, [box(390)]).view.snapshot;

function probeThat(layoutWith: Probe['layoutWith']): Probe & { asked: number } {
  const probe = {
    asked: 0,
    layoutWith: (change: Parameters<Probe['layoutWith']>[0]) => {
      probe.asked++;
      return layoutWith(change);
    },
    picturesWith: () => Promise.resolve(null),
    queries: () => Promise.resolve([]),
    screenAt: () => Promise.resolve(null),
    screensWith: () => Promise.resolve(null),
    idleMedia: () => Promise.resolve([]),
    declarationOf: () => Promise.resolve(null),
    close: () => Promise.resolve(),
  };
  return probe;
}

test('a defect whose page or browser went away is looked into on the next render that shows it', async () => {
  const finder = new CauseFinder(new Judge(RULES, {}), 3);
  const dying = probeThat(() => Promise.reject(new BrowserGone('it went away')));
  await expect(finder.investigate(0, broken(), dying)).rejects.toThrow('it went away');
  expect(dying.asked).toBe(1);
  expect(finder.causes.size).toBe(0);

  const living = probeThat(() => Promise.resolve(mended()));
  await finder.investigate(1, broken(), living);
  expect([...finder.causes.values()].map(({ name, proven }) => [name, proven])).toEqual([
    ['fixed-width', true],
  ]);

  // What is explained is not asked for again.
  const third = probeThat(() => Promise.resolve(mended()));
  await finder.investigate(2, broken(), third);
  expect(third.asked).toBe(0);
});

test('what pixels bore out is not taken for gone in an experiment that changes nothing', async () => {
  const covered = () =>
    renderOf({ width: 400, scrollHeight: 2000 }, [
      { tag: 'p', box: [10, 50, 200, 20], lines: [{ box: [10, 50, 180, 19], text: 'Boats of the day' }] },
      {
        tag: 'div',
        id: 'band',
        box: [10, 26, 200, 30],
        style: { 'background-color': 'rgb(230, 240, 255)', position: 'absolute', top: '26px' },
      },
    ]);
  const render = covered();
  const judge = new Judge(RULES, {});
  const { uid } = render.view.snapshot.nodes;
  const [doubt] = judge.doubts(render);
  render.view.snapshot.looks = [
    { cover: uid[doubt!.cover]!, under: uid[doubt!.under]!, ink: 30, hidden: 28 },
  ];
  const finder = new CauseFinder(judge, 1);
  const probe = probeThat(() => Promise.resolve(covered().view.snapshot));
  await finder.investigate(0, render, probe);
  expect(probe.asked).toBeGreaterThan(0);
  expect([...finder.causes.values()]).toEqual([]);
});

test('a render looks into as many defects as its experiments are enough for, and the next one into the rest, however slow the page', async () => {
  const boxes = Array.from({ length: 80 }, (_, i): Node => ({
    ...box(500),
    id: `box-${String.fromCharCode(97 + (i % 26))}${'xyzw'[Math.floor(i / 26)]!}`,
    box: [0, i * 50, 500, 40],
  }));
  const render = () => renderOf({ width: 400, scrollWidth: 500, scrollHeight: 4000 }, boxes);
  const slow = () =>
    probeThat(() => new Promise((done) => setTimeout(() => done(render().view.snapshot), 2)));
  const judge = new Judge(RULES, {});
  const defects = new Set(
    judge.judge(render()).map(({ rule, sighting }) => `${rule.meta.name} ${sighting.key}`),
  );
  expect(defects.size).toBeGreaterThan(70);

  const asked = async () => {
    const finder = new CauseFinder(judge, 3);
    const counts = [];
    for (let place = 0; place < 3; place++) {
      const probe = slow();
      await finder.investigate(place, render(), probe);
      counts.push(probe.asked);
    }
    return counts;
  };
  const first = await asked();
  expect(first[0]).toBeGreaterThan(40);
  expect(first[0]).toBeLessThanOrEqual(200);
  expect(first[1]).toBeGreaterThan(0);
  expect(await asked()).toEqual(first);
});
