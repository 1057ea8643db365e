import { readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { isoptic, manifestOf, readManifest, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
const meta =
  '<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">';

beforeAll(async () => {
  temp = await temporaryFolder();
  await writeFile(
    join(temp.path, 'wide.html'),
    `${meta}<title>Wide &amp; <b>bold</b></title><style>body{margin:0}.promo{width:500px;height:60px;background:#0a0}</style>
     <div class="promo" onclick="">x</div><p style="height:1200px">text</p>`,
  );
  await writeFile(join(temp.path, 'clean.html'), `${meta}<title>Clean</title><p>Short.</p>`);
  await writeFile(join(temp.path, 'bare.html'), '<!doctype html><title>Bare</title><p>No viewport meta.</p>');
  await writeFile(
    join(temp.path, 'shadow.html'),
    `${meta}<title>Shadow</title><body style="margin:0"><fare-card></fare-card><script>
      const root = document.querySelector('fare-card').attachShadow({ mode: 'open' });
      root.innerHTML = '<style>.in{width:600px;height:20px}</style><div class="in">x</div>';
    </script>`,
  );
});
afterAll(() => temp.dispose());

test('the run folder holds what the design says, and the page text is never markup in it', async () => {
  const out = join(temp.path, 'run-wide');
  const args = ['check', 'wide.html', '--on', 'ios-phone-390', '--at', '1000x600', '--out', out];
  const outcome = await isoptic(args, { cwd: temp.path });
  expect(outcome.status).toBe(1);
  expect(outcome.stderr).toBe('');
  expect(outcome.stdout).toMatch(/error {2}page-overflow {2}div\.promo/);
  expect(outcome.stdout).toMatch(/Sticks out 110 px past the right edge of the 390 px wide page/);
  expect(outcome.stdout).toMatch(/^wide\.html +E +·$/m);

  const manifest = await readManifest(out);
  expect(manifest.renders.map((render) => [render.profile, render.status])).toEqual([
    ['ios-phone-390', 'ok'],
    ['1000x600', 'ok'],
  ]);
  const [finding] = manifest.findings;
  expect(finding).toMatchObject({
    selector: 'div.promo',
    seen: [{ rect: { x: 0, y: 0, width: 500, height: 60 }, by: { axis: 'x', px: 110 } }],
  });

  const size = async (path: string) => {
    const { width, height } = await sharp(join(out, path)).metadata();
    return [width, height];
  };
  expect(await size('shots/wide/ios-phone-390.fold.png')).toEqual([1170, 1992]);
  const full = manifest.renders[0]!.document!;
  // A phone shows such a page at a scale at which its width is a whole number of device pixels: 500 or 501 px.
  expect([500, 501]).toContain(full.width);
  expect(await size('shots/wide/ios-phone-390.full.png')).toEqual([full.width, full.height]);
  expect(await size(finding!.seen[0]!.evidence!)).toEqual([full.width, 150]);

  const report = await readFile(join(out, 'report.html'), 'utf8');
  expect(report).toContain('Wide & \\u003cb>bold\\u003c/b>');
  expect(report).not.toContain('<b>bold');
  expect(report).not.toMatch(/(src|href)="(https?:)?\/\//);
  expect((await readdir(out)).sort()).toEqual([
    'evidence',
    'layouts',
    'places',
    'report.html',
    'run.json',
    'shots',
  ]);
});

test('the full picture is the page at one pixel a CSS px, with the culprit where the manifest says', async () => {
  const { data, info } = await sharp(join(temp.path, 'run-wide/shots/wide/ios-phone-390.full.png'))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const pixel = (x: number, y: number) => [
    ...data.subarray((y * info.width + x) * 3, (y * info.width + x) * 3 + 3),
  ];
  expect(pixel(495, 30)).toEqual([0, 0xaa, 0]);
  expect(pixel(495, 70)).toEqual([255, 255, 255]);
});

test('--json prints the manifest and nothing else; --shots none takes no pictures', async () => {
  const out = join(temp.path, 'run-json');
  const outcome = await isoptic(
    ['check', 'clean.html', 'wide.html', '--on', 'ios-phone-390', '--json', '--shots', 'none', '--out', out],
    { cwd: temp.path },
  );
  expect(outcome.status).toBe(1);
  const manifest = manifestOf(outcome);
  expect(manifest).toEqual(await readManifest(out));
  expect(manifest.pages.map((page) => [page.id, page.title])).toEqual([
    ['clean', 'Clean'],
    ['wide', 'Wide & <b>bold</b>'],
  ]);
  expect((await readdir(out)).sort()).toEqual(['layouts', 'report.html', 'run.json']);
});

test('a page has the title that the first device shows, even when its pictures are written last', async () => {
  const file = join(temp.path, 'named-by-width.html');
  await writeFile(
    file,
    `<!doctype html><title>Pier</title><canvas></canvas><script>
  document.title += ' ' + innerWidth;
  const canvas = document.querySelector('canvas');
  canvas.width = 390;
  canvas.height = innerWidth < 500 ? 12000 : 10;
  const context = canvas.getContext('2d');
  const noise = context.createImageData(canvas.width, canvas.height);
  noise.data.forEach((_, i) => (noise.data[i] = (i * i * 2654435761) >>> 24));
  context.putImageData(noise, 0, 0);
</script>`,
  );
  const args = ['check', file, '--json', '--out', join(temp.path, 'named')];
  const outcome = await isoptic([...args, '--at', '400x600', '--at', '900x600'], { cwd: temp.path });
  expect(manifestOf(outcome).pages[0]!.title).toBe('Pier 400');
});

test('what a page says reaches the terminal as text, without escape sequences', async () => {
  const file = join(temp.path, 'escape.html');
  const words = 'a\u001b[31mred\u001b[0mword'.repeat(8);
  await writeFile(
    file,
    `<!doctype html><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Pier \u009b31mred\u009b0m</title><p style="width:200px;overflow:hidden;white-space:nowrap">${words}</p>`,
  );
  const outcome = await isoptic([
    'check',
    file,
    ...['--at', '400x600', '--shots', 'none', '--out', join(temp.path, 'escape')],
  ]);
  expect(outcome.stdout).toMatch(/^escape\.html {2}Pier red$/m);
  expect(outcome.stdout).toMatch(/The text “aredwordaredword/);
  expect(outcome.stdout.replaceAll('\n', '')).not.toMatch(/\p{Cc}/u);
});

test('--fail-on decides the status, --quiet prints nothing', async () => {
  const run = (name: string, ...more: string[]) =>
    isoptic(
      [
        'check',
        'wide.html',
        '--on',
        'ios-phone-390',
        '--shots',
        'none',
        '--out',
        join(temp.path, name),
        ...more,
      ],
      { cwd: temp.path },
    );
  expect(await run('quiet', '--quiet')).toEqual({ status: 1, stdout: '', stderr: '' });
  expect((await run('never', '--fail-on', 'never')).status).toBe(0);
  expect((await run('notice', '--fail-on', 'notice')).status).toBe(1);
});

test('a page without a viewport meta tag is laid out wide and shown shrunk on a phone, and only there', async () => {
  const outcome = await isoptic(
    [
      'check',
      'bare.html',
      '--on',
      'ios-phone-390',
      '--at',
      '390x664',
      '--json',
      '--shots',
      'none',
      '--out',
      join(temp.path, 'bare'),
    ],
    { cwd: temp.path },
  );
  const manifest = manifestOf(outcome);
  expect(manifest.findings).toHaveLength(1);
  expect(manifest.findings[0]).toMatchObject({
    selector: 'html',
    seen: [{ profile: 'ios-phone-390', by: { axis: 'x', px: 590 } }],
  });
  expect(manifest.findings[0]!.message).toContain('980 px wide');
  expect(manifest.findings[0]!.message).toContain('40 %');
});

test('selectors step into open shadow roots', async () => {
  const outcome = await isoptic(
    [
      'check',
      'shadow.html',
      '--on',
      'ios-phone-390',
      '--json',
      '--shots',
      'none',
      '--out',
      join(temp.path, 'shadow'),
    ],
    { cwd: temp.path },
  );
  expect(manifestOf(outcome).findings.map((finding) => finding.selector)).toEqual(['fare-card >>> div.in']);
});
