import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NO_ACCESS } from '../../src/engine/access.js';
import { fetchText } from '../../src/site/read-text.js';
import { openTargets } from '../../src/site/targets.js';
import { serve } from '../support/program.js';

let folder: string;
const write = async (path: string, text: string) => {
  await mkdir(join(folder, path, '..'), { recursive: true });
  await writeFile(join(folder, path), text);
};

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'isoptic-served-'));
  await write('site/assets/site.css', 'h1 { color: green }');
  await write('site/pages/beside.html', '<link rel="stylesheet" href="../assets/site.css"><h1>Beside</h1>');
  await write('site/pages/deep/top.html', '<link rel="stylesheet" href="/assets/site.css"><h1>Top</h1>');
  await write('site/html/index.html', '<h1>First</h1>');
  await write('site/production/index.html', '<h1>Second</h1>');
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** What the browser would get for a reference of the first page. */
async function loaded(target: string, reference: string, root?: string) {
  const site = await openTargets([join(folder, target)], { all: false, root });
  const answer = await fetch(new URL(reference, site.pages[0]!.url));
  const text = await answer.text();
  await site.close();
  return { status: answer.status, text, notes: site.notes };
}

describe('what is served', () => {
  it.each(['@2x', 'a+b', 'a&b', 'a=b', 'a,b', '$a', '#1', 'a b', 'é', '100%'])(
    'files with %s in their path are found',
    async (name) => {
      await write(`odd/${name}/${name}.html`, `<title>${name}</title>`);
      const site = await openTargets([join(folder, 'odd', name)], { all: true });
      const answer = await fetch(site.pages[0]!.url);
      expect([answer.status, await answer.text()]).toEqual([200, `<title>${name}</title>`]);
      await site.close();
    },
  );

  it('a hidden file stays hidden, whatever its path is written as', async () => {
    await write('odd/.env', 'secret');
    const site = await openTargets([join(folder, 'odd')], { all: false, recursive: true });
    const { origin } = new URL(site.pages[0]!.url);
    for (const path of ['/.env', '/%2eenv', '/x/..%2f.env', '/%252eenv'])
      expect((await fetch(origin + path)).status).toBe(404);
    await site.close();
  });

  it('a single file comes with the style sheets that lie beside and above its folder', async () => {
    const beside = await loaded('site/pages/beside.html', '../assets/site.css');
    expect(beside).toMatchObject({ status: 200, text: 'h1 { color: green }' });
    expect(beside.notes).toEqual([
      expect.stringMatching(/beside\.html is served from .*site, where what it uses is/),
    ]);
    const top = await loaded('site/pages/deep/top.html', '/assets/site.css');
    expect(top).toMatchObject({ status: 200, text: 'h1 { color: green }' });
    expect(top.notes).toEqual([expect.stringContaining(join(folder, 'site'))]);
  });

  it('--root says otherwise, and has to hold the file', async () => {
    const root = join(folder, 'site', 'pages');
    expect((await loaded('site/pages/beside.html', '/assets/site.css', root)).status).toBe(404);
    await expect(loaded('site/pages/beside.html', '/', join(folder, 'site', 'html'))).rejects.toMatchObject({
      code: 'bad-root',
    });
  });
});

describe('lists and names', () => {
  it('a list that names itself, and two that name each other, end', async () => {
    await write('lists/self.txt', 'self.txt\n../site/html/index.html\n');
    await write('lists/a.txt', 'b.txt\n../site/html/index.html\n');
    await write('lists/b.txt', 'a.txt\n../site/production/index.html\n');
    const self = await openTargets([join(folder, 'lists/self.txt')], { all: false });
    expect(self.pages.map(({ source }) => source)).toEqual(['index.html']);
    expect(self.notes).toEqual([expect.stringContaining('self.txt is named more than once')]);
    await self.close();
    const both = await openTargets([join(folder, 'lists/a.txt')], { all: false });
    expect(both.pages).toHaveLength(2);
    await both.close();
  });

  it('pages with the same file name are told apart by their folders', async () => {
    const files = ['site/production/index.html', 'site/html/index.html', 'site/pages/beside.html'];
    const site = await openTargets(
      files.map((file) => join(folder, file)),
      { all: false },
    );
    expect(site.pages.map(({ id, source }) => [id, source])).toEqual([
      ['production', 'production/index.html'],
      ['html', 'html/index.html'],
      ['beside', 'beside.html'],
    ]);
    await site.close();
  });
});

describe('what is read from servers', () => {
  it('a cookie goes to its own domain and path, not to one that ends in the same letters', async () => {
    const seen: (string | undefined)[] = [];
    const server = await serve((request, response) => {
      seen.push(request.headers.cookie);
      response.end('ok');
    });
    const cookies = [
      { name: 'mine', value: '1', domain: '127.0.0.1' },
      { name: 'other', value: '2', domain: '0.0.1' },
      { name: 'deck', value: '3', path: '/deck' },
    ];
    await fetchText(`${server.origin}/`, { ...NO_ACCESS, cookies });
    await fetchText(`${server.origin}/deck/upper`, { ...NO_ACCESS, cookies });
    expect(seen).toEqual(['mine=1', 'mine=1; deck=3']);
    await server.close();
  });

  it('a body without end is given up when it is too large, not when it is through', async () => {
    let sent = 0;
    const server = await serve((_request, response) => {
      const part = Buffer.alloc(1 << 20, 'a');
      const more = () => {
        sent++;
        if (!response.destroyed) response.write(part, () => setImmediate(more));
      };
      more();
    });
    await expect(fetchText(server.origin)).rejects.toThrow('larger than 50 MB');
    expect(sent).toBeLessThan(200);
    await server.close();
  });
});
