import { join } from 'node:path';
import { isoptic, manifestOf, serve, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let server: Awaited<ReturnType<typeof serve>>;
let other: Awaited<ReturnType<typeof serve>>;
const head = '<!doctype html><meta name="viewport" content="width=device-width"><title>Hostile</title>';
const html = { 'content-type': 'text/html' };

beforeAll(async () => {
  temp = await temporaryFolder();
  other = await serve((_, response) => response.writeHead(200, html).end('<p>Another harbour.</p>'));
  const wide = '<div id="wide" style="width:900px">Wide</div>';
  const pages: Record<string, string> = {
    '/prototypes': `${wide}<script>
      for (const name of ['getBoundingClientRect', 'getClientRects', 'getAttribute', 'querySelectorAll', 'checkVisibility'])
        Element.prototype[name] = () => { throw new Error('no') };
      Range.prototype.getClientRects = () => []; window.getComputedStyle = () => null; JSON.stringify = () => '{}';
      Array.prototype.push = () => 0; Map.prototype.get = () => 1; Object.defineProperty(Node.prototype, 'childNodes', { get: () => [] });
    </script>`,
    '/deep': '<div style="padding-left:1px">'.repeat(5000) + 'Deep' + '</div>'.repeat(5000),
    '/many': `${wide}<script>document.body.append(...Array.from({ length: 100000 }, () => document.createElement('i')))</script>`,
    '/lines': `<div style="width:10px;font-size:2px">${'a '.repeat(1_000_000)}</div>`,
    '/closed': `${wide}<div id="host"></div><script>host.attachShadow({ mode: 'closed' }).innerHTML = '<p style="width:2000px">Inside</p>'</script>`,
    // A form's fields stand in for its properties.
    '/fields': `<form>${['children', 'childNodes', 'firstChild', 'id', 'parentElement', 'style', 'lastChild'].map((name) => `<input name="${name}" aria-label="${name}">`).join('')}${wide}</form>`,
    '/frame': `${wide}<iframe src="${other.origin}/" title="Other"></iframe>`,
  };
  server = await serve((request, response) =>
    response.writeHead(200, html).end(head + (pages[request.url!] ?? '')),
  );
});
afterAll(async () => {
  await Promise.all([server.close(), other.close()]);
  await temp.dispose();
});

test('hostile pages are bounded, and what was left out is said', async () => {
  const paths = ['/prototypes', '/deep', '/many', '/lines', '/closed', '/fields', '/frame'];
  const outcome = await isoptic([
    'check',
    ...paths.map((path) => server.origin + path),
    '--at',
    '400x600',
    '--shots',
    'none',
    '--json',
    '--timeout',
    '110',
    '--out',
    join(temp.path, 'run'),
  ]);
  const manifest = manifestOf(outcome);
  expect(manifest.renders.map(({ page, status }) => `${page} ${status}`)).toEqual(
    paths.map((path) => `${path.slice(1)} ok`),
  );
  const culprit = (page: string) =>
    manifest.findings.find((finding) => finding.page === page && finding.rule === 'page-overflow')?.selector;
  expect(['prototypes', 'many', 'fields', 'closed', 'frame'].map(culprit)).toEqual([
    '#wide',
    '#wide',
    '#wide',
    expect.any(String),
    '#wide',
  ]);
  const notes = new Map(manifest.renders.map((render) => [render.page, render.notes.join('; ')]));
  expect(notes.get('lines')).toContain('the page was scrolled 60 screens down and went on');
  expect(notes.get('closed')).toContain('left out: 1 closed shadow roots');
  expect(notes.get('many')).not.toContain('closed shadow roots');
  expect(notes.get('frame')).toContain('left out: 1 frames of another origin');
}, 240_000);
