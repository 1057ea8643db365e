import { defectKey } from '../../src/core/findings/judge.js';
import { mergedUnderWaivers } from '../../src/run/check.js';
import type { FindingRecord } from '../../src/run/manifest.js';

const NOW = new Date('2026-11-23T12:00:00Z');
const RECT = { x: 0, y: 0, width: 1, height: 1 };
const ofPage = (page: string): FindingRecord => ({
  id: `box-overflow-${page}`,
  rule: 'box-overflow',
  family: 'overflow',
  severity: 'warning',
  page,
  pages: [page],
  key: defectKey('box-overflow', 'html>body>header>a'),
  selector: 'header > a',
  related: [],
  message: 'Text runs 5 px out of its box.',
  details: [],
  words: '',
  cause: null,
  right: null,
  waived: null,
  seen: [{ page, profile: 'ios-phone-390', rect: RECT, by: null }],
});
const PAGES = ['home', 'fares', 'tides'].map(ofPage);
const waiver = { reason: 'agreed', who: 'Ada', until: '2027-01-01' };
const told = (waivers: Parameters<typeof mergedUnderWaivers>[1]) => {
  const { findings, waivers: uses } = mergedUnderWaivers(PAGES, waivers, NOW);
  return {
    findings: findings.map(({ id, pages, waived }) => `${id} ${pages.join('+')}${waived ? ' waived' : ''}`),
    uses: uses.map(({ state }) => state),
  };
};

test('a waiver for one page accepts that page’s part of a template’s finding alone', () => {
  expect(told([{ ...waiver, rule: 'box-overflow', page: 'fares' }])).toEqual({
    findings: ['box-overflow-home home+tides', 'box-overflow-fares fares waived'],
    uses: ['used'],
  });
  expect(told([{ ...waiver, rule: 'box-overflow', page: 'home' }])).toEqual({
    findings: ['box-overflow-home home waived', 'box-overflow-fares fares+tides'],
    uses: ['used'],
  });
});

test('a waiver for a finding or its element accepts it on every page, and the order of waivers stays', () => {
  const whole = ['box-overflow-home home+fares+tides waived'];
  expect(told([{ ...waiver, finding: 'box-overflow-home' }])).toEqual({ findings: whole, uses: ['used'] });
  expect(told([{ ...waiver, rule: 'box-overflow', selector: 'header > a' }]).findings).toEqual(whole);
  const { uses } = told([
    { ...waiver, rule: 'covered' },
    { ...waiver, rule: 'box-overflow', page: 'tides' },
    { ...waiver, rule: 'box-overflow', until: '2026-11-22' },
  ]);
  expect(uses).toEqual(['unused', 'used', 'expired']);
});
