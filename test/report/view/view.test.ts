import { addressOf, FIRST_VIEW, viewOf } from '../../../src/report/view/address.js';
import { cropArea } from '../../../src/core/findings/crop-area.js';
import { otherSchemeOf, paneGroups, turnedOf, type ProfileRecord } from '../../../src/report/view/lineup.js';
import { chosen, listed, waiverFor, widthsText } from '../../../src/report/view/listing.js';
import { factorOf, mmPerPx } from '../../../src/report/view/scale.js';
import { findingOf, NAMES, PAGES, runOf } from '../../support/manifest.js';

const ROOM = { width: 1000, height: 500, ratio: 2 };
const phone = { width: 390, height: 664, dpr: 3, density: 460, mobile: true };
const desktop = { width: 1920, height: 945, dpr: 1, density: null, mobile: false };

test('the address says what differs from the first view, and nothing else', () => {
  expect(addressOf(FIRST_VIEW)).toBe('');
  const view = { ...FIRST_VIEW, page: 'a b&c', zoom: 0.5, without: ['error', 'notice'], drawer: false };
  expect(addressOf(view)).toBe('page=a+b%26c&zoom=0.5&drawer=false&without=error%2Cnotice');
  expect(viewOf(addressOf(view))).toEqual(view);
});

test('what an address says wrong is as if it were not said', () => {
  expect(viewOf('scale=huge&zoom=-3&zoom=x&drawer=maybe&unknown=1&sort=place&page=%')).toEqual({
    ...FIRST_VIEW,
    sort: 'place',
    page: '%',
  });
});

test('scales', () => {
  const all = [phone, desktop];
  expect(factorOf('fit', phone, all, ROOM)).toBeCloseTo(500 / 664);
  // Too wide to be as high as the room.
  expect(factorOf('fit', desktop, all, ROOM)).toBeCloseTo(1000 / 1920);
  expect(factorOf('css', phone, all, ROOM)).toBe(factorOf('css', desktop, all, ROOM));
  expect(factorOf('device', phone, all, ROOM)).toBe(1.5);
  expect(mmPerPx(phone) * 390).toBeCloseTo((390 * 3 * 25.4) / 460);
  expect(mmPerPx(desktop)).toBeCloseTo(25.4 / 96);
  // The highest of them fits, and the others are to it as in the hand.
  const ratio = factorOf('true', phone, all, ROOM) / factorOf('true', desktop, all, ROOM);
  expect(ratio).toBeCloseTo(mmPerPx(phone) / mmPerPx(desktop));
  expect(factorOf('true', desktop, all, ROOM) * 945).toBeLessThanOrEqual(500);
});

const error = findingOf(PAGES[0]!, 'error', [12, 30]);
const warning = findingOf(PAGES[1]!, 'warning', [4]);
const notice = {
  ...findingOf(PAGES[0]!, 'notice', [1, 1, 1]),
  rule: 'small-text',
  family: 'legibility' as const,
  seen: [{ page: PAGES[0]!, profile: NAMES[2]!, rect: { x: 0, y: -5, width: 1, height: 1 }, by: null }],
};
const waived = { ...error, id: 'w', waived: { reason: 'agreed', who: 'Ada', until: '2027-01-01' } };
const all = listed(runOf([waived, warning, notice, error]));
const ids = (entries: typeof all) => entries.map(({ finding, number }) => `${number} ${finding.severity}`);

test('numbers go page by page and stay whatever is left out; what is waived comes last', () => {
  expect(ids(all)).toEqual(['1 notice', '2 error', '3 warning', '4 error']);
  expect(ids(chosen(all, PAGES[0]!, FIRST_VIEW))).toEqual(['2 error', '1 notice']);
  expect(ids(chosen(all, PAGES[0]!, { ...FIRST_VIEW, sort: 'place' }))).toEqual(['1 notice', '2 error']);
  expect(ids(chosen(all, null, { ...FIRST_VIEW, waived: true, without: ['notice'] }))).toEqual([
    '2 error',
    '4 error',
    '3 warning',
  ]);
});

test('searched in everything that is said, all words of it', () => {
  const found = (search: string) => ids(chosen(all, null, { ...FIRST_VIEW, search }));
  expect(found('TIMETABLE')).toEqual(['3 warning']);
  expect(found('book 16')).toEqual(['2 error', '3 warning', '1 notice']);
  expect(found('book nowhere')).toEqual([]);
  expect(ids(chosen(all, null, { ...FIRST_VIEW, rules: ['small-text'] }))).toEqual(['1 notice']);
  expect(ids(chosen(all, null, { ...FIRST_VIEW, families: ['legibility'] }))).toEqual(['1 notice']);
  expect(ids(chosen(all, null, { ...FIRST_VIEW, profiles: [NAMES[2]!] }))).toEqual(['1 notice']);
});

test('against an earlier run: what is new, and what was known', () => {
  const known = new Set([error.id]);
  const found = (age: 'all' | 'new' | 'known') => ids(chosen(all, null, { ...FIRST_VIEW, age }, known));
  expect(found('known')).toEqual(['2 error']);
  expect(found('new')).toEqual(['3 warning', '1 notice']);
  expect(found('all')).toHaveLength(3);
});

test('widths that show a finding, as far as none between is without it', () => {
  const { profiles } = runOf([]);
  expect(widthsText(findingOf('p', 'error', [1, 1]), profiles)).toBe('360–390 px');
  expect(widthsText(findingOf('p', 'error', [1, 1, 1]), profiles)).toBe('360–390, 844 px');
});

test('a waiver as it stands in the file of waivers', () => {
  expect(waiverFor(error, '2027-02-01')).toBe(
    `- finding: ${error.id}\n  reason: \n  who: \n  until: 2027-02-01\n`,
  );
});

const pair = (
  name: string,
  orientation: 'portrait' | 'landscape',
  scheme: 'light' | 'dark',
): ProfileRecord => ({
  ...runOf([]).profiles[0]!,
  name,
  orientation,
  scheme,
});
const profiles = [
  pair('ios-phone-390', 'portrait', 'light'),
  pair('ios-phone-390+dark', 'portrait', 'dark'),
  pair('ios-phone-390:landscape', 'landscape', 'light'),
  pair('ios-phone-390:landscape+dark', 'landscape', 'dark'),
  pair('ios-phone-360', 'portrait', 'light'),
];

test('the same device held the other way, and in the other scheme', () => {
  expect(turnedOf(profiles[1]!, profiles)?.name).toBe('ios-phone-390:landscape+dark');
  expect(otherSchemeOf(profiles[2]!, profiles)?.name).toBe('ios-phone-390:landscape+dark');
  expect(turnedOf(profiles[4]!, profiles)).toBeUndefined();
});

test('what was rendered one way only is shown whichever way is asked for', () => {
  const names = (held: 'both' | 'landscape', scheme: 'both' | 'dark') =>
    paneGroups(profiles, { held, scheme }).flatMap((group) => group.profiles.map(({ name }) => name));
  expect(names('both', 'both')).toHaveLength(5);
  expect(names('landscape', 'dark')).toEqual(['ios-phone-390:landscape+dark', 'ios-phone-360']);
});

test('classes in the order in which the lineup comes to them', () => {
  expect(
    paneGroups(runOf([]).profiles, FIRST_VIEW).map(({ name, profiles: { length } }) => `${name} ${length}`),
  ).toEqual(['Phones 3', 'Tablets 1', 'Televisions 1']);
});

test('a crop shows what is lost with the element at fault, or where it is too large the end where it goes wrong', () => {
  const page = { width: 1000, height: 3000 };
  const lost = { x: 300, y: 500, width: 100, height: 20 };
  const small = cropArea(
    { rect: lost, by: null, lost: [lost], fault: { x: 280, y: 480, width: 200, height: 90 } },
    page,
  );
  expect(small).toEqual({ x: 240, y: 440, width: 280, height: 170 });
  const wide = cropArea({ rect: { x: 0, y: 500, width: 990, height: 20 }, by: { axis: 'x', px: 100 } }, page);
  expect([wide.x + wide.width, wide.width]).toEqual([1000, 520]);
  const fromTheRight = { left: -600, width: 1000, height: 3000 };
  const past = cropArea(
    { rect: { x: -590, y: 500, width: 980, height: 20 }, by: { axis: 'x', px: 590 } },
    fromTheRight,
  );
  expect([past.x, past.width]).toEqual([-600, 520]);
  const within = cropArea({ rect: { x: -10, y: 500, width: 20, height: 20 }, by: null }, fromTheRight);
  expect([within.x, within.width]).toEqual([-130, 260]);
  const corner = cropArea({ rect: { x: 0, y: 0, width: 10, height: 10 }, by: null }, page);
  expect([corner.x, corner.y]).toEqual([0, 0]);
  const tiny = cropArea(
    { rect: { x: 0, y: 0, width: 10, height: 10 }, by: null },
    { width: 100, height: 80 },
  );
  expect(tiny).toEqual({ x: 0, y: 0, width: 100, height: 80 });
});
