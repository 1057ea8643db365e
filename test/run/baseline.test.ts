import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { branchOf } from '../../src/run/baseline/branch.js';
import { Objects } from '../../src/run/baseline/objects.js';
import { findingsTaken, isChosen, joined } from '../../src/run/baseline/taken.js';
import { pairsOf } from '../../src/run/compare/pairs.js';
import { settingsFor } from '../../src/run/compare/settings.js';
import { findingOf, NAMES, PAGES, runOf } from '../support/manifest.js';
import { temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
beforeAll(async () => {
  temp = await temporaryFolder();
});
afterAll(() => temp.dispose());

const NONE = { pages: [], profiles: [], renders: [] };

test('all renders are taken unless some are named: by page and profile together, or one by one', () => {
  expect(isChosen(NONE, 'home', 'tv-1920')).toBe(true);
  const ofPage = { ...NONE, pages: ['home'] };
  expect([isChosen(ofPage, 'home', 'tv-1920'), isChosen(ofPage, 'fares', 'tv-1920')]).toEqual([true, false]);
  const both = { ...ofPage, profiles: ['ios-phone-390'] };
  expect([isChosen(both, 'home', 'ios-phone-390'), isChosen(both, 'home', 'tv-1920')]).toEqual([true, false]);
  const listed = { ...NONE, renders: [{ page: 'fares', profile: 'tv-1920' }] };
  expect([isChosen(listed, 'fares', 'tv-1920'), isChosen(listed, 'home', 'tv-1920')]).toEqual([true, false]);
});

test('of what is taken the newer findings stay, of the rest the older ones', () => {
  const before = findingOf(PAGES[0]!, 'error', [5, 6, 7]);
  const after = findingOf(PAGES[0]!, 'error', [1]);
  const isPhone = (_: string, profile: string) => profile === NAMES[0] || profile === NAMES[1];
  const [finding, ...others] = findingsTaken([before], [after], isPhone);
  expect(others).toEqual([]);
  // The first phone as it is now, the second one mended, the third profile as it was.
  expect(finding!.seen.map(({ profile, by }) => [profile, by!.px])).toEqual([
    [NAMES[2], 7],
    [NAMES[0], 1],
  ]);
  expect(findingsTaken([findingOf(PAGES[0]!, 'error', [5])], [], isPhone)).toEqual([]);
});

test('lists are joined in the order of the older one, by the newer one’s entries', () => {
  const key = ({ id }: { id: string }) => id;
  expect(
    joined(
      [
        { id: 'a', at: 1 },
        { id: 'b', at: 1 },
      ],
      [
        { id: 'c', at: 2 },
        { id: 'a', at: 2 },
      ],
      key,
    ),
  ).toEqual([
    { id: 'a', at: 2 },
    { id: 'b', at: 1 },
    { id: 'c', at: 2 },
  ]);
});

test('equal content is kept once, and what nothing names goes', async () => {
  const objects = new Objects(join(temp.path, 'kept'));
  const [one, again, other] = [
    await objects.add(Buffer.from('quay'), 'txt'),
    await objects.add(Buffer.from('quay'), 'txt'),
    await objects.add(Buffer.from('isle'), 'txt'),
  ];
  expect(again).toBe(one);
  expect(other).not.toBe(one);
  expect(await readFile(objects.path(one), 'utf8')).toBe('quay');
  expect(await objects.keepOnly(new Set([one]))).toBe(1);
  const left = await readdir(join(temp.path, 'kept'), { recursive: true, withFileTypes: true });
  expect(left.filter((entry) => entry.isFile()).map(({ name }) => name)).toEqual([one]);
});

test('the branch is read from the repository around, also in a worktree; none without one', async () => {
  const folder = join(temp.path, 'repository/site/pages');
  await mkdir(folder, { recursive: true });
  await mkdir(join(temp.path, 'repository/.git'));
  await writeFile(join(temp.path, 'repository/.git/HEAD'), 'ref: refs/heads/feature/quay\n');
  expect(await branchOf(folder)).toBe('feature/quay');
  await writeFile(join(temp.path, 'repository/.git/HEAD'), '0123456789abcdef0123456789abcdef01234567\n');
  expect(await branchOf(folder)).toBeNull();
  await mkdir(join(temp.path, 'tree'));
  await mkdir(join(temp.path, 'own'));
  await writeFile(join(temp.path, 'own/HEAD'), 'ref: refs/heads/winter\n');
  await writeFile(join(temp.path, 'tree/.git'), 'gitdir: ../own\n');
  expect(await branchOf(join(temp.path, 'tree'))).toBe('winter');
});

test('what holds for all pages and for one holds together; of numbers the last that is said', () => {
  const scopes = [
    { pages: null, leaveOut: ['.clock'], px: 1, kinds: ['wrapped' as const] },
    { pages: ['fares*'], leaveOut: ['.price'], px: 4 },
  ];
  const [home, fares] = [settingsFor('home', scopes), settingsFor('fares-winter', scopes)];
  expect([home.leaveOut, home.tolerance]).toEqual([['.clock'], { moved: 1, resized: 1 }]);
  expect([fares.leaveOut, fares.tolerance]).toEqual([['.clock', '.price'], { moved: 4, resized: 4 }]);
  expect([fares.kinds.has('wrapped'), fares.kinds.has('text')]).toEqual([false, true]);
});

test('what holds within some elements holds there alone, on top of what the page has', () => {
  const { tolerance, kinds, parts } = settingsFor('home', [
    { pages: null, px: { moved: 3 }, kinds: ['first-screen'] },
    { pages: null, within: ['.map'], px: { resized: 9 }, kinds: ['restyled'] },
    { pages: ['fares'], within: ['.price'], px: 4 },
  ]);
  expect(tolerance).toEqual({ moved: 3, resized: 1 });
  expect(kinds.has('restyled')).toBe(true);
  expect(parts.map(({ within, tolerance: own }) => [within, own])).toEqual([
    [['.map'], { moved: 3, resized: 9 }],
  ]);
  const told = (['restyled', 'first-screen', 'text'] as const).map((kind) => parts[0]!.kinds.has(kind));
  expect(told).toEqual([false, false, true]);
});

test('renders go together by page and profile; what has no counterpart, or failed, is told', () => {
  const whole = runOf([]);
  const { pairs, notes } = pairsOf(whole, whole, null);
  expect([pairs.length, notes]).toEqual([PAGES.length * NAMES.length, []]);
  const fewer = { ...whole, profiles: whole.profiles.slice(1) };
  expect(pairsOf(whole, fewer, null).notes).toEqual([`profile only in the first: ${NAMES[0]!}`]);
  const failed = runOf([], [NAMES[2]!]);
  expect(pairsOf(whole, failed, null).notes[0]).toMatch(/not rendered in the second$/);
  const two = pairsOf(whole, whole, { a: NAMES[0]!, b: NAMES[3]! });
  expect(two.pairs.map(({ a, b }) => [a.profile, b.profile])).toEqual(PAGES.map(() => [NAMES[0], NAMES[3]]));
});
