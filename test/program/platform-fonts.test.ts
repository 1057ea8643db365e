import puppeteer, { type Browser } from 'puppeteer-core';
import { FONT_SET, FONT_SETS, type FontSetName } from '../../src/core/fonts/font-sets.js';
import { findBrowser } from '../../src/engine/chromium/find-browser.js';
import { fontconfigFile } from '../../src/engine/fonts/fontconfig.js';

/** What the browser itself says it set a line of text with, by the family that the page asked for. */
async function fontsUsed(set: FontSetName, families: readonly string[]): Promise<Map<string, string[]>> {
  const found = await findBrowser(undefined);
  const browser: Browser = await puppeteer.launch({
    executablePath: found.executable,
    headless: found.shell ? 'shell' : true,
    pipe: true,
    args: process.getuid?.() === 0 ? ['--no-sandbox'] : [],
    env: { ...process.env, ...found.env, FONTCONFIG_FILE: await fontconfigFile(set) },
  });
  try {
    const page = await browser.newPage();
    const lines = families.map(
      (family, i) => `<p id="f${i}" style='font-family: ${quoted(family)}'>Tide 7</p>`,
    );
    await page.setContent(lines.join(''));
    const session = await page.createCDPSession();
    await session.send('DOM.enable');
    await session.send('CSS.enable');
    const { root } = await session.send('DOM.getDocument');
    const used = new Map<string, string[]>();
    for (const [i, family] of families.entries()) {
      const { nodeId } = await session.send('DOM.querySelector', { nodeId: root.nodeId, selector: `#f${i}` });
      const { fonts } = await session.send('CSS.getPlatformFontsForNode', { nodeId });
      used.set(
        family,
        fonts.map((font) => font.familyName),
      );
    }
    return used;
  } finally {
    await browser.close();
  }
}

/** Generic families are keywords, not strings. */
function quoted(family: string): string {
  return /^(system-ui|serif|sans-serif|monospace|-apple-system|BlinkMacSystemFont)$/.test(family)
    ? family
    : `"${family}"`;
}

test.each(FONT_SETS)('asked of the browser, text on %s is set with that set', async (name) => {
  const set = FONT_SET[name];
  const named = { ...set.exact, ...set.standIns };
  const expected = new Map([
    ...Object.entries(named),
    ['system-ui', set.ui],
    ['sans-serif', set.sans],
    ['serif', set.serif],
    ['monospace', set.mono],
  ] as [string, string][]);
  const used = await fontsUsed(name, [...expected.keys()]);
  expect([...used].map(([family, fonts]) => [family, ...fonts])).toEqual([...expected]);
});
