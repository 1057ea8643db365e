import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { canTurn } from '../../src/core/profile/hold.js';
import { pickDevices } from '../../src/core/profile/pick.js';
import type { Device } from '../../src/core/profile/profile.js';
import { loadCatalogue } from '../../src/run/catalogue.js';
import { mirrorServer, type Observed, type Visit } from '../support/mirror.js';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';
import { isSampled } from '../support/sampled.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
const catalogue = await loadCatalogue();

beforeAll(async () => {
  temp = await temporaryFolder();
});
afterAll(() => temp.dispose());

/** Renders the mirror page and returns what it saw. */
async function look(name: string, ...args: string[]): Promise<Visit[]> {
  const server = await mirrorServer();
  try {
    const outcome = await isoptic([
      'check',
      `${server.origin}/`,
      '--json',
      '--shots',
      'none',
      '--out',
      join(temp.path, name),
      ...args,
    ]);
    expect(manifestOf(outcome).summary).toMatchObject({ failed: 0, errors: 0 });
    return server.visits;
  } finally {
    await server.close();
  }
}

function expected(device: Device): Observed {
  const { top, right, bottom, left } = device.insets;
  const edges = [top, right, bottom, left].map((inset) => `${inset}px`);
  const short =
    edges[1] !== edges[3]
      ? edges
      : edges[0] !== edges[2]
        ? edges.slice(0, 3)
        : edges[0] !== edges[1]
          ? edges.slice(0, 2)
          : edges.slice(0, 1);
  const { hints } = device.agent;
  const touch = device.touchPoints > 0;
  return {
    inner: [device.width, device.height],
    screen: [device.screen.width, device.screen.height],
    ratio: device.dpr,
    orientation: [device.orientationType, device.angle],
    userAgent: device.agent.userAgent,
    platform: device.agent.navigatorPlatform,
    vendor: device.agent.vendor,
    touchPoints: device.touchPoints,
    touchEvents: touch,
    noHover: touch,
    coarse: touch,
    hints: hints && {
      mobile: hints.mobile,
      platform: hints.platform,
      brands: hints.brands.map(({ brand, version }) => `${brand} ${version}`),
      model: hints.model,
      version: hints.platformVersion,
    },
    insets: short.join(' '),
    scrollBar: device.scrollBars === 'classic' ? 15 : 0,
    dark: false,
    language: 'en-GB',
  };
}

test('for every profile of a sample, both ways, the page and the server see what the profile states', async () => {
  expect(catalogue.profiles.length).toBeGreaterThanOrEqual(40);
  const profiles = catalogue.profiles.filter(({ name }) => isSampled(name, 4));
  expect(profiles.length).toBeGreaterThanOrEqual(10);
  const names = profiles.map(({ name }) => name);
  const devices = pickDevices(
    names.map((on) => ({ on })),
    catalogue,
    { turn: true },
  );
  expect(devices.length).toBe(names.length + profiles.filter(canTurn).length);
  const visits = await look('all', '--on', names.join(','), '--turn');

  const place = ({ inner, screen, ratio, orientation, userAgent }: Observed) =>
    JSON.stringify([inner, screen, ratio, orientation, userAgent]);
  const inOrder = (list: Observed[]) => [...list].sort((a, b) => place(a).localeCompare(place(b)));
  expect(inOrder(visits.map((visit) => visit.observed))).toEqual(inOrder(devices.map(expected)));

  for (const { headers, first, observed } of visits) {
    // The very first script saw the same as the whole page.
    expect(observed).toMatchObject(first);
    // The very first request said the same as the page's own objects.
    expect(headers['user-agent']).toBe(observed.userAgent);
    expect(headers['accept-language']).toMatch(/^en-GB\b/);
    expect(headers['sec-ch-ua-mobile']).toBe(
      observed.hints ? (observed.hints.mobile ? '?1' : '?0') : undefined,
    );
    expect(headers['sec-ch-ua-platform']).toBe(observed.hints ? `"${observed.hints.platform}"` : undefined);
    if (observed.hints)
      for (const brand of observed.hints.brands)
        expect(headers['sec-ch-ua']).toContain(`"${brand.replace(/ (\S+)$/, '";v="$1')}"`);
    else expect(headers['sec-ch-ua']).toBeUndefined();
  }
}, 300_000);

test('upside down, the angle, the type and the insets turn with the device', async () => {
  const [visit] = await look('flipped', '--on', 'ios-phone-390:landscape-flipped');
  expect(visit!.observed).toMatchObject({
    inner: [844, 340],
    orientation: ['landscape-secondary', 270],
    insets: '0px 47px 21px',
  });
});

test('conditions are in force at the first request and the first script', async () => {
  const [light, dark] = await look(
    'conditions',
    '--on',
    'windows-laptop-1366',
    '--scheme',
    'both',
    '--locale',
    'de-CH',
  );
  expect([light, dark].map((visit) => visit!.first.dark).sort()).toEqual([false, true]);
  expect(light!.first.language).toBe('de-CH');
  expect(light!.headers['accept-language']).toMatch(/^de-CH,de\b/);
});

test('page zoom leaves fewer CSS px of the same window', async () => {
  const [visit] = await look('zoom', '--on', 'windows-laptop-1366', '--zoom', '2');
  expect(visit!.first).toMatchObject({ inner: [683, 316], ratio: 2, screen: [1366, 768] });
});

test('type is enlarged as a user has it: all of it on a phone, what pages start from on a desktop', async () => {
  const page = join(temp.path, 'type.html');
  const line = (size: string) =>
    `<p style="font: ${size} Arial; white-space: nowrap"><span>Lantern Isles Ferries</span></p>`;
  const seen = async (size: string, scale: string) => {
    await writeFile(
      page,
      `<!doctype html><meta name="viewport" content="width=device-width"><style>body{margin:0}</style>${line(size)}`,
    );
    const out = join(temp.path, `type-${size}-${scale}`);
    await isoptic([
      'check',
      page,
      '--on',
      'android-phone-360,windows-laptop-1366',
      '--text-scale',
      scale,
      '--quiet',
      '--shots',
      'full',
      '--out',
      out,
    ]);
    return Promise.all(
      ['android-phone-360', 'windows-laptop-1366'].map(async (name) => {
        // What is left when the white round the text is cut off.
        const picture = sharp(join(out, 'shots', 'type', `${name}.full.png`));
        return (await picture.trim().toBuffer({ resolveWithObject: true })).info.width;
      }),
    );
  };
  const [phone, desktop] = await seen('1rem', '1');
  const [phoneLarge, desktopLarge] = await seen('1rem', '1.3');
  expect(phoneLarge! / phone!).toBeGreaterThan(1.2);
  expect(desktopLarge! / desktop!).toBeGreaterThan(1.2);
  const [phoneFixed, desktopFixed] = await seen('16px', '1.3');
  expect(phoneFixed! / phone!).toBeGreaterThan(1.2);
  expect(desktopFixed! / desktop!).toBeCloseTo(1, 1);
});

describe('user agents', () => {
  const agents = pickDevices(
    catalogue.profiles.map(({ name }) => ({ on: name })),
    catalogue,
  );

  test('a phone says that it is one, as its platform does, and has its version numbers filled in', () => {
    for (const { platform, class: kind, agent } of agents) {
      expect(agent.userAgent).not.toMatch(/[{}]/);
      if (kind !== 'phone') continue;
      if (platform === 'ios')
        expect(agent.userAgent).toMatch(
          /\(iPhone; CPU iPhone OS \d+_\d+ like Mac OS X\) .* Version\/\d+\.\d+ Mobile\/\w+ Safari\//,
        );
      else
        expect(agent.userAgent).toMatch(/\(Linux; Android 10; K\) .* Chrome\/\d+\.0\.0\.0 Mobile Safari\//);
    }
  });

  test('client hints agree with the user agent, and only Chromium has them', () => {
    for (const { platform, agent } of agents) {
      expect(agent.hints === null).toBe(platform === 'ios');
      if (!agent.hints) continue;
      expect(agent.hints.mobile).toBe(agent.userAgent.includes(' Mobile '));
      const version = /Chrome\/(\d+)/.exec(agent.userAgent)![1];
      expect(agent.hints.brands.find(({ brand }) => brand === 'Chromium')!.version).toBe(version);
    }
  });
});
