import { readdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Manifest } from '../../src/run/manifest.js';
import { demoTruth } from '../support/demo-truth.js';
import { isoptic, isRunning, readManifest } from '../support/program.js';
import { sweepSite } from '../support/sweep-site.js';

let temp: Awaited<ReturnType<typeof sweepSite>>;
beforeAll(async () => {
  temp = await sweepSite();
});
afterAll(() => temp.dispose());

test('every width looked at says the same', async () => {
  const range = ['--from', '470', '--to', '720'];
  const [few, all] = [
    await temp.swept('edges.html', ...range),
    await temp.swept('edges.html', ...range, '--every'),
  ];
  expect(all.sweep![0]).toMatchObject({ exhaustive: true });
  expect(all.sweep![0]!.layouts).toBeGreaterThanOrEqual(251);
  expect(few.sweep![0]!.edges).toEqual(all.sweep![0]!.edges);
  const spans = ({ findings }: Manifest) =>
    findings.map(({ rule, selector, spans: own }) => [rule, selector, own]);
  expect(spans(few)).toEqual(spans(all));
});

test('a page that measures once is loaded for each width, and one that hangs on the way of its window, too', async () => {
  const once = await temp.swept('once.html', '--from', '560', '--to', '700');
  expect(once.sweep![0]).toMatchObject({ anew: true, whole: true });
  expect(once.sweep![0]!.notes[0]).toMatch(/^loaded anew at .* px it shows something else/);
  expect(once.findings.filter(({ family }) => family === 'overflow')).toEqual([]);
  const asked = await temp.swept('asked.html', '--from', '600', '--to', '700');
  expect(asked.sweep![0]).toMatchObject({ anew: true, edges: [{ width: 641, message: '#more appears' }] });
  const dragged = await temp.swept('dragged.html', '--from', '360', '--to', '1000');
  expect(dragged.sweep![0]!.anew).toBe(true);
  expect(dragged.sweep![0]!.notes[0]).toMatch(
    /^its layout hangs on the way on which its window came to a width/,
  );
});

test('a page that never ends at some widths ends with the reason, and nothing is left behind', async () => {
  let pid = 0;
  const outcome = await isoptic(
    ['sweep', 'endless.html', '--shots', 'none', '--timeout', '3', '--out', 'run-endless'],
    { cwd: temp.path, during: (child) => void (pid = child.pid!) },
  );
  expect(outcome.status).toBe(3);
  expect(outcome.stdout).toMatch(/not searched {2}not ready after 3 s/);
  expect(isRunning(pid)).toBe(false);
  expect((await readManifest(join(temp.path, 'run-endless'))).sweep![0]!.error).toBe('not ready after 3 s');
}, 60_000);

test('pages may have widths of their own, unless the command line says some', async () => {
  await writeFile(
    join(temp.path, 'own.yaml'),
    'sweep: { to: 700, pages: [{ pages: ["ed*"], from: 400, to: 600, right: [[510, 600]] }] }\n',
  );
  const args = ['sweep', 'edges.html', 'container.html', '--config', 'own.yaml', '--shots', 'none', '--out'];
  const outcome = await isoptic([...args, 'run-own'], { cwd: temp.path });
  const { sweep } = await readManifest(join(temp.path, 'run-own'));
  expect(sweep!.map(({ page, from, to }) => [page, from, to])).toEqual([
    ['edges', 400, 600],
    ['container', 280, 700],
  ]);
  // The other page has to be right at every width, and is not.
  expect(outcome.status).toBe(1);
  const one = ['sweep', 'edges.html', '--config', 'own.yaml', '--shots', 'none', '--out'];
  expect((await isoptic([...one, 'run-one'], { cwd: temp.path })).status).toBe(0);
  await isoptic([...one, 'run-said', '--to', '300'], { cwd: temp.path });
  const said = await readManifest(join(temp.path, 'run-said'));
  expect(said.sweep![0]).toMatchObject({ from: 280, to: 300 });
  await writeFile(join(temp.path, 'none.yaml'), 'sweep: { pages: [{ pages: ["*"], from: 1950 }] }\n');
  const none = await isoptic(['sweep', 'edges.html', '--config', 'none.yaml'], { cwd: temp.path });
  expect(none).toMatchObject({ status: 2 });
  expect(none.stderr).toContain('sweep.pages: *: from 1950 to 1920 px is no range.');
});

test.each([
  [800, ['demo/as-found', '--all'], 20],
  [390, ['demo/as-found/index.html', 'demo/as-found/timetable.html', '--height', '390'], 2],
])(
  'the demo: a search finds the widths of each planted fault to the px, as looking at every width did, %i px high',
  async (high, targets, least) => {
    const faults = (await demoTruth()).filter(({ sweep, height }) => sweep !== undefined && height === high);
    expect(faults.length).toBeGreaterThanOrEqual(least);
    const out = join(temp.path, `run-demo-${high}`);
    await isoptic(['sweep', ...targets, '--shots', 'none', '--out', out, '--fail-on', 'never']);
    const { findings, pages } = await readManifest(out);
    for (const { id, rule, sweep, page } of faults) {
      const at = pages.find(({ source }) => source.endsWith(page))!.id;
      const spans = findings.filter((finding) => finding.rule === rule).map((finding) => finding.spans?.[at]);
      expect([id, spans]).toEqual([id, expect.arrayContaining([sweep])]);
    }
  },
  240_000,
);

test('a film stops at each change; its pictures can be had one by one', async () => {
  const args = ['film', 'edges.html', '--from', '640', '--to', '960', '--height', '400', '--largest', '480'];
  const outcome = await isoptic([...args, '--out', 'film.webp'], { cwd: temp.path });
  expect([outcome.status, outcome.stderr]).toEqual([0, '']);
  const film = await sharp(join(temp.path, 'film.webp'), { pages: -1 }).metadata();
  expect(film.format).toBe('webp');
  expect(film.width).toBe(480);
  expect(film.pages).toBeGreaterThan(15);
  // On both sides of 700 px, and of 900 and 901.
  expect(film.delay!.filter((ms) => ms >= 300).length).toBeGreaterThanOrEqual(6);
  const frames = await isoptic([...args, '--frames', 'frames'], { cwd: temp.path });
  expect(frames.stdout).toBe(
    `frames: ${film.pages!} pictures, ${(film.delay!.reduce((a, b) => a + b, 0) / 1000).toFixed(1)} s, 480 × ${film.pageHeight!} px\n`,
  );
  expect((await readdir(join(temp.path, 'frames'))).length).toBe(film.pages);
  const turned = await isoptic(
    ['film', 'edges.html', '--on', 'ios-phone-390', '--turn', '--out', 'turn.gif'],
    { cwd: temp.path },
  );
  expect(turned.stdout).toMatch(/^turn\.gif: 2 pictures/);
}, 60_000);
