import { NO_DELIVERY, type ResourceFailure } from '../../src/core/delivery/delivery.js';
import { structureOf } from '../../src/core/delivery/structure.js';
import { findingsOfPage } from '../../src/core/findings/group.js';
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

test('a missing picture, stylesheet or font is a finding, once a file', () => {
  const found = findings(
    failure('image', 'http://h/a.png'),
    failure('image', 'http://h/a.png'),
    failure('stylesheet', 'http://h/a.css'),
    failure('font', 'http://h/a.woff2'),
  );
  expect(found.map(({ rule, family, severity }) => [rule, family, severity])).toEqual(
    Array(3).fill(['missing-resource', 'delivery', 'warning']),
  );
  expect(found.map((finding) => finding.message)).toContain(
    'The image http://h/a.png did not come: the server answered 404.',
  );
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
