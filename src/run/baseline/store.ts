import { readdir, readFile, rm } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { IsopticError, messageOf } from '../../core/errors.js';
import { makeFolder } from '../../engine/make-folder.js';
import type { Kept } from '../compare/kept.js';
import { WEBP_SIDE } from '../../engine/picture-file.js';
import { loadSharp } from '../../engine/load-sharp.js';
import { folderBytes } from '../folder-bytes.js';
import { readLayout, steadyLayout } from '../layout-file.js';
import type { Manifest, RenderRecord } from '../manifest.js';
import { renderKey } from '../render-key.js';
import { branchOf } from './branch.js';
import { baselineSchema, type BaselineIndex, type KeptObjects } from './index-file.js';
import { Objects } from './objects.js';
import { findingsTaken, isChosen, joined, okRenders, recordsOf, type Chosen } from './taken.js';

/** Where a baseline lies unless the configuration says otherwise. */
export const BASELINE_FOLDER = 'isoptic-baseline';
/** Outside of a repository, and for all branches that have none of their own. */
const MAIN = 'main';
const MAIN_NAMES = new Set(['main', 'master', 'trunk']);

/**
 * What later runs are held against: pictures (lossless WebP), layouts and findings of runs, content-addressed, in a folder that can be committed.
 * The main branch has one, and each other branch may have one of its own beside it.
 */
export class Baseline {
  private readonly objects: Objects;

  private constructor(
    readonly folder: string,
    /** Of the branch that is checked out: `main` for the main one. */
    readonly branch: string,
  ) {
    this.objects = new Objects(folder);
  }

  /** @param branch the one that is meant; the one that is checked out where the folder lies unless told */
  static async open(path: string, branch?: string): Promise<Baseline> {
    const folder = resolve(path);
    const current = branch ?? (await branchOf(process.cwd()));
    return new Baseline(folder, current === null || MAIN_NAMES.has(current) ? MAIN : current);
  }

  private indexPath(branch: string): string {
    return join(this.folder, `${encodeURIComponent(branch)}.json`);
  }

  /** The branches that have a baseline of their own, the main one first. */
  async branches(): Promise<string[]> {
    const files = await readdir(this.folder).catch(() => []);
    const names = files
      .filter((file) => file.endsWith('.json'))
      .map((file) => decodeURIComponent(file.slice(0, -5)));
    return names.sort((a, b) => Number(b === MAIN) - Number(a === MAIN) || a.localeCompare(b));
  }

  /** That of the branch, else of the main one. @throws IsopticError `no-baseline`, `bad-baseline` */
  async read(): Promise<BaselineIndex> {
    const own = await this.readOf(this.branch);
    const found = own ?? (await this.readOf(MAIN));
    if (found) return found;
    throw new IsopticError(
      'no-baseline',
      `${this.folder}: there is no baseline in it.`,
      'Keep a run as one with `isoptic baseline save RUN`.',
    );
  }

  /** Null where the branch has none. @throws IsopticError `bad-baseline` */
  async readOf(branch: string): Promise<BaselineIndex | null> {
    const path = this.indexPath(branch);
    const text = await readFile(path, 'utf8').catch((error: unknown) => {
      if (/ENOENT/.test(messageOf(error))) return null;
      throw error;
    });
    if (text === null) return null;
    const bad = (what: string, hint: string) => new IsopticError('bad-baseline', `${path}: ${what}.`, hint);
    let value: unknown;
    try {
      value = JSON.parse(text);
    } catch {
      throw bad(
        'it is no whole JSON: it was cut off, or a merge left its marks in it',
        'Save the baseline again.',
      );
    }
    const { version } = (typeof value === 'object' && value !== null ? value : {}) as { version?: unknown };
    if (typeof version === 'number' && version > 1)
      throw bad(
        `it was written by a newer Isoptic (format ${version}; this one reads 1)`,
        'Use the newer one.',
      );
    const parsed = baselineSchema.safeParse(value);
    if (parsed.success) return parsed.data;
    const [issue] = parsed.error.issues;
    throw bad(
      `it does not say what this Isoptic needs (${issue?.path.map(String).join('.') ?? ''}: ${issue?.message ?? ''})`,
      'Save the baseline again.',
    );
  }

  /** Keeps a whole run in place of what the branch had. @returns what there is now */
  async save(run: Kept): Promise<BaselineIndex> {
    const { manifest } = run;
    const objects = await Promise.all(okRenders(manifest).map((render) => this.keep(run, render)));
    return this.write({ ...recordsOf(manifest), findings: manifest.findings, objects, branch: this.branch });
  }

  /** Takes over the chosen renders of a run, with what was found in them; the others stay as they were. */
  async take(run: Kept, chosen: Chosen): Promise<{ readonly index: BaselineIndex; readonly taken: number }> {
    const before = await this.read();
    const { manifest } = run;
    const taken = okRenders(manifest).filter(({ page, profile }) => isChosen(chosen, page, profile));
    const keys = new Set(taken.map(({ page, profile }) => renderKey(page, profile)));
    const isTaken = (page: string, profile: string) => keys.has(renderKey(page, profile));
    const objects = await Promise.all(taken.map((render) => this.keep(run, render)));
    const records = recordsOf(manifest);
    const index = await this.write({
      run: {
        ...before.run,
        pages: joined(before.run.pages, records.run.pages, ({ id }) => id),
        profiles: joined(before.run.profiles, records.run.profiles, ({ name }) => name),
        renders: [
          ...before.run.renders.filter(({ page, profile }) => !isTaken(page, profile)),
          ...records.run.renders.filter(({ page, profile }) => isTaken(page, profile)),
        ],
      },
      findings: findingsTaken(before.findings, manifest.findings, isTaken),
      objects: [...before.objects.filter(({ page, profile }) => !isTaken(page, profile)), ...objects],
      branch: this.branch,
    });
    return { index, taken: taken.length };
  }

  /** Drops the baseline of the branch, and what only it named. @returns whether there was one */
  async drop(): Promise<boolean> {
    const was = await this.readOf(this.branch).catch(() => null);
    await rm(this.indexPath(this.branch), { force: true });
    await this.prune();
    return was !== null;
  }

  /** Of all its files. */
  bytes(): Promise<number> {
    return folderBytes(this.folder);
  }

  /** As it is compared. @throws IsopticError `no-baseline`, `bad-baseline` */
  async kept(): Promise<Kept> {
    const { run, findings, objects, branch } = await this.read();
    const byRender = new Map(objects.map((each) => [renderKey(each.page, each.profile), each]));
    const manifest: Manifest = {
      ...run,
      durationMs: 0,
      findings,
      waivers: [],
      summary: { renders: run.renders.length, failed: 0, errors: 0, warnings: 0, notices: 0, waived: 0 },
    };
    return {
      name: `the baseline of ${branch ?? MAIN}`,
      manifest,
      layout: async (page, profile) => {
        const name = byRender.get(renderKey(page, profile))?.layout;
        if (name === null || name === undefined)
          throw new IsopticError(
            'no-layout',
            'the baseline has no layout of it',
            'Save it from a run that keeps layouts.',
          );
        return (await readLayout(this.objects.path(name))).view;
      },
      layoutFile: async (page, profile) => {
        const name = byRender.get(renderKey(page, profile))?.layout;
        return name ? readFile(this.objects.path(name)).catch(() => null) : null;
      },
      picture: (render, kind) => {
        const name = byRender.get(renderKey(render.page, render.profile))?.[kind];
        return Promise.resolve(name === null || name === undefined ? null : this.objects.path(name));
      },
    };
  }

  private async keep(run: Kept, render: RenderRecord): Promise<KeptObjects> {
    const { page, profile } = render;
    const picture = async (kind: 'full' | 'fold') => {
      const path = await run.picture(render, kind);
      if (path === null) return null;
      const sharp = await loadSharp();
      const { width, height } = await sharp(path, { limitInputPixels: false }).metadata();
      // WebP ends at so many px a side; what is longer stays as it is.
      const isLong = Math.max(width, height) > WEBP_SIDE;
      const content = isLong
        ? await readFile(path)
        : await sharp(path, { limitInputPixels: false }).webp({ lossless: true, effort: 2 }).toBuffer();
      return this.objects.add(content, isLong ? path.split('.').at(-1)! : 'webp');
    };
    const layout = await run.layoutFile(page, profile);
    return {
      page,
      profile,
      layout: layout === null ? null : await this.objects.add(await steadyLayout(layout), 'json.gz'),
      full: await picture('full'),
      fold: await picture('fold'),
    };
  }

  private async write(
    content: Omit<BaselineIndex, 'format' | 'version' | 'savedAt'>,
  ): Promise<BaselineIndex> {
    const index: BaselineIndex = {
      format: 'isoptic-baseline',
      version: 1,
      savedAt: new Date().toISOString(),
      ...content,
    };
    await makeFolder(this.folder);
    await writeFileAtomic(this.indexPath(this.branch), `${JSON.stringify(index, null, 1)}\n`);
    await this.prune();
    return index;
  }

  /** Removes what no branch names any more; nothing where one can't be read. */
  private async prune(): Promise<void> {
    try {
      const all = await Promise.all((await this.branches()).map((branch) => this.readOf(branch)));
      const names = all.flatMap((index) =>
        (index?.objects ?? []).flatMap(({ layout, full, fold }) => [layout, full, fold]),
      );
      await this.objects.keepOnly(new Set(names.filter((name) => name !== null)));
    } catch {
      // What is left over costs room and nothing else.
    }
  }
}
