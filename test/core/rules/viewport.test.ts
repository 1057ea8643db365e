import { readViewportMeta } from '../../../src/core/layout/viewport-meta.js';
import { pageOverflow } from '../../../src/core/rules/overflow/page-overflow.js';
import { viewportFixed } from '../../../src/core/rules/viewport/viewport-fixed.js';
import { viewportMissing } from '../../../src/core/rules/viewport/viewport-missing.js';
import { zoomLocked } from '../../../src/core/rules/viewport/zoom-locked.js';
import { findingsOfPage } from '../../../src/core/findings/group.js';
import { PHONE, renderOf, seenBy } from '../../support/render.js';

test('the tag is read by the algorithm of the standard', () => {
  expect(readViewportMeta('WIDTH = 640; initial-scale=0.5, user-scalable=0')).toEqual({
    width: 640,
    isDeviceWidth: false,
    initialScale: 0.5,
    maximumScale: null,
    userScalable: false,
  });
  expect(readViewportMeta('width=device-width,user-scalable=yes')).toMatchObject({
    width: null,
    isDeviceWidth: true,
    userScalable: true,
  });
  expect(readViewportMeta('nonsense')).toMatchObject({ width: null, maximumScale: null, userScalable: true });
});

test('zoom is locked by user-scalable and by a low maximum, on mobile devices', () => {
  const seen = (viewportMeta: string | null, device = PHONE) =>
    seenBy(zoomLocked, { width: 390, viewportMeta }, [], device);
  expect(seen('width=device-width, user-scalable=no')).toEqual(['html']);
  expect(seen('width=device-width, maximum-scale=1.0')).toEqual(['html']);
  expect(seen('width=device-width, maximum-scale=5')).toEqual([]);
  expect(seen('width=device-width')).toEqual([]);
  expect(seen(null)).toEqual([]);
  expect(seen('user-scalable=no', { ...PHONE, mobile: false })).toEqual([]);
});

test('a fixed width narrower than the device enlarges the page', () => {
  const device = { ...PHONE, width: 390 };
  expect(seenBy(viewportFixed, { width: 320, viewportMeta: 'width=320' }, [], device)).toEqual(['html x 70']);
  expect(seenBy(viewportFixed, { width: 390, viewportMeta: 'width=device-width' }, [], device)).toEqual([]);
  expect(seenBy(viewportFixed, { width: 390, viewportMeta: 'width=390' }, [], device)).toEqual([]);
});

test('one page that is shown shrunk on one device and enlarged on another is one finding', () => {
  const rules = [pageOverflow, viewportFixed, viewportMissing];
  const wide = renderOf({ width: 768, viewportMeta: 'width=768' }, [], 'home', {
    ...PHONE,
    name: 'wide',
    width: 820,
  });
  const narrow = renderOf({ width: 768, viewportMeta: 'width=768' }, [], 'home', {
    ...PHONE,
    name: 'narrow',
    width: 390,
  });
  const found = (renders: (typeof wide)[]) => findingsOfPage('home', renders, rules).map(({ rule }) => rule);
  expect(found([wide])).toEqual(['viewport-fixed']);
  expect(found([wide, narrow])).toEqual(['page-overflow']);
  const bare = renderOf({ width: 1180, viewportMeta: null }, [], 'home', { ...PHONE, width: 1180 });
  expect(found([bare])).toEqual(['viewport-missing']);
});
