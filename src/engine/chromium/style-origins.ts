import type { CDPSession } from 'puppeteer-core';
import type { Declaration } from '../../core/cause/cause.js';
import type { WrittenSheet } from '../../page/handed-sheets.js';
import { scriptTexts } from './script-texts.js';
import type { ScriptText, SheetText, StyleOrigins } from '../driver.js';
import type { Generated } from '../probe.js';
import { declarationIn } from './declarations.js';
import type { PageWorld } from './page-world.js';
import { StyleSheets } from './style-sheets.js';

/** Asks the browser's own account of style sheets, which is only made when it is asked for. */
export class ChromiumStyles implements StyleOrigins {
  private sheets: Promise<StyleSheets> | null = null;

  constructor(
    private readonly session: CDPSession,
    private readonly world: PageWorld,
    private readonly origin: string,
  ) {}

  async placeOfSelector(sheet: string | null, selector: string, before: number): Promise<string | null> {
    return (await this.opened()).placeOfSelector(sheet, selector, before);
  }

  async declarationOf(
    uid: number,
    property: string,
    generated: Generated | null,
  ): Promise<Declaration | null> {
    const { session } = this;
    const sheets = await this.opened();
    const objectId = await this.world.handleOf(uid);
    if (objectId === null) return null;
    const { nodeId } = await session.send('DOM.requestNode', { objectId });
    const matched = await session.send('CSS.getMatchedStylesForNode', { nodeId });
    const pseudo = matched.pseudoElements?.find(({ pseudoType }) => pseudoType === generated);
    const rules = generated === null ? matched : { matchedCSSRules: pseudo?.matches ?? [] };
    const found = declarationIn(rules, property);
    if (!found) return null;
    const source = await sheets.placeOf(found.styleSheetId, found.range);
    const { name, value, selector } = found;
    return { property: name, value, selector, source };
  }

  async texts(): Promise<SheetText[]> {
    return (await this.opened()).texts();
  }

  async textsOf(addresses: readonly string[]): Promise<WrittenSheet[]> {
    return (await this.opened()).textsOf(addresses);
  }

  scripts(): Promise<ScriptText[]> {
    return scriptTexts(this.session, this.origin);
  }

  private opened(): Promise<StyleSheets> {
    this.sheets ??= this.open();
    return this.sheets;
  }

  private async open(): Promise<StyleSheets> {
    const { session } = this;
    const sheets = new StyleSheets(session, this.origin);
    await session.send('DOM.enable');
    await session.send('CSS.enable');
    // Node ids are given out for what has been asked for from the root down.
    await session.send('DOM.getDocument', { depth: 0 });
    return sheets;
  }

  async close(): Promise<void> {
    if (!this.sheets) return;
    await this.session.send('CSS.disable').catch(() => undefined);
    await this.session.send('DOM.disable').catch(() => undefined);
  }
}
