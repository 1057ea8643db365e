import { readdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { check } from '../../src/api/check.js';
import type { Rule } from '../../src/core/rules/rule.js';
import { NO_ACCESS } from '../../src/engine/access.js';
import { NO_ALTERATIONS } from '../../src/engine/job.js';
import { deviceOf } from '../support/device.js';
import { temporaryFolder } from '../support/program.js';
import { standIn, type LaidOut } from '../support/stand-in.js';

/** A box of 500 px in a page that is as wide as its window. */
const wideBox: LaidOut = ({ width }) => ({
  options: { width, scrollWidth: Math.max(width, 500) },
  children: [
    {
      tag: 'div',
      id: 'box',
      box: [0, 0, 500, 40],
      style: { width: '500px' },
      lines: [{ box: [0, 0, 490, 20], unbreakable: true }],
    },
  ],
});

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
beforeAll(async () => {
  temp = await temporaryFolder();
  await writeFile(join(temp.path, 'index.html'), '<!doctype html><title>P</title>');
});
afterAll(() => temp.dispose());

describe('an engine that can do nothing but lay pages out', () => {
  it('runs a check through the same interface, and what it can not do is said', async () => {
    const engine = standIn(wideBox);
    const run = await check({
      targets: [temp.path],
      profiles: ['400x800', 'ios-phone-390', '900x700'],
      out: join(temp.path, 'run'),
      engine,
    });
    expect(run.engine).toEqual({ name: 'stand-in', version: '1.2.3' });
    expect(run.renders.map(({ status }) => status)).toEqual(['ok', 'ok', 'ok']);
    const [finding] = run.findings;
    expect(finding).toMatchObject({ rule: 'page-overflow', selector: '#box', severity: 'error' });
    expect(finding!.seen.map(({ profile, by }) => [profile, by!.px])).toEqual([
      ['400x800', 100],
      ['ios-phone-390', 110],
    ]);
    const [window, phone] = run.renders;
    expect(window!.notes).toEqual([
      "stand-in can't do this: pictures",
      "stand-in can't do this: user agent",
      "stand-in can't do this: client hints",
      'nothing moved',
    ]);
    expect(phone!.notes).toEqual(
      expect.arrayContaining(["stand-in can't do this: touch", "stand-in can't do this: mobile viewport"]),
    );
    expect(await readdir(run.folder)).not.toContain('shots');
    expect(engine.open).toEqual({ sessions: 0, pages: 0 });
  });

  it('goes through a render in the same order', async () => {
    const engine = standIn(wideBox);
    await check({
      targets: [temp.path],
      profiles: ['900x700'],
      out: join(temp.path, 'order'),
      engine,
    });
    expect(engine.asked).toEqual([
      'begin 900x700',
      'navigate /index.html',
      'scrollThrough',
      'settle',
      'collect',
    ]);
  });

  it('keeps a page open, which is read at one size after another', async () => {
    const session = await standIn(wideBox).launch({
      executable: undefined,
      fonts: 'host',
      textScale: 1,
      log: () => undefined,
    });
    const page = await session.open({
      url: 'http://127.0.0.1/index.html',
      device: deviceOf(900),
      access: NO_ACCESS,
      alter: NO_ALTERATIONS,
      timeoutMs: Infinity,
      signal: new AbortController().signal,
    });
    const widths: number[] = [];
    for (const width of [900, 600, 320]) {
      await page.resize({ width, height: 700 });
      await page.settle('resized');
      widths.push((await page.collect({ locate: [] })).viewport.width);
    }
    expect(widths).toEqual([900, 600, 320]);
    await expect(page.shoot('fold')).rejects.toMatchObject({ code: 'no-pictures' });
    await expect(page.dispatch({ kind: 'click', selector: 'a' })).rejects.toThrow('does nothing to a page');
    await page.close();
  });

  it('keeps the layout of a page whose pictures fail, and says so', async () => {
    const run = await check({
      targets: [temp.path],
      profiles: ['400x800'],
      out: join(temp.path, 'no-picture'),
      engine: standIn(wideBox, new Set(['pictures', 'user-agent'])),
    });
    expect(run.renders[0]).toMatchObject({ status: 'ok', shots: {} });
    expect(run.renders[0]!.notes).toEqual(
      expect.arrayContaining([
        'the fold picture could not be taken: the stand-in can not do that',
        'the full picture could not be taken: the stand-in can not do that',
      ]),
    );
    expect(run.findings.map(({ rule }) => rule)).toEqual(['page-overflow']);
  });

  it('goes on when a rule throws, with what the others see', async () => {
    const broken: Rule = {
      meta: { name: 'broken', family: 'flow', severity: 'error', summary: 'breaks' },
      check: () => {
        throw new Error('no such thing');
      },
    };
    const run = await check({
      targets: [temp.path],
      profiles: ['400x800'],
      rules: [broken],
      out: join(temp.path, 'broken-rule'),
      engine: standIn(wideBox),
    });
    expect(run.findings.map(({ rule }) => rule)).toEqual(['page-overflow']);
    expect(run.renders[0]!.notes).toContain('the rule broken failed here: no such thing');
  });

  it('ends what is under way when the run is interrupted', async () => {
    const engine = standIn(wideBox);
    const interrupt = new AbortController();
    const run = await check({
      targets: [temp.path],
      profiles: ['400x800', '500x800'],
      out: join(temp.path, 'interrupted'),
      engine,
      signal: interrupt.signal,
      onEvent: ({ kind }) => {
        if (kind === 'found') interrupt.abort();
      },
    });
    expect(run.interrupted).toBe(true);
    expect(run.renders.map(({ error }) => error?.code)).toEqual(['interrupted', 'interrupted']);
    expect(engine.open).toEqual({ sessions: 0, pages: 0 });
  });
});
