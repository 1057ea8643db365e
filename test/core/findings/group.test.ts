import fc from 'fast-check';
import { NO_DELIVERY } from '../../../src/core/delivery/delivery.js';
import { findingsOfPage } from '../../../src/core/findings/group.js';
import { httpError } from '../../../src/core/rules/delivery/http-error.js';
import { pageOverflow } from '../../../src/core/rules/overflow/page-overflow.js';
import type { RenderView } from '../../../src/core/sightings/sighting.js';
import { deviceOf } from '../../support/device.js';
import { viewOf } from '../../support/snapshot.js';

function renderAt(width: number): RenderView {
  const wide = 500;
  const view = viewOf({ width, scrollWidth: Math.max(width, wide) }, [
    { tag: 'table', class: 'fares', box: [0, 0, wide, 80], style: { display: 'table' } },
  ]);
  return {
    device: deviceOf(width),
    view,
    httpStatus: null,
    page: 'home',
    essentials: [],
    delivery: NO_DELIVERY,
  };
}

test('the same defect on several profiles is one finding with its worst measure in the message', () => {
  const found = findingsOfPage('fares', [renderAt(320), renderAt(390), renderAt(768)], [pageOverflow]);
  expect(found).toHaveLength(1);
  expect(found[0]!.seen.map((seen) => [seen.profile, seen.by?.px])).toEqual([
    ['test-320', 180],
    ['test-390', 110],
  ]);
  expect(found[0]!.message).toContain('180 px');
  // What is said of it on another profile is of that profile.
  expect(found[0]!.seen.map(({ message }) => message?.includes('110 px'))).toEqual([undefined, true]);
});

test('ids do not depend on the profiles, on their order, or on unrelated elements', () => {
  const id = (widths: number[]) => findingsOfPage('fares', widths.map(renderAt), [pageOverflow])[0]!.id;
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: 200, max: 480 }), { minLength: 1, maxLength: 6 }),
      (widths) => {
        expect(id(widths)).toBe(id([320]));
        const forward = findingsOfPage('p', widths.map(renderAt), [pageOverflow])[0]!;
        const backward = findingsOfPage('p', [...widths].reverse().map(renderAt), [pageOverflow])[0]!;
        expect({ ...backward, seen: [...backward.seen].reverse() }).toEqual(forward);
      },
    ),
    { numRuns: 25 },
  );
});

test('the same element on another page has another id', () => {
  const [a] = findingsOfPage('a', [renderAt(320)], [pageOverflow]);
  const [b] = findingsOfPage('b', [renderAt(320)], [pageOverflow]);
  expect(a!.id).not.toBe(b!.id);
});

test('an error status is a delivery finding; success and files without status are not', () => {
  const render = (httpStatus: number | null) => ({ ...renderAt(800), httpStatus });
  expect(findingsOfPage('p', [render(404)], [httpError])).toMatchObject([
    { rule: 'http-error', family: 'delivery', severity: 'error' },
  ]);
  expect(findingsOfPage('p', [render(200), render(304), render(null)], [httpError])).toEqual([]);
});
