import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import pLimit from 'p-limit';
import { IsopticError } from '../core/errors.js';
import { filmShots, type FilmPace, type FilmShot } from '../core/sweep/film-shots.js';
import { RULES } from '../core/rules/index.js';
import { DEFAULT_ENGINE } from '../engine/engines.js';
import { makeFolder } from '../engine/make-folder.js';
import { canvasFor, drawingOf, subtitleAt, type FilmFrame, type FilmRuler } from '../report/film/frame.js';
import { filmOf, type FilmFormat } from '../report/film/write.js';
import { drawn } from '../report/sheet/draw.js';
import { RunFolder } from '../run/run-folder.js';
import { Sweeper } from '../run/sweep/sweeper.js';
import { rangeFor, type SweepRange } from '../run/sweep/plan.js';
import type { Copies } from '../run/sweep/copies.js';
import type { PageSweep } from '../run/sweep/search-page.js';
import { openTargets } from '../site/targets.js';
import { accessFor, type CheckRequest, type RequestTools } from './run-check.js';

export interface FilmRequest {
  /** Its first page is filmed. */
  readonly check: CheckRequest;
  readonly range: SweepRange;
  /** As the width runs, or the page scrolled down at the widest. */
  readonly kind: 'widths' | 'scroll' | 'turn';
  /** From the widest to the narrowest. */
  readonly narrowing: boolean;
  readonly pace: FilmPace;
  /** The widest that it may be, px. */
  readonly most: number;
  /** A folder for its pictures as PNG files; else the film's format. */
  readonly as: { readonly frames: string } | { readonly format: FilmFormat };
}

export interface Film {
  /** The film; null where its pictures were written. */
  readonly file: Buffer | null;
  readonly frames: number;
  readonly ms: number;
  readonly width: number;
  readonly height: number;
}

/** @throws IsopticError for targets, browser or folders that can't be used, and where the page can't be filmed */
export async function makeFilm(request: FilmRequest, tools: RequestTools): Promise<Film> {
  const { check, range } = request;
  const engine = tools.engine ?? DEFAULT_ENGINE;
  const redact = <T>(value: T) => check.secrets.redact(value);
  const folder = await mkdtemp(join(tmpdir(), 'isoptic-film-'));
  const site = await openTargets(check.targets, check.find);
  const shared = {
    engine,
    browser: check.browser,
    folder: RunFolder.open(folder),
    signal: tools.signal,
    log: tools.log,
    redact,
    fonts: check.fonts,
    onEvent: tools.onEvent,
  };
  let sweeper: Sweeper | undefined;
  try {
    const [page] = site.pages;
    if (!page) throw new IsopticError('no-page', 'film: there is no page to film.', 'Name one.');
    const access = await accessFor({ ...check, sweep: range }, shared);
    const plan = { ...check, pages: [page], access, sweep: range };
    sweeper = new Sweeper(plan, range, shared, check.ruleSet ?? RULES);
    const own = { ...request, range: rangeFor(range, page.id) };
    return await sweeper.withCopies(page, async (copies, search) => {
      const found = request.kind === 'widths' ? await search({ confirms: false }) : null;
      if (found && found.record.error !== null) {
        throw new IsopticError('not-filmed', `${page.id}: ${found.record.error}`, 'Is the address right?', 3);
      }
      const work = new Filming(own, folder, copies, found);
      return work.run((done, of) => tools.onEvent({ kind: 'filmed', page: page.id, done, of }));
    });
  } finally {
    await Promise.all([sweeper?.close(), site.close()]);
    await rm(folder, { recursive: true, force: true });
  }
}

/** Pictures of the pages of a film under way at once. */
const AT_ONCE = availableParallelism() + 1;

class Filming {
  constructor(
    private readonly request: FilmRequest,
    private readonly folder: string,
    private readonly copies: Copies,
    private readonly sweep: PageSweep | null,
  ) {}

  async run(onDone: (done: number, of: number) => void): Promise<Film> {
    const { request, folder } = this;
    const { most } = request;
    const shots = await this.shots();
    const sizes = shots.map((shot) => this.sizeAt(shot));
    const largest = {
      width: Math.max(...sizes.map(({ width }) => width)),
      height: Math.max(...sizes.map(({ height }) => height)),
    };
    const canvas = canvasFor(largest, most);
    const ruler = this.ruler();
    const frames = 'frames' in request.as ? request.as.frames : folder;
    if ('frames' in request.as) await makeFolder(frames);
    const limit = pLimit(AT_ONCE);
    let done = 0;
    const files = await Promise.all(
      shots.map((shot, i) =>
        limit(async () => {
          const name = `page-${i}.png`;
          await writeFile(join(folder, name), await this.pictureOf(shot));
          const size = sizes[i]!;
          const frame: FilmFrame = {
            picture: name,
            size,
            title:
              request.kind === 'scroll'
                ? `${size.width} px, ${shot.at} px down`
                : `${size.width} × ${size.height} px`,
            subtitle: ruler ? subtitleAt(ruler, shot.at) : '',
            at: ruler ? shot.at : null,
          };
          const file = join(frames, `frame-${String(i + 1).padStart(4, '0')}.png`);
          const picture = await drawn(drawingOf(frame, ruler, canvas), folder, { ground: 'light' });
          await writeFile(file, await picture.png({ compressionLevel: 1 }).toBuffer());
          await rm(join(folder, name));
          onDone(++done, shots.length);
          return file;
        }),
      ),
    );
    const delays = shots.map(({ ms }) => ms);
    return {
      file: 'format' in request.as ? await filmOf(files, delays, request.as.format) : null,
      frames: files.length,
      ms: delays.reduce((sum, ms) => sum + ms, 0),
      width: canvas.width,
      height: canvas.height,
    };
  }

  private async shots(): Promise<FilmShot[]> {
    const { request, sweep } = this;
    const { range, pace, narrowing, kind } = request;
    if (kind === 'turn') {
      const { width, height } = range.device;
      return [width, height].map((at) => ({ at, ms: 3 * pace.stopMs }));
    }
    if (kind === 'scroll') return filmShots(0, await this.copies.scrollableHeight(), [], pace);
    const changes = sweep?.record.edges.map(({ width }) => width) ?? [];
    return narrowing
      ? filmShots(range.to, range.from, changes, pace)
      : filmShots(range.from, range.to, changes, pace);
  }

  private sizeAt({ at }: FilmShot): { width: number; height: number } {
    const { kind, range } = this.request;
    const { width, height } = range.device;
    if (kind === 'scroll') return { width, height };
    if (kind === 'turn') return at === width ? { width, height } : { width: height, height: width };
    return { width: at, height };
  }

  private pictureOf(shot: FilmShot): Promise<Buffer> {
    return this.request.kind === 'scroll'
      ? this.copies.screenAt(shot.at)
      : this.copies.picture(this.sizeAt(shot));
  }

  private ruler(): FilmRuler | null {
    const { sweep } = this;
    if (!sweep) return null;
    const { from, to, edges, ranges = [] } = sweep.record;
    return {
      from,
      to,
      edges,
      ranges: ranges.map(({ label, span: [min, max] }) => ({ label, span: { min, max } })),
      failing: sweep.failing(),
    };
  }
}
