import { NO_DELIVERY } from '../../src/core/delivery/delivery.js';
import type { FindingRecord, Manifest } from '../../src/run/manifest.js';

export const NAMES = [
  'android-phone-360',
  'ios-phone-390',
  'ios-phone-390:landscape',
  'ios-tablet-820',
  'tv-1920',
];
const CLASSES = ['phone', 'phone', 'phone', 'tablet', 'tv'] as const;
const WIDTHS = [360, 390, 844, 820, 1920];
export const PAGES = ['index.html', 'a/rather/long/way/down/to/the/page/of/the/winter/timetable.html'];
const RECT = { x: 0, y: 0, width: 1, height: 1 };

/** A finding of a page on the first profiles, one for each of the lengths. */
export function findingOf(
  page: string,
  severity: FindingRecord['severity'],
  px: readonly number[],
): FindingRecord {
  return {
    id: `box-overflow-${page}-${severity}`,
    rule: 'box-overflow',
    family: 'overflow',
    severity,
    page,
    pages: [page],
    key: 'k',
    selector: 'div.fares > a.button',
    related: ['div.fares > a.other'],
    message:
      '“Fares and times” runs 16 px out of the right side of the box that is drawn round it, on a 360 px wide screen.',
    details: [],
    words: 'Book now',
    cause: null,
    right: null,
    waived: null,
    seen: px.map((length, i) => ({ page, profile: NAMES[i]!, rect: RECT, by: { axis: 'x', px: length } })),
  };
}

/** A run of two pages on five profiles, made by hand. */
export function runOf(findings: FindingRecord[], failed: string[] = []): Manifest {
  return {
    format: 'isoptic-run',
    version: 1,
    tool: { name: 'isoptic', version: '0' },
    engine: { name: 'chromium', version: '1' },
    startedAt: '2026-11-23T10:00:00Z',
    durationMs: 1500,
    interrupted: false,
    pages: PAGES.map((source) => ({ id: source, source, title: 'Lantern Isles \u001b[31mFerries' })),
    profiles: NAMES.map((name, i) => ({
      name,
      width: WIDTHS[i]!,
      height: 800,
      dpr: 1,
      class: CLASSES[i]!,
      screen: { width: WIDTHS[i]!, height: 800 },
      insets: { top: 0, right: 0, bottom: 0, left: 0 },
      density: 160,
      scheme: 'light' as const,
      orientation: name.endsWith('landscape') ? ('landscape' as const) : ('portrait' as const),
      platform: name.split('-')[0]!,
      touch: true,
      mobile: true,
      userAgent: '',
    })),
    renders: PAGES.flatMap((page) =>
      NAMES.map((profile) => ({
        page,
        profile,
        status: failed.includes(profile) ? ('failed' as const) : ('ok' as const),
        finalUrl: null,
        httpStatus: null,
        error: failed.includes(profile) ? { code: 'timeout', message: 'It took longer than 30 s.' } : null,
        document: null,
        timings: { loadMs: 0, settleMs: 0, collectMs: 0, analyseMs: 0, shotMs: 0, causeMs: 0 },
        shots: {},
        notes: [],
        delivery: structuredClone(NO_DELIVERY) as Manifest['renders'][number]['delivery'],
      })),
    ),
    findings,
    waivers: [],
    summary: { renders: 10, failed: 0, errors: 1, warnings: 0, notices: 1, waived: 0 },
  };
}
