import { IsopticError } from '../../../src/core/errors.js';
import { adHocProfile } from '../../../src/core/profile/ad-hoc.js';
import { nearestNames, pickDevices } from '../../../src/core/profile/pick.js';
import { loadCatalogue } from '../../../src/run/catalogue.js';

const catalogue = await loadCatalogue();

const codeOf = (action: () => unknown): string => {
  try {
    action();
  } catch (error) {
    if (error instanceof IsopticError) return error.code;
    throw error;
  }
  return 'none';
};

test('picks keep their order, and each device comes once', () => {
  const names = pickDevices(
    [{ on: 'mac-desktop-1728' }, { at: '500x600' }, { on: 'ios-phone-390' }, { on: 'mac-desktop-1728' }],
    catalogue,
  ).map((device) => device.name);
  expect(names).toEqual(['mac-desktop-1728', '500x600', 'ios-phone-390']);
});

test('a turned phone has its viewport, screen, insets and angle turned', () => {
  const [upright, turned] = pickDevices(
    [{ on: 'ios-phone-390' }, { on: 'ios-phone-390:landscape' }],
    catalogue,
  );
  expect(upright).toMatchObject({
    width: 390,
    height: 664,
    screen: { width: 390, height: 844 },
    orientation: 'portrait',
    angle: 0,
  });
  expect(turned).toMatchObject({
    name: 'ios-phone-390:landscape',
    width: 844,
    height: 340,
    screen: { width: 844, height: 390 },
    orientation: 'landscape',
    angle: 90,
    insets: { top: 0, left: 47, right: 47, bottom: 21 },
  });
});

test('an ad-hoc size is a window without touch unless +mobile follows', () => {
  expect(adHocProfile('390x844')).toMatchObject({
    name: '390x844',
    dpr: 1,
    mobile: false,
    touchPoints: 0,
    orientation: 'portrait',
  });
  expect(adHocProfile('844x390@2.5+mobile')).toMatchObject({
    dpr: 2.5,
    mobile: true,
    touchPoints: 5,
    orientation: 'landscape',
  });
});

test.each([
  '390',
  '0x10',
  '390x',
  'x',
  '99999x99999@9',
  '390x844@9',
  '390x844@0',
  '16000x16000@2',
  '390x844+tablet',
  '',
])('the size %p is refused with what would be right', (text) => {
  expect(codeOf(() => adHocProfile(text))).toBe('bad-size');
});

test('an unknown profile or orientation is refused with the nearest names', () => {
  expect(codeOf(() => pickDevices([{ on: 'ios-phone-39' }], catalogue))).toBe('unknown-profile');
  expect(codeOf(() => pickDevices([{ on: 'ios-phone-390:sideways' }], catalogue))).toBe(
    'unknown-orientation',
  );
  expect(codeOf(() => pickDevices([{ on: 'windows-laptop-1366:portrait' }], catalogue))).toBe(
    'profile-orientation',
  );
  expect(
    nearestNames(
      'ios-phon-390',
      catalogue.profiles.map((profile) => profile.name),
      1,
    ),
  ).toEqual(['ios-phone-390']);
});

test('every profile of the catalogue can be held each way it names, and has a user agent', () => {
  for (const profile of catalogue.profiles) {
    for (const orientation of Object.keys(profile.viewport)) {
      const [device] = pickDevices([{ on: `${profile.name}:${orientation}` }], catalogue);
      expect(device!.width).toBeLessThanOrEqual(device!.screen.width);
      expect(device!.height).toBeLessThanOrEqual(device!.screen.height);
      expect(device!.agent.userAgent).toMatch(/^Mozilla\/5\.0 /);
    }
  }
});
