import type { Declaration } from '../core/cause/cause.js';
import { containerQueryOf } from '../core/css/container-query.js';
import type { FoundQuery } from '../core/css/found-query.js';
import { queriesInScript } from '../core/css/script-queries.js';
import { queriesIn } from '../core/css/sheet-queries.js';
import type { LayoutSnapshot } from '../core/layout/snapshot.js';
import type { Deadline } from './deadline.js';
import type { PageDriver, PictureArea, StyleOrigins } from './driver.js';
import { heldForPicture } from './held.js';
import type { Rect } from '../core/geometry/rect.js';
import type { Generated, IdleMedia, LayoutChange, Probe, StyleChange } from './probe.js';

/** What a page that was scrolled gets for each of the things that it may still wait for. */
const AT_REST_MS = 500;

/** A probe into an open page. */
export class LiveProbe implements Probe {
  private origins: StyleOrigins | null = null;

  constructor(
    private readonly driver: PageDriver,
    private readonly deadline: Deadline,
    private readonly origin: string,
  ) {}

  async layoutWith(change: LayoutChange): Promise<LayoutSnapshot> {
    const { driver, deadline } = this;
    try {
      const collected = await deadline.race(driver.call('trial', change));
      return await deadline.race(driver.completed(collected));
    } finally {
      await deadline.race(driver.call('endTrial'));
    }
  }

  async picturesWith(changes: readonly (readonly StyleChange[])[], area: Rect): Promise<Buffer[] | null> {
    const { driver, deadline } = this;
    if (!driver.capabilities.has('pictures')) return null;
    return heldForPicture(driver, deadline, () => this.eachDressed(changes, { ...area, scale: 1 }));
  }

  private async eachDressed(
    changes: readonly (readonly StyleChange[])[],
    area: PictureArea | null,
  ): Promise<Buffer[]> {
    const pictures: Buffer[] = [];
    for (const styles of changes) pictures.push(await this.dressed(styles, area));
    return pictures;
  }

  /** @param area null: what the screen shows */
  private async dressed(styles: readonly StyleChange[], area: PictureArea | null): Promise<Buffer> {
    const { driver, deadline } = this;
    try {
      if (styles.length > 0) await deadline.race(driver.call('dress', { styles }));
      return await deadline.race(driver.picture(area, 'png'));
    } finally {
      if (styles.length > 0) await deadline.race(driver.call('endTrial'));
    }
  }

  async idleMedia(uids: readonly number[]): Promise<IdleMedia[]> {
    const found = await this.deadline.race(this.driver.call('idleMediaOf', uids));
    return Promise.all(
      found.map(async ({ condition, selector, property, value, sheet, before }) => {
        const source = await this.ask((styles) => styles.placeOfSelector(sheet, selector, before));
        return { condition, declaration: { property, value, selector, source } };
      }),
    );
  }

  declarationOf(uid: number, property: string, generated: Generated | null): Promise<Declaration | null> {
    return this.ask((styles) => styles.declarationOf(uid, property, generated));
  }

  async queries(): Promise<FoundQuery[]> {
    const { driver, deadline } = this;
    const attributes = await deadline.race(driver.call('mediaAttributes'));
    const texts = (await this.ask((styles) => styles.texts())) ?? [];
    const written = await Promise.all(
      texts.flatMap(({ css, placeOf }) =>
        queriesIn(css).map(async ({ line, column, ...query }) => ({
          ...query,
          source: await deadline.race(placeOf(line, column)),
        })),
      ),
    );
    const ofSheets = await this.withContainers(written);
    const scripts = (await this.ask((styles) => styles.scripts())) ?? [];
    const ofScripts = scripts.flatMap(({ text, placeOf }) =>
      queriesInScript(text).map(({ text: query, line }) => ({
        kind: 'script' as const,
        text: query,
        source: placeOf(line),
        selectors: [],
        within: [],
      })),
    );
    const ofAttributes = attributes.map(({ kind, text, element }) => ({
      kind,
      text,
      source: element,
      selectors: [],
      within: [],
    }));
    return [...ofSheets, ...ofAttributes, ...ofScripts];
  }

  private async withContainers<T extends Pick<FoundQuery, 'kind' | 'text' | 'selectors'>>(
    queries: readonly T[],
  ): Promise<(T & Pick<FoundQuery, 'containers'>)[]> {
    const asking = queries.filter(({ kind }) => kind === 'container');
    if (asking.length === 0) return [...queries];
    const requests = asking.map(({ text, selectors }) => ({ name: containerQueryOf(text).name, selectors }));
    const found = await this.deadline.race(this.driver.call('containersOf', requests));
    return queries.map((query) =>
      query.kind === 'container' ? { ...query, containers: found[asking.indexOf(query)]! } : query,
    );
  }

  async screenAt(y: number): Promise<Buffer | null> {
    const { driver, deadline } = this;
    if (!driver.capabilities.has('pictures')) return null;
    const before = await deadline.race(driver.call('scrolledTo', y));
    try {
      return await deadline.race(driver.picture(null, 'png'));
    } finally {
      await deadline.race(driver.call('scrolledTo', before));
    }
  }

  async screensWith(changes: readonly (readonly StyleChange[])[], y: number): Promise<Buffer[] | null> {
    const { driver, deadline } = this;
    if (!driver.capabilities.has('pictures')) return null;
    // What a script does to a bar once the page is scrolled comes with a transition.
    const scrollTo = async (to: number) => {
      const from = await deadline.race(driver.call('scrolledTo', to));
      await deadline.race(driver.call('settle', AT_REST_MS));
      return from;
    };
    const before = await scrollTo(y);
    try {
      return await this.eachDressed(changes, null);
    } finally {
      await scrollTo(before);
    }
  }

  /** Null where the engine does not tell where a declaration stands. */
  private async ask<T>(question: (styles: StyleOrigins) => Promise<T | null>): Promise<T | null> {
    if (!this.driver.capabilities.has('declarations')) return null;
    this.origins ??= this.driver.styles(this.origin);
    return this.deadline.race(question(this.origins));
  }

  async close(): Promise<void> {
    await this.deadline.race(this.origins?.close() ?? Promise.resolve()).catch(() => undefined);
  }
}
