import fc from 'fast-check';
import { coveringLineup, type Visit } from '../../../src/core/profile/cover.js';
import { mediaQueryOf } from '../../../src/core/profile/media-query.js';
import { pickDevices } from '../../../src/core/profile/pick.js';
import { searchProfiles } from '../../../src/core/profile/search.js';
import { loadCatalogue } from '../../../src/run/catalogue.js';

const catalogue = await loadCatalogue();
const { profiles } = catalogue;
const names = (...words: string[]) => searchProfiles(profiles, words).map((profile) => profile.name);

test('the catalogue covers what the design asks for, without two of one name', () => {
  expect(new Set(profiles.map((profile) => profile.name)).size).toBe(profiles.length);
  expect(profiles.length).toBeGreaterThanOrEqual(40);
  for (const kind of ['phone', 'foldable', 'tablet', 'split', 'laptop', 'desktop', 'tv'])
    expect(names(kind).length).toBeGreaterThanOrEqual(3);
  const widths = searchProfiles(profiles, ['phone']).map((profile) => profile.viewport.portrait?.width ?? 0);
  expect([Math.min(...widths.filter((width) => width > 0)), Math.max(...widths)]).toEqual([320, 440]);
  expect(names('width 2560').length).toBeGreaterThanOrEqual(1);
  for (const profile of profiles) {
    expect(profile.density).toBeGreaterThan(0);
    expect(profile.name).toContain(
      String((profile.viewport[profile.orientation] ?? profile.viewport.landscape)!.width),
    );
    if (profile.fold)
      expect(profile.fold.at).toBeLessThan(
        profile.fold.axis === 'vertical' ? profile.screen.width : profile.screen.height,
      );
  }
});

test('words narrow by name, class, platform, number and span', () => {
  expect(names('phone', 'ios', 'width 390')).toEqual(['ios-phone-390']);
  expect(names('phone', 'width', '428..')).toEqual([
    'ios-phone-428',
    'ios-phone-430',
    'ios-phone-440',
    'android-phone-428',
  ]);
  expect(searchProfiles(profiles, ['dpr', '3']).every((profile) => profile.dpr === 3)).toBe(true);
  expect(names('laptop', 'portrait')).toEqual([]);
  expect(() => names('width', 'wide')).toThrow(/"width" wants a number or a span/);
  expect(() => names('dpr')).toThrow(/"dpr" wants a number or a span after it\./);
});

test('turning adds the other orientation of what can be turned, right after it', () => {
  const picked = pickDevices([{ on: 'ios-phone-390' }, { on: 'windows-laptop-1366' }], catalogue, {
    turn: true,
  });
  expect(picked.map((device) => device.name)).toEqual([
    'ios-phone-390',
    'ios-phone-390:landscape',
    'windows-laptop-1366',
  ]);
});

test('the media query tells size, ratio, orientation and how its user points', () => {
  const [device] = pickDevices([{ on: 'ios-phone-390:landscape' }], catalogue);
  expect(mediaQueryOf(device!)).toBe(
    'screen and (width: 844px) and (height: 340px) and (resolution: 3dppx) and (orientation: landscape) and (hover: none) and (pointer: coarse)',
  );
});

test('the proposed lineup covers the share, and without its last entry it would not', () => {
  const visit = fc.record({
    width: fc.integer({ min: 300, max: 2600 }),
    height: fc.constant(null),
    dpr: fc.constant(null),
    visits: fc.integer({ min: 1, max: 1000 }),
  });
  fc.assert(
    fc.property(
      fc.array(visit, { minLength: 1, maxLength: 30 }),
      fc.double({ min: 0.1, max: 1, noNaN: true }),
      (visits: Visit[], cover) => {
        const { lineup, covered, total } = coveringLineup(visits, profiles, cover);
        expect(total).toBe(visits.reduce((sum, each) => sum + each.visits, 0));
        expect(covered).toBeGreaterThanOrEqual(cover - 1e-9);
        expect(covered - lineup.at(-1)!.share).toBeLessThan(cover);
      },
    ),
    { numRuns: 40 },
  );
});

test('a visit counts for the profile nearest by width, height and ratio, or for a size of its own', () => {
  const share = (width: number, height: number, dpr: number) =>
    coveringLineup([{ width, height, dpr, visits: 1 }], profiles, 1).lineup[0]!.name;
  expect(share(390, 844, 3)).toBe('ios-phone-390');
  expect(share(360, 780, 3)).toBe('android-phone-360');
  expect(share(844, 390, 3)).toBe('ios-phone-390:landscape');
  expect(share(3000, 1200, 1)).toBe('3000x1200');
});
