import { stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { layoutPath, readLayout } from '../../src/run/layout-file.js';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
beforeAll(async () => {
  temp = await temporaryFolder();
  await writeFile(join(temp.path, 'booking.html'), BOOKING);
});
afterAll(() => temp.dispose());

const BOOKING = `<!doctype html><meta name="viewport" content="width=device-width"><title>Booking</title>
<style>
  body { margin: 0; } nav { display: none; width: 620px; } nav.open { display: block; }
  #bar { position: fixed; inset: auto 0 0; } #card { width: 100px; height: 40px; background: #f00; }
  .ad { height: 50px; background: #00f; } .promo { height: 300px; }
  #tip { display: none; width: 700px; } #berth:hover + #tip { display: block; }
</style>
<div id=card></div><div class=ad></div><div class=promo>Promotion</div>
<button id=menu>Menu</button><nav>All our islands and piers</nav>
<form><input name=who><select name=deck><option value=u>Upper</option><option value=l>Lower</option></select>
<input type=date name=day><button>Book</button><p id=says></p></form>
<span id=berth>Berth</span><div id=tip>Four bunks</div>
<div id=bar><button id=agree>Agree</button></div>
<script>
  const log = [];
  for (const type of ['touchstart', 'touchend', 'mousemove', 'click']) menu.addEventListener(type, () => log.push(type));
  menu.onclick = () => document.querySelector('nav').classList.toggle('open');
  agree.onclick = () => bar.remove();
  addEventListener('keydown', (event) => { if (event.key === 'Escape') document.querySelector('nav').classList.remove('open'); });
  document.querySelector('form').onsubmit = (event) => {
    event.preventDefault();
    const form = event.target;
    setTimeout(() => { says.textContent = [form.who.value, form.deck.value, form.day.value, log.join('+'), innerWidth].join(' '); }, 200);
  };
</script>`;

let runs = 0;
async function check(config: string, ...args: string[]) {
  const n = ++runs;
  const file = join(temp.path, `isoptic-${n}.yaml`);
  await writeFile(file, config);
  const out = join(temp.path, `run-${n}`);
  const outcome = await isoptic(
    ['check', join(temp.path, 'booking.html'), '--config', file, '--json', '--out', out, ...args],
    { cwd: temp.path },
  );
  return { outcome, out };
}

const PHONE_AND_DESKTOP = ['--on', 'ios-phone-390', '--at', '600x400'];

test('marked states are pages of their own, on every profile, with what is wrong in them', async () => {
  const { outcome, out } = await check(
    `preparations:
  - name: agree first
    steps:
      - click: "#agree"
      - wait: { gone: "#bar" }
  - name: menu and form
    pages: ["book*"]
    steps:
      - click: "#menu"
      - wait: { selector: nav.open }
      - mark: menu open
      - press: Escape
      - wait: { gone: nav }
      - fill: { in: "[name=who]", with: Marit }
      - choose: { in: select, option: Lower }
      - fill: { in: "[name=day]", with: "2026-12-24" }
      - press: { key: Enter, in: "[name=who]" }
      - wait: { text: Marit }
      - run: document.title = document.querySelector('#says').textContent
      - scrollTo: bottom
      - wait: { network: quiet }
      - wait: { ms: 10 }
      - mark: form sent
`,
    ...PHONE_AND_DESKTOP,
  );
  const manifest = manifestOf(outcome);
  expect(manifest.renders.map(({ page, profile, status }) => `${page} ${profile} ${status}`)).toEqual([
    'booking ios-phone-390 ok',
    'booking 600x400 ok',
    'booking--menu-open ios-phone-390 ok',
    'booking--menu-open 600x400 ok',
    'booking--form-sent ios-phone-390 ok',
    'booking--form-sent 600x400 ok',
  ]);
  expect(manifest.pages.map(({ state, of }) => [state, of])).toEqual([
    [undefined, undefined],
    ['menu open', 'booking'],
    ['form sent', 'booking'],
  ]);
  const overflow = manifest.findings.filter(({ rule }) => rule === 'page-overflow');
  expect(overflow).toHaveLength(1);
  expect(overflow[0]).toMatchObject({ selector: 'nav', page: 'booking--menu-open' });
  expect(overflow[0]!.seen.map(({ profile }) => profile)).toEqual(['ios-phone-390', '600x400']);
  // A finger on the phone: touch events in order, then the click that follows from them.
  expect(manifest.pages[2]!.title).toBe('Marit l 2026-12-24 touchstart+touchend+mousemove+click 390');
  await stat(join(out, 'shots/booking--form-sent/600x400.full.png'));
});

test('a step that fails names itself, its line and its profile, and leaves a picture; the rest is done', async () => {
  const { outcome, out } = await check(
    `preparations:
  - name: tip
    steps:
      - hover: "#berth"
      - mark: tip shown
      - click: "#menu"
      - click: "#lifeboat"
      - mark: lifeboat
`,
    '--on',
    'ios-phone-390',
    '--at',
    '600x700',
  );
  expect(outcome.status).toBe(3);
  const manifest = manifestOf(outcome);
  const lost = manifest.renders.filter(({ status }) => status === 'failed');
  expect(lost.map(({ page, profile }) => `${page} ${profile}`)).toEqual([
    'booking--lifeboat ios-phone-390',
    'booking--lifeboat 600x700',
  ]);
  expect(lost[0]!.error).toEqual({
    code: 'step-failed',
    message: `isoptic-${runs}.yaml:7: step 4 of "tip" (click #lifeboat): nothing on the page matches it.`,
  });
  const { height } = await sharp(join(out, lost[1]!.shots.failed!)).metadata();
  expect(height).toBe(700);
  // Only a mouse hovers, so only there the wide tip is shown.
  const shown = manifest.findings.filter(({ page }) => page === 'booking--tip-shown');
  const told = shown.map(({ rule, selector, seen, message }) => ({
    rule,
    selector,
    on: seen.map(({ profile }) => profile),
    message,
  }));
  expect(told).toEqual([
    { rule: 'page-overflow', selector: '#tip', on: ['600x700'], message: expect.any(String) as string },
  ]);
});

test('what is hidden, masked or removed is not in the pictures', async () => {
  const { outcome, out } = await check('hide: [.ad]\nmask: ["#card"]\nremove: [.promo]\n', '--at', '600x400');
  const [render] = manifestOf(outcome).renders;
  const colourAt = async (shot: string, left: number, top: number) => {
    const pixel = await sharp(join(out, shot))
      .extract({ left, top, width: 1, height: 1 })
      .removeAlpha()
      .raw()
      .toBuffer();
    return [...pixel];
  };
  for (const shot of [render!.shots.fold!, render!.shots.full!]) {
    const card = await colourAt(shot, 50, 20);
    expect(Math.max(...card) - Math.min(...card)).toBeLessThan(30);
    expect(await colourAt(shot, 50, 65)).toEqual([255, 255, 255]);
  }
  expect(render!.document!.height).toBeLessThan(420);
});

test('essentials have to be in the first screen', async () => {
  const { outcome } = await check(
    'essentials: ["#card", form button, .lifejacket]',
    '--at',
    '600x400',
    '--at',
    '600x900',
    '--shots',
    'none',
  );
  const findings = manifestOf(outcome).findings.filter(({ rule }) => rule === 'essential-out-of-sight');
  expect(
    findings.map(({ message, seen }) => [
      message.split(' ').slice(0, 5).join(' '),
      seen.map(({ profile }) => profile),
    ]),
  ).toEqual([
    ['The essential .lifejacket is not', ['600x400', '600x900']],
    ['The essential form button ends', ['600x400']],
  ]);
});

test('steps that are none are told by line, with what is allowed', async () => {
  const { outcome } = await check(
    `preparations:
  - name: a
    steps:
      - clik: "#menu"
      - wait: { selector: "#x", ms: 5 }
      - press: Hyper+Q
      - click: "[unclosed"
`,
    '--at',
    '600x400',
  );
  expect(outcome.status).toBe(2);
  const lines = outcome.stderr.split('\n');
  expect(lines[0]).toMatch(
    /:4: there is no key "preparations\.0\.steps\.0\.clik"; the nearest known one is "click"/,
  );
  expect(outcome.stderr).toMatch(/:5: .*exactly one of selector, gone, text, network, ms/);
  expect(outcome.stderr).toMatch(/:6: .*must be a key such as/);
  expect(outcome.stderr).toMatch(/:7: .*not a valid CSS selector/);
});

test('what a page says of itself is its own words, not a lost page', async () => {
  const said = 'Execution context was destroyed, most likely because of a navigation.';
  const { outcome } = await check(
    `preparations:\n  - name: p\n    steps:\n      - run: throw new Error(${JSON.stringify(said)})\n`,
    '--at',
    '600x400',
  );
  const [render] = manifestOf(outcome).renders;
  expect(render!.error!.message).toContain(`the script failed: Error: ${said}`);
  expect(render!.error!.message).not.toContain('keeps going to another page');
});

test('a page that is scrolled at the end of its steps is captured where it was scrolled to', async () => {
  const steps = 'preparations:\n  - name: down\n    steps:\n      - scrollTo: bottom\n';
  const { outcome, out } = await check(steps, '--at', '600x200', '--shots', 'none');
  const [page] = manifestOf(outcome).pages;
  const { view } = await readLayout(join(out, layoutPath(page!.id, '600x200')));
  const { document, scroll, viewport } = view.snapshot;
  expect(document.height).toBeGreaterThan(viewport.height);
  expect(scroll.y).toBeCloseTo(document.height - viewport.height, 0);
});

test.each(['windows-laptop-1366', 'ios-phone-390', '700x500'])(
  '%s has a window round its page',
  async (name) => {
    const page = join(temp.path, `window-${name}.html`);
    await writeFile(
      page,
      `<!doctype html><meta name="viewport" content="width=device-width"><title></title>
<script>document.title = [outerWidth, outerHeight, innerWidth, innerHeight, screen.width, screen.height]</script>`,
    );
    const pick = /^\d/.test(name) ? '--at' : '--on';
    const out = join(temp.path, `window-${name}`);
    const outcome = await isoptic(['check', page, pick, name, '--shots', 'none', '--json', '--out', out]);
    const manifest = manifestOf(outcome);
    const numbers = manifest.pages[0]!.title.split(',').map(Number);
    const [width, height, innerWidth, innerHeight, screenWidth, screenHeight] = numbers as [
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    expect([width, height]).toEqual([screenWidth, screenHeight]);
    expect(width).toBeGreaterThanOrEqual(innerWidth);
    expect(height).toBeGreaterThanOrEqual(innerHeight);
  },
);
