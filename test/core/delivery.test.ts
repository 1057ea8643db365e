import { NO_DELIVERY, type ResourceFailure } from '../../src/core/delivery/delivery.js';
import { structureOf } from '../../src/core/delivery/structure.js';
import { findingsOfPage } from '../../src/core/findings/group.js';
import { RULES } from '../../src/core/rules/index.js';
import { missingResource } from '../../src/core/rules/delivery/missing-resource.js';
import { deviceOf } from '../support/device.js';
import { viewOf } from '../support/snapshot.js';

const failure = (kind: string, url: string): ResourceFailure => ({
  kind,
  url,
  status: 404,
  reason: 'the server answered 404',
  blocked: false,
});
const findings = (...failures: ResourceFailure[]) =>
  findingsOfPage(
    'p',
    [
      {
        device: deviceOf(400),
        view: viewOf({ width: 400 }, []),
        httpStatus: 200,
        page: 'p',
        essentials: [],
        delivery: { ...NO_DELIVERY, failures },
      },
    ],
    [missingResource],
  );

test('what did not come is one finding of the page, counted and listed, each file once', () => {
  const found = findings(
    failure('image', 'http://h/a.png'),
    failure('image', 'http://h/a.png'),
    failure('image', 'http://h/b.png'),
    failure('stylesheet', 'http://h/a.css'),
    failure('font', 'http://h/a.woff2'),
  );
  expect(found).toHaveLength(1);
  expect(found[0]).toMatchObject({
    rule: 'missing-resource',
    severity: 'warning',
    message: '1 style sheet, 2 pictures and 1 font did not come, so the page is judged without them.',
    details: [
      'style sheet http://h/a.css: 404',
      'picture http://h/a.png: 404',
      'picture http://h/b.png: 404',
      'font http://h/a.woff2: 404',
    ],
  });
  expect(findings(failure('font', 'http://h/a.woff2'))[0]!.message).toBe(
    '1 font did not come, so the page is judged without it.',
  );
});

test('without a style sheet of its own origin a page is in error', () => {
  const [found] = findings(failure('stylesheet', 'http://127.0.0.1/css/a.css'));
  expect(found).toMatchObject({
    severity: 'error',
    details: ['style sheet /css/a.css: 404'],
  });
});

test('a page that the server refuses has no other findings', () => {
  const view = viewOf({ width: 400, scrollWidth: 900 }, [
    { tag: 'div', box: [0, 0, 900, 40], lines: [{ box: [0, 0, 890, 20], unbreakable: true }] },
  ]);
  const rules = (httpStatus: number) =>
    findingsOfPage(
      'p',
      [{ device: deviceOf(400), view, httpStatus, page: 'p', essentials: [], delivery: NO_DELIVERY }],
      RULES,
    ).map(({ rule }) => rule);
  expect(rules(200)).toContain('page-overflow');
  expect(rules(503)).toEqual(['http-error']);
});

test('what nobody sees is left alone: scripts, data, and the icon of the tab', () => {
  expect(
    findings(
      failure('script', 'http://h/a.js'),
      failure('fetch', 'http://h/data'),
      failure('image', 'http://h/favicon.ico'),
    ),
  ).toEqual([]);
});

test('texts, tokens and counters do not change a structure; tags, ids and classes do', () => {
  const page = (token: string, text: string, tag = 'p') =>
    `<html><body class="a"><meta name="csrf" content="${token}"><${tag} id="row-${token.length}">${text}</${tag}></body></html>`;
  expect(structureOf(page('abc', 'one'))).toBe(structureOf(page('xyzw', 'two')));
  expect(structureOf(page('abc', 'one'))).not.toBe(structureOf(page('abc', 'one', 'h1')));
  expect(structureOf('<p class="wide">')).not.toBe(structureOf('<p class="narrow">'));
});
