import type { WireSnapshot } from '../core/layout/wire.js';

type PageFacts = Pick<
  WireSnapshot,
  | 'url'
  | 'title'
  | 'viewport'
  | 'viewportMeta'
  | 'scroll'
  | 'document'
  | 'direction'
  | 'rootOverflow'
  | 'pageFonts'
>;

/** What a snapshot says of the page as a whole. */
export function pageFacts(): PageFacts {
  const root = document.documentElement;
  const rootStyle = getComputedStyle(root);
  const scroller = document.scrollingElement ?? root;
  const direction = rootDirection(rootStyle);
  return {
    url: location.href,
    title: document.title,
    viewport: {
      width: root.clientWidth,
      height: root.clientHeight,
      shownWidth: window.innerWidth,
      shownHeight: window.innerHeight,
      scale: window.visualViewport?.scale ?? 1,
      scrollbar: scrollBarWidth(root),
    },
    viewportMeta: viewportMeta(),
    scroll: { x: window.scrollX, y: window.scrollY },
    document: scrollableArea(root, scroller, direction),
    direction,
    rootOverflow: viewportOverflow(rootStyle),
    pageFonts: loadedFonts(),
  };
}

/** CSS Overflow 3, section 3.3: a page that begins on the right goes on to the left. */
function scrollableArea(
  { clientWidth }: Element,
  { scrollWidth: width, scrollHeight: height }: Element,
  direction: PageFacts['direction'],
): PageFacts['document'] {
  const left = direction === 'rtl' ? Math.min(0, clientWidth - width) : 0;
  return { width, height, ...(left !== 0 && { left }) };
}

/** CSS Viewport 1, section 4: of several viewport meta tags the last one counts. */
export function viewportMeta(): string | null {
  const tags = document.querySelectorAll('meta[name="viewport" i][content]');
  return tags[tags.length - 1]?.getAttribute('content') ?? null;
}

/** A page shown shrunk has a wider window than layout, and no scroll bar. */
function scrollBarWidth(root: Element): number {
  const width = window.innerWidth - root.clientWidth;
  return width > 0 && width <= 25 ? width : 0;
}

function loadedFonts(): string[] {
  const families = new Set<string>();
  for (const face of document.fonts) {
    if (face.status === 'loaded') families.add(face.family.replace(/^["']|["']$/g, ''));
  }
  return [...families];
}

/** CSS Overflow 3, section 3.3: the viewport takes the root's overflow or, when that is visible, the body's. */
function viewportOverflow(rootStyle: CSSStyleDeclaration): { x: string; y: string } {
  const own = { x: rootStyle.overflowX, y: rootStyle.overflowY };
  if (own.x !== 'visible' || own.y !== 'visible') return own;
  const body = document.body as HTMLElement | null;
  if (!body) return own;
  const style = getComputedStyle(body);
  return { x: style.overflowX, y: style.overflowY };
}

/**
 * The side on which a page begins: by its lines, or by its blocks where lines run from top to bottom. Both are the body's, when there is one
 * (CSS Writing Modes 4, section 8).
 */
function rootDirection(rootStyle: CSSStyleDeclaration): 'ltr' | 'rtl' {
  const body = document.body as HTMLElement | null;
  const { direction, writingMode } = body ? getComputedStyle(body) : rootStyle;
  if (writingMode.startsWith('horizontal')) return direction === 'rtl' ? 'rtl' : 'ltr';
  return writingMode.endsWith('-rl') ? 'rtl' : 'ltr';
}
