import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { isoptic, readManifest } from '../support/program.js';
import { meta, sweepSite } from '../support/sweep-site.js';

let temp: Awaited<ReturnType<typeof sweepSite>>;
beforeAll(async () => {
  temp = await sweepSite();
});
afterAll(() => temp.dispose());

test('edges, spans, the condition that contains a span, and few layouts', async () => {
  const { sweep, findings, profiles } = await temp.swept('edges.html');
  expect(sweep).toHaveLength(1);
  expect(sweep![0]).toMatchObject({
    page: 'edges',
    axis: 'width',
    from: 280,
    to: 1920,
    across: 800,
    whole: true,
    anew: false,
    error: null,
  });
  expect(sweep![0]!.layouts).toBeLessThan(164);
  expect(sweep![0]!.edges).toEqual([
    { width: 700, message: 'ul.boats goes from 1 to 2 columns' },
    { width: 900, message: 'ul.boats goes from 2 to 1 column' },
    { width: 901, message: 'ul.boats goes from 1 to 3 columns' },
  ]);
  const [finding] = findings;
  expect(finding).toMatchObject({
    rule: 'page-overflow',
    selector: 'div.pass',
    spans: { edges: [[280, 499]] },
    conditions: [{ condition: '(max-width: 499px)', source: 'edges.css:3', fails: 499, right: 500 }],
  });
  // Rendered at what shows it, and at what does not any more.
  expect(profiles.map(({ name }) => name)).toEqual(['280x800', '500x800', '1920x800']);
});

test('elements that a script builds anew at every width are the same ones', async () => {
  const { sweep, findings } = await temp.swept('anew.html', '--to', '1000');
  expect(sweep![0]!.edges).toEqual([{ width: 641, message: 'main > ul goes from 1 to 2 columns' }]);
  expect(findings[0]).toMatchObject({ spans: { anew: [[280, 499]] } });
});

test('what shows something else all the time is not followed, and costs no load for each width', async () => {
  const { sweep } = await temp.swept('slides.html', '--from', '560', '--to', '840');
  expect(sweep![0]).toMatchObject({ anew: false, whole: true });
  expect(sweep![0]!.edges).toEqual([{ width: 700, message: 'main > ul goes from 1 to 2 columns' }]);
  expect(sweep![0]!.notes[0]).toMatch(/^it changes by itself while it is looked at/);
});

test('containers in a shadow tree, and lengths of the viewport in calc', async () => {
  const { sweep, findings } = await temp.swept('container.html', '--to', '900');
  // 500 px is nine tenths of the page without its scroll bar, if it has one.
  expect(sweep![0]!.edges.map(({ width }) => width)).toEqual([556]);
  expect(findings.map(({ spans }) => spans)).toEqual([{ container: [[280, 399]] }]);
});

test('heights are searched as widths are', async () => {
  await writeFile(
    join(temp.path, 'keyboard.html'),
    `${meta}<title>Keyboard</title><style>body{margin:0}@media (min-height:300px){.tall{display:grid;grid-template-columns:1fr 1fr}}</style><div class="tall"><p>One</p><p>Two</p></div>`,
  );
  const { sweep } = await temp.swept('keyboard.html', '--at', '844x390', '--heights', '200..390');
  expect(sweep![0]).toMatchObject({ axis: 'height', from: 200, to: 390, across: 844 });
  expect(sweep![0]!.edges).toEqual([{ width: 300, message: 'div.tall goes from 1 to 2 columns' }]);
});

test('the media queries of a page: where they hold and stand, what changes, and what is wrong', async () => {
  const outcome = await isoptic(['breakpoints', 'edges.html', '--json', '--out', 'run-queries'], {
    cwd: temp.path,
  });
  const { pages } = JSON.parse(outcome.stdout) as {
    pages: { queries: unknown[]; problems: string[]; ranges: unknown[] }[];
  };
  expect(pages[0]!.queries).toEqual([
    {
      text: '(min-width: 700px) and (max-width: 899px)',
      kind: 'media',
      spans: [[700, 899]],
      source: 'edges.css:4',
      sources: ['edges.css:4'],
      changes: 'from 700: ul.boats goes from 1 to 2 columns. from 900: ul.boats goes from 2 to 1 column',
      problems: ['between 899 and 901 px neither it nor “(min-width: 901px)” holds'],
    },
    expect.objectContaining({ text: '(min-width: 901px)', spans: [[901, 1920]], problems: [] }),
    expect.objectContaining({ text: '(min-width: 1000px)', problems: ['nothing changes at 1000 px'] }),
  ]);
  expect(pages[0]!.problems).toEqual([
    'the layout at 900 px lives for 1 px',
    'div.pass breaks from 280 to 499 px; the nearest query begins at 700 px',
  ]);
  expect(pages[0]!.ranges).toHaveLength(5);
  await writeFile(
    join(temp.path, 'asked.html'),
    `${meta}<title>Asked</title><p id="p">Words</p>\n<script>p.hidden = matchMedia('(max-width: 640px)').matches</script>`,
  );
  const asked = await isoptic(['breakpoints', 'asked.html', '--json', '--out', 'run-asked'], {
    cwd: temp.path,
  });
  const found = JSON.parse(asked.stdout) as { pages: { queries: { kind: string; source: string }[] }[] };
  expect(found.pages[0]!.queries).toEqual([
    expect.objectContaining({ kind: 'script', text: '(max-width: 640px)', source: 'asked.html:2' }),
  ]);
  const args = ['breakpoints', 'edges.html', '--out', 'run-queries', '--replace', '--draw', 'ruler.svg'];
  const text = await isoptic(args, { cwd: temp.path });
  const drawn = await readFile(join(temp.path, 'ruler.svg'), 'utf8');
  expect(drawn).toContain('>(min-width: 901px)</text>');
  expect((await sharp(Buffer.from(drawn)).metadata()).width).toBe(1200);
  expect(text.stdout).toMatch(/^ {2}\(min-width: 901px\) {2}901 to 1920 px {2}edges\.css:7$/m);
  const again = '@media (max-width: 640px) { p { margin: 0 } }\n';
  await writeFile(
    join(temp.path, 'asked.html'),
    `${meta}<title>Asked</title>\n<style>${again.repeat(4)}</style>\n<p>Words</p>`,
  );
  const told = await isoptic(['breakpoints', 'asked.html', '--out', 'run-asked', '--replace'], {
    cwd: temp.path,
  });
  expect(told.stdout).toContain('asked.html:2, :3, :4 and 1 more');
});

test('a container query is told with the widths of the page at which it holds, container by container', async () => {
  await writeFile(
    join(temp.path, 'cards.html'),
    `${meta}<title>Cards</title><style>body{margin:0} .fares{container:fares / inline-size;width:50%} .side{container-type:inline-size;width:30%}
@container (min-width: 15em) { .card p { color: #063 } }
@container fares (min-width: 300px) { .card { display: grid; grid-template-columns: 1fr 1fr } }
@container (height > 3px) { .card { color: red } }</style>
<div class="fares"><div class="card"><p>One way</p><p>Return</p></div></div><div class="side"><div class="card"><p>Bicycle</p></div></div>`,
  );
  const outcome = await isoptic(['breakpoints', 'cards.html', '--json', '--out', 'run-cards'], {
    cwd: temp.path,
  });
  const { pages } = JSON.parse(outcome.stdout) as { pages: { queries: unknown[] }[] };
  expect(pages[0]!.queries).toEqual([
    expect.objectContaining({
      text: '(min-width: 15em)',
      spans: [[480, 1920]],
      containers: [
        { selector: 'div.fares', spans: [[480, 1920]] },
        { selector: 'div.side', spans: [[800, 1920]] },
      ],
    }),
    expect.objectContaining({
      text: 'fares (min-width: 300px)',
      spans: [[600, 1920]],
      changes: 'from 600: div.fares > div.card goes from 1 to 2 columns',
    }),
    expect.objectContaining({ text: '(height > 3px)', spans: null, problems: [] }),
  ]);
});

test('a check with a search tells spans beside profiles, and finds what no profile shows', async () => {
  const args = [
    'check',
    'edges.html',
    '--at',
    '700x800',
    '--sweep',
    '280..720',
    '--shots',
    'none',
    '--out',
    'run-both',
  ];
  const outcome = await isoptic(args, { cwd: temp.path });
  expect(outcome.status).toBe(1);
  const { findings, profiles } = await readManifest(join(temp.path, 'run-both'));
  expect(profiles.map(({ name }) => name)).toEqual(['700x800', '280x800', '500x800', '720x800']);
  expect(findings[0]).toMatchObject({
    selector: 'div.pass',
    spans: { edges: [[280, 499]] },
    seen: [{ profile: '280x800' }],
  });
  expect(outcome.stdout).toMatch(/on 1 of 4 profiles.*280x800/);
  expect(outcome.stdout).toMatch(/^ {4}at 280 to 499 px · below 700$/m);
});

test('the configuration says which widths there are, how ranges are called, and which must be right', async () => {
  await writeFile(
    join(temp.path, 'wide-only.yaml'),
    'sweep: { from: 300, to: 800, right: [[600, 800]] }\nranges: { narrow: [280, 699], wide: [700, 1920] }\n',
  );
  const args = [
    'sweep',
    'edges.html',
    '--config',
    'wide-only.yaml',
    '--shots',
    'none',
    '--out',
    'run-config',
  ];
  // What is found below 500 px fails nothing.
  expect((await isoptic(args, { cwd: temp.path })).status).toBe(0);
  const { sweep } = await readManifest(join(temp.path, 'run-config'));
  expect(sweep![0]).toMatchObject({
    from: 300,
    to: 800,
    ranges: [
      { label: 'narrow', span: [280, 699] },
      { label: 'wide', span: [700, 1920] },
    ],
  });
});

test('small pictures of the way are in the run, masked as the others are', async () => {
  await writeFile(join(temp.path, 'mask.yaml'), 'mask: [.pass]\n');
  const args = ['sweep', 'edges.html', '--to', '760', '--shots', 'fold', '--evidence', 'none'];
  const outcome = await isoptic([...args, '--config', 'mask.yaml', '--out', 'run-way'], { cwd: temp.path });
  expect(outcome.status).toBe(1);
  const { shots } = (await readManifest(join(temp.path, 'run-way'))).sweep![0]!;
  expect(shots!.map(({ width }) => width)).toEqual(expect.arrayContaining([280, 699, 700, 760]));
  const { file } = shots!.find(({ width }) => width === 700)!;
  const picture = sharp(join(temp.path, 'run-way', file));
  expect(await picture.metadata()).toMatchObject({ format: 'jpeg', width: 280, height: 320 });
  const { dominant } = await picture.extract({ left: 10, top: 75, width: 100, height: 4 }).stats();
  // No green of the page, but the grey of the mask.
  expect(
    Math.max(dominant.r, dominant.g, dominant.b) - Math.min(dominant.r, dominant.g, dominant.b),
  ).toBeLessThan(32);
});

test.each([
  [['sweep', 'edges.html', '--from', '900', '--to', '300'], '--from 900 --to 300: that is no range.'],
  [['sweep', 'edges.html', '--heights', '390'], '--heights 390: not a range of sizes.'],
  [['sweep', 'edges.html', '--on', 'ios-phone-390,android-phone-360'], 'A search over sizes has one device'],
  [['sweep'], 'sweep: nothing to search.'],
  [['check', 'edges.html', '--sweep', '5..9'], '--sweep 5: not a size.'],
  [['film', 'edges.html', '--out', 'film.mp4'], '--out film.mp4: a film is no .mp4 file.'],
  [['breakpoints'], 'breakpoints: no page was named.'],
])('%s is refused with what to do', async (args, message) => {
  const outcome = await isoptic(args, { cwd: temp.path });
  expect(outcome.status).toBe(2);
  expect(outcome.stderr).toContain(message);
});

test('a page that moves by itself is searched to its end, without what moves, and says so', async () => {
  const { sweep, findings } = await temp.swept('clock.html', '--from', '400', '--to', '900');
  expect(sweep![0]).toMatchObject({ whole: true, anew: false });
  expect(sweep![0]!.notes).toEqual([expect.stringMatching(/^it changes by itself while it is looked at/)]);
  expect(sweep![0]!.layouts).toBeLessThan(90);
  expect(findings.map(({ selector, spans }) => [selector, spans])).toEqual([
    ['div.wide', { clock: [[400, 559]] }],
  ]);
});

test('a page that shows something else on a second visit is confirmed by first ones', async () => {
  const { sweep, findings } = await temp.swept('visited.html', '--from', '400', '--to', '700');
  expect(sweep![0]).toMatchObject({ anew: false, whole: true, notes: [] });
  const ends = findings.flatMap(({ spans }) => spans!['visited']!.map(([, to]) => to));
  expect(ends).toEqual(expect.arrayContaining([460, 500, 540, 580, 620]));
});
