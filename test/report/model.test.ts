import { pageModels } from '../../src/report/html/model.js';
import type { FindingRecord, Manifest } from '../../src/run/manifest.js';

const finding = (id: string, page: string, isWaived = false): FindingRecord => ({
  id,
  rule: 'covered',
  family: 'overlap',
  severity: 'error',
  page,
  pages: [page],
  key: id,
  selector: 'p',
  related: [],
  message: 'Hides.',
  details: [],
  words: '',
  cause: null,
  waived: isWaived ? { reason: 'known', who: 'ada', until: '2027-01-31' } : null,
  seen: [{ page, profile: 'ios-phone-390', rect: { x: 0, y: 0, width: 9, height: 9 }, by: null }],
});

test('marks have the numbers that the lists count, whatever is waived and in which order findings come', () => {
  const page = (id: string) => ({ id, source: `${id}.html`, title: id });
  const render = (id: string) => ({ page: id, profile: 'ios-phone-390', status: 'ok', shots: {}, notes: [] });
  const manifest = {
    pages: [page('home'), page('fares')],
    profiles: [{ name: 'ios-phone-390' }],
    renders: [render('home'), render('fares')],
    findings: [
      finding('on-fares', 'fares'),
      finding('waived', 'home', true),
      finding('on-home', 'home'),
      finding('also-on-home', 'home'),
    ],
  } as unknown as Manifest;
  const models = pageModels(manifest);
  let counted = 0;
  const list = models.flatMap(({ findings }) => findings.map(({ id }) => [id, ++counted]));
  const marks = models.flatMap(({ panes }) =>
    panes.flatMap((pane) => pane.marks.map((mark) => [mark.finding.id, mark.number])),
  );
  expect(marks).toEqual(list);
  expect(marks).toEqual([
    ['on-home', 1],
    ['also-on-home', 2],
    ['on-fares', 3],
  ]);
});
