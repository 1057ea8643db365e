import type { Device } from '../../core/profile/profile.js';

interface Facts {
  readonly vendor: string;
  readonly hints: boolean;
  readonly apple: boolean;
  readonly mobile: boolean;
  /** CSS px. */
  readonly screen: { readonly width: number; readonly height: number };
  readonly textSize: string;
}

/**
 * A script for the start of every document: what the protocol can't set about `navigator` and `window`. It runs before
 * any of the page's own.
 */
export function disguise({ agent, platform, mobile, screen, conditions }: Device): string {
  const scale = conditions.textScale ?? 1;
  const facts: Facts = {
    mobile,
    screen,
    vendor: agent.vendor,
    hints: agent.hints !== null,
    apple: platform === 'ios',
    // A phone enlarges whatever size a page asks for (CSS Text Size Adjust); a desktop the size that pages start from.
    textSize: mobile && scale !== 1 ? `${Math.round(scale * 1000) / 10}%` : '',
  };
  return `(${script.toString()})(${JSON.stringify(facts)})`;
}

/* Runs in the page, as text. */
function script(facts: Facts): void {
  const page = globalThis as unknown as {
    navigator: object;
    chrome?: unknown;
    innerWidth: number;
    innerHeight: number;
  };
  takeUpPixelRatio();
  const prototype = Object.getPrototypeOf(page.navigator) as object;
  const answer = (name: string, value: unknown) => {
    Object.defineProperty(prototype, name, { get: () => value, configurable: true, enumerable: true });
  };
  answer('vendor', facts.vendor);
  answer('webdriver', false);
  if (!facts.hints) delete (prototype as Record<string, unknown>)['userAgentData'];
  if (facts.apple) delete page.chrome;
  // Without a screen there is no window round the page; the device's fills its own.
  const outer = { Width: facts.screen.width, Height: facts.screen.height };
  for (const side of ['Width', 'Height'] as const) {
    // A page that is laid out wider than a phone's screen is shown shrunk: the window does not grow with it.
    const get = () => (facts.mobile ? outer[side] : Math.max(outer[side], page[`inner${side}`]));
    Object.defineProperty(page, `outer${side}`, { get, configurable: true, enumerable: true });
  }
  if (facts.textSize !== '') {
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(`:root { text-size-adjust: ${facts.textSize} !important; }`);
    document.adoptedStyleSheets = [sheet];
  }

  /*
   * Chromium sets fonts up for the pixel ratio of the last layout that its process did. What asks for a font before the
   * page's first layout (`ch`, `lh`, a date's field) would get the metrics of another ratio, and every line in it would
   * stand 1 px higher or lower: by chance, since a layout often comes first. So one comes first.
   */
  function takeUpPixelRatio(): void {
    if (document.documentElement as Element | null) return;
    const root = document.createElementNS('http://www.w3.org/1999/xhtml', 'html');
    document.append(root);
    root.getBoundingClientRect();
    root.remove();
  }
}
