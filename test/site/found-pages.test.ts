import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { parseList } from '../../src/site/list-file.js';
import { openTargets, type TargetOptions } from '../../src/site/targets.js';
import { serve, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let server: Awaited<ReturnType<typeof serve>>;
let requests: string[] = [];

const link = (...hrefs: string[]) => hrefs.map((href) => `<a href="${href}">x</a>`).join('');
const urlset = (...paths: string[]) =>
  `<?xml version="1.0"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${paths.map((path) => `<url><loc>${server.origin}${path}</loc></url>`).join('')}</urlset>`;
const index = (...paths: string[]) =>
  `<sitemapindex>${paths.map((path) => `<sitemap><loc>${server.origin}${path}</loc></sitemap>`).join('')}</sitemapindex>`;

const ANSWERS: Record<string, () => string | Buffer> = {
  '/': () =>
    link(
      '/a?one',
      '/a?two#part',
      'b',
      'https://elsewhere.test/',
      'mailto:x@y',
      '/picture.png',
      '/secret/plan',
      '/index.html',
    ) + '<a href="/file" download>x</a>',
  '/a': () => link('/', '/deep'),
  '/b': () => link('/a', '/b'),
  '/deep': () => link('/deeper'),
  '/robots.txt': () => 'User-agent: *\nDisallow: /secret/\n',
  '/sitemap.xml': () => index('/one.xml', '/two.xml.gz', '/sitemap.xml'),
  '/one.xml': () => urlset('/a', '/b?x=1&amp;y=2'),
  '/two.xml.gz': () => gzipSync(urlset('/a', '/deep')),
  '/broken.xml': () => '<urlset><url></urlset>',
  '/other.xml': () => '<rss/>',
};

beforeAll(async () => {
  temp = await temporaryFolder();
  server = await serve((request, response) => {
    const path = (request.url ?? '/').split('?')[0]!;
    requests.push(path);
    const answer = ANSWERS[path];
    const type = path.endsWith('.xml')
      ? 'application/xml'
      : path.endsWith('.txt')
        ? 'text/plain'
        : 'text/html';
    response.writeHead(answer ? 200 : 404, { 'content-type': type }).end(answer?.() ?? 'none');
  });
  await mkdir(join(temp.path, 'site', 'boats', '.hidden'), { recursive: true });
  for (const file of [
    'index.html',
    'fares.html',
    'boats/index.html',
    'boats/wick.html',
    'boats/.hidden/x.html',
  ]) {
    await writeFile(join(temp.path, 'site', file), link('fares.html', 'boats/'));
  }
});
afterAll(async () => {
  await server.close();
  await temp.dispose();
});
beforeEach(() => {
  requests = [];
});

/** Paths of the pages found, and the notes, with the site closed again. */
async function found(targets: string[], options: Partial<TargetOptions> = {}) {
  const site = await openTargets(targets, { all: false, ...options });
  await site.close();
  return {
    paths: site.pages.map((page) => page.url.replace(/^https?:\/\/[^/]+/, '')),
    ids: site.pages.map((page) => page.id),
    notes: site.notes,
  };
}

test('links are followed inside the site, nearest first, each page once, as robots.txt asks', async () => {
  expect(await found([`${server.origin}/`], { follow: 1 })).toEqual({
    paths: ['/', '/a?one', '/b'],
    ids: ['home', 'a-one', 'b'],
    notes: ['1 links left out as robots.txt asks; --ignore-robots takes them in'],
  });
  expect((await found([`${server.origin}/`], { follow: 3, robots: false })).paths).toEqual([
    '/',
    '/a?one',
    '/b',
    '/secret/plan',
    '/deep',
    '/deeper',
  ]);
});

test('a limit of pages stops the search and says so; a circle of links ends by itself', async () => {
  const cut = await found([`${server.origin}/`], { follow: 9, maxPages: 2 });
  expect(cut.paths).toHaveLength(2);
  expect(cut.notes).toEqual(['stopped at 2 pages; --max-pages takes more']);
  await found([`${server.origin}/b`], { follow: 9, robots: false });
  expect(requests.filter((path) => path === '/b').length).toBeLessThanOrEqual(2);
});

test('a sitemap may be an index, packed, and name itself', async () => {
  expect((await found([`${server.origin}/sitemap.xml`])).paths).toEqual(['/a', '/b?x=1&y=2', '/deep']);
  expect(requests.filter((path) => path === '/sitemap.xml')).toHaveLength(1);
});

test.each([
  ['/broken.xml', /not well-formed XML/],
  ['/other.xml', /no sitemap/],
  ['/missing.xml', /did not answer with 200/],
])('the sitemap %s is refused', async (path, message) => {
  await expect(found([server.origin + path])).rejects.toThrow(message);
});

test('a list names pages from where it lies, or from a base address', async () => {
  const list = join(temp.path, 'list.txt');
  await writeFile(list, '\uFEFF# pages\nsite/fares.html # prices\n\nsite/boats/wick.html\n');
  expect((await found([list])).ids).toEqual(['fares', 'wick']);
  await writeFile(list, `/a\nb\n${server.origin}/deep?x#y\n`);
  const staged = await found([list], { baseUrl: 'https://staging.test/root/' });
  expect(staged.paths).toEqual(['/a', '/root/b', '/deep?x']);
  expect((await found([list], { baseUrl: 'https://live.test/root/' })).ids).toEqual(staged.ids);
  await writeFile(list, '# nothing\n');
  await expect(found([list])).rejects.toMatchObject({ code: 'empty-list' });
  expect(parseList('a#b\n c # d\r\n')).toEqual(['a#b', 'c']);
});

test('folders below are looked into on request, hidden ones never', async () => {
  expect((await found([join(temp.path, 'site')], { all: true })).ids).toEqual(['home', 'fares']);
  expect((await found([join(temp.path, 'site')], { all: false, recursive: true })).ids).toEqual([
    'home',
    'fares',
    'boats',
    'boats-wick',
  ]);
  expect((await found([join(temp.path, 'site')], { follow: 2 })).paths).toEqual([
    '/index.html',
    '/fares.html',
    '/boats/',
    '/boats/fares.html',
    '/boats/boats/',
  ]);
});
