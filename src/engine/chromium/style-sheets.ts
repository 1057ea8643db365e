import type { CDPSession, Protocol } from 'puppeteer-core';
import type { SheetText } from '../driver.js';
import type { WrittenSheet } from '../../page/handed-sheets.js';
import { shownAddress } from './shown-address.js';
import { SourceMapConsumer, type RawSourceMap } from 'source-map-js';

const MAX_MAP_BYTES = 20 * 1024 * 1024;

/** The style sheets of a page, and where a place in one of them was written. */
export class StyleSheets {
  private readonly headers = new Map<string, Protocol.CSS.CSSStyleSheetHeader>();
  private readonly maps = new Map<string, Promise<SourceMapConsumer | null>>();

  /** To be made before the CSS domain is enabled, which lists the sheets that there are. */
  constructor(
    private readonly session: CDPSession,
    private readonly origin: string,
  ) {
    session.on('CSS.styleSheetAdded', ({ header }) => this.headers.set(header.styleSheetId, header));
  }

  /** `file:line`, from the authored file where a source map leads there; null for what stands in no file. */
  async placeOf(
    styleSheetId: string | undefined,
    range: { readonly line: number; readonly column: number } | null,
  ): Promise<string | null> {
    const header = styleSheetId === undefined ? undefined : this.headers.get(styleSheetId);
    if (!header || !range) return null;
    const mapped = header.sourceMapURL ? await this.mapped(header, range) : null;
    if (mapped) return mapped;
    const url = header.sourceURL;
    // Lines of a style element count from where it begins in its document.
    return url === '' ? null : `${shownAddress(url, this.origin)}:${header.startLine + range.line + 1}`;
  }

  /**
   * The same, of a rule that is not in force, by its selector.
   * @param sheet the style sheet's address; null for a style element, which has no file of its own
   * @param before how many rules of the same selector stand before it in the sheet
   */
  async placeOfSelector(sheet: string | null, selector: string, before: number): Promise<string | null> {
    const header = [...this.headers.values()].find(({ sourceURL }) => sourceURL === sheet);
    if (!header) return null;
    const { styleSheetId } = header;
    const range = await this.rangeOf(styleSheetId, selector, before);
    return range ? this.placeOf(styleSheetId, { line: range.startLine, column: range.startColumn }) : null;
  }

  /** The browser knows selectors as they are written in the file, not as it writes them itself. */
  private async rangeOf(styleSheetId: string, selector: string, before: number) {
    for (const selectorText of [selector, selector.replace(/\s*([,>+~])\s*/g, '$1')]) {
      const found = await this.session
        .send('CSS.getLocationForSelector', { styleSheetId, selectorText })
        .catch(() => null);
      const range = found?.ranges[before];
      if (range) return range;
    }
    return null;
  }

  /**
   * Every style sheet that is not switched off, as it was written, by address and place: they come in the order in which they
   * were loaded, which is another each time. What the browser does not give out is left out.
   */
  async texts(): Promise<SheetText[]> {
    const headers = [...this.headers.values()].sort(
      (a, b) =>
        (a.sourceURL < b.sourceURL ? -1 : Number(a.sourceURL > b.sourceURL)) ||
        a.startLine - b.startLine ||
        a.startColumn - b.startColumn,
    );
    const found = await Promise.all(
      headers.map(async ({ styleSheetId, disabled }): Promise<SheetText[]> => {
        if (disabled) return [];
        const css = await this.textOf(styleSheetId);
        if (css === null) return [];
        const placeOf = (line: number, column: number) => this.placeOf(styleSheetId, { line, column });
        return [{ css, placeOf }];
      }),
    );
    return found.flat();
  }

  async textsOf(addresses: readonly string[]): Promise<WrittenSheet[]> {
    const headers = [...this.headers.values()];
    const found = await Promise.all(
      addresses.map(async (address): Promise<WrittenSheet[]> => {
        const header = headers.find(
          ({ sourceURL, loadingFailed }) => sourceURL === address && loadingFailed !== true,
        );
        const css = header ? await this.textOf(header.styleSheetId) : null;
        return css === null ? [] : [{ address, css }];
      }),
    );
    const written = found.flat();
    const missing = addresses.filter((address) => !written.some((sheet) => sheet.address === address));
    // One that did not come bears its address or the page's, as it happens; it says nothing.
    const failed = headers.filter(({ loadingFailed }) => loadingFailed === true).length;
    return missing.length > failed
      ? written
      : [...written, ...missing.map((address) => ({ address, css: '' }))];
  }

  /** Null where the browser does not give it out. */
  private async textOf(styleSheetId: string): Promise<string | null> {
    const answer = await this.session.send('CSS.getStyleSheetText', { styleSheetId }).catch(() => null);
    return answer?.text ?? null;
  }

  private async mapped(
    header: Protocol.CSS.CSSStyleSheetHeader,
    range: { readonly line: number; readonly column: number },
  ): Promise<string | null> {
    let map = this.maps.get(header.styleSheetId);
    if (!map) this.maps.set(header.styleSheetId, (map = this.load(header).catch(() => null)));
    const consumer = await map;
    const at = consumer?.originalPositionFor({ line: range.line + 1, column: range.column });
    // Without a source the map says nothing of this place.
    return at && (at.source as string | null) !== null
      ? `${shownAddress(at.source.replaceAll('\\', '/'), this.origin)}:${at.line}`
      : null;
  }

  private async load(header: Protocol.CSS.CSSStyleSheetHeader): Promise<SourceMapConsumer | null> {
    const url = new URL(header.sourceMapURL!, header.sourceURL);
    const text =
      url.protocol === 'data:'
        ? await (await fetch(url)).text()
        : await this.fetched(url.href, header.frameId);
    return text === null ? null : new SourceMapConsumer(JSON.parse(text) as RawSourceMap);
  }

  /** Through the page, which may be signed in where we are not. */
  private async fetched(url: string, frameId: string): Promise<string | null> {
    const { resource } = await this.session.send('Network.loadNetworkResource', {
      frameId,
      url,
      options: { disableCache: false, includeCredentials: true },
    });
    if (!resource.success || resource.stream === undefined) return null;
    let text = '';
    for (;;) {
      const { data, base64Encoded, eof } = await this.session.send('IO.read', { handle: resource.stream });
      text += base64Encoded === true ? Buffer.from(data, 'base64').toString('utf8') : data;
      if (eof || text.length > MAX_MAP_BYTES) break;
    }
    await this.session.send('IO.close', { handle: resource.stream });
    return text.length > MAX_MAP_BYTES ? null : text;
  }
}
