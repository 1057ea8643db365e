import type { CDPSession } from 'puppeteer-core';
import type { Declaration } from '../../core/cause/cause.js';
import type { LayoutSnapshot } from '../../core/layout/snapshot.js';
import type { Deadline } from '../deadline.js';
import type { Generated, IdleMedia, LayoutChange, Probe } from '../probe.js';
import { declarationIn } from './declarations.js';
import type { PageWorld } from './page-world.js';
import { StyleSheets } from './style-sheets.js';

/** A probe into a page that has been captured. */
export class LiveProbe implements Probe {
  private sheets: StyleSheets | null = null;

  constructor(
    private readonly session: CDPSession,
    private readonly world: PageWorld,
    private readonly deadline: Deadline,
    private readonly origin: string,
  ) {}

  async layoutWith(change: LayoutChange): Promise<LayoutSnapshot> {
    return this.world.collectWith(change);
  }

  async idleMedia(nodes: readonly number[]): Promise<IdleMedia[]> {
    const found = await this.world.call('idleMediaOf', nodes);
    if (found.length === 0) return [];
    const sheets = await this.styleSheets();
    return Promise.all(
      found.map(async ({ condition, selector, property, value, sheet, before }) => {
        const source = await this.deadline.race(sheets.placeOfSelector(sheet, selector, before));
        return { condition, declaration: { property, value, selector, source } };
      }),
    );
  }

  /** The style sheets, asked for on first use. */
  private async styleSheets(): Promise<StyleSheets> {
    const { session, deadline } = this;
    if (!this.sheets) {
      this.sheets = new StyleSheets(session, this.origin);
      await deadline.race(session.send('DOM.enable'));
      await deadline.race(session.send('CSS.enable'));
      // Node ids are given out for what has been asked for from the root down.
      await deadline.race(session.send('DOM.getDocument', { depth: 0 }));
    }
    return this.sheets;
  }

  async declarationOf(
    node: number,
    property: string,
    generated: Generated | null,
  ): Promise<Declaration | null> {
    const { session, deadline } = this;
    const sheets = await this.styleSheets();
    const objectId = await this.world.handleOf(node);
    if (objectId === null) return null;
    const { nodeId } = await deadline.race(session.send('DOM.requestNode', { objectId }));
    const matched = await deadline.race(session.send('CSS.getMatchedStylesForNode', { nodeId }));
    const pseudo = matched.pseudoElements?.find(({ pseudoType }) => pseudoType === generated);
    const rules = generated === null ? matched : { matchedCSSRules: pseudo?.matches ?? [] };
    const found = declarationIn(rules, property);
    if (!found) return null;
    const source = await deadline.race(sheets.placeOf(found.styleSheetId, found.range));
    const { name, value, selector } = found;
    return { property: name, value, selector, source };
  }

  async close(): Promise<void> {
    if (!this.sheets) return;
    await this.deadline.race(this.session.send('CSS.disable')).catch(() => undefined);
    await this.deadline.race(this.session.send('DOM.disable')).catch(() => undefined);
  }
}
