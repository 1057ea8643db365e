import { unreadSheets } from './style-index.js';
import { readViewportMeta } from '../core/layout/viewport-meta.js';
import { viewportMeta } from './page-facts.js';
import { inlineStyleOf, parentElementOf } from './own-accessors.js';

/** What `settle` met that was still moving when its time was up; empty when the page came to rest. */
export interface SettleResult {
  readonly bounds: string[];
}

const LAYOUT_BOUND_MS = 3_000;
const RESIZE_BOUND_MS = 1_000;
const FONTS_BOUND_MS = 5_000;
const PICTURES_BOUND_MS = 5_000;
const LOADING_SCREEN_BOUND_MS = 3_000;
/** An endless page grows while it is scrolled; this many screens are enough to bring in what is lazy. */
const MAX_SCREENS = 60;

const frame = () => new Promise<void>((resolve) => requestAnimationFrame(() => resolve()));

/** Resolves to false when `promise` has not settled after `ms`. */
async function within(promise: Promise<unknown>, ms: number): Promise<boolean> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<boolean>((resolve) => (timer = setTimeout(() => resolve(false), ms)));
  const done = promise.then(
    () => true,
    () => true,
  );
  const result = await Promise.race([done, late]);
  clearTimeout(timer);
  return result;
}

/** Scrolls to a height and waits until what follows the scrolling has. @returns where the page was before */
export async function scrolledTo(y: number): Promise<number> {
  const before = window.scrollY;
  window.scrollTo({ left: window.scrollX, top: y, behavior: 'instant' });
  await frame();
  await frame();
  return before;
}

/**
 * Brings lazy content in by scrolling down one screen at a time, then goes back: of a page to its top, of the part that an application scrolls
 * in its page's place to where that was.
 */
export async function scrollThrough(): Promise<SettleResult> {
  const page = document.scrollingElement ?? document.documentElement;
  const isWhole = await scrolledDown(page, window, window.innerHeight, 0);
  const part = page.scrollHeight <= window.innerHeight + 1 ? partInPlaceOfPage() : null;
  const isPartWhole = part === null || (await scrolledDown(part, part, part.clientHeight, part.scrollTop));
  return {
    bounds: isWhole && isPartWhole ? [] : [`the page was scrolled ${MAX_SCREENS} screens down and went on`],
  };
}

/** @returns whether its end was come to */
async function scrolledDown(
  content: Element,
  scroller: Window | Element,
  height: number,
  backTo: number,
): Promise<boolean> {
  const step = Math.max(200, height);
  const left = content.scrollLeft;
  const to = (top: number) => scroller.scrollTo({ left, top, behavior: 'instant' });
  let screens = 0;
  let isWhole = true;
  for (let y = step; y < content.scrollHeight - 1; y += step) {
    if (++screens > MAX_SCREENS) {
      isWhole = false;
      break;
    }
    to(y);
    await frame();
  }
  if (screens > 0) {
    to(content.scrollHeight);
    await frame();
    await frame();
  }
  to(backTo);
  await frame();
  return isWhole;
}

/** Of the window, what scrolls in the page's place takes so much at the least. */
const LEAST_SHARE = 0.5;

/** The largest scroll container of a page that does not scroll itself, where it takes much of the window. */
function partInPlaceOfPage(): Element | null {
  let [found, largest]: [Element | null, number] = [
    null,
    LEAST_SHARE * window.innerWidth * window.innerHeight,
  ];
  for (const element of document.querySelectorAll('body *')) {
    const { clientWidth, clientHeight, scrollHeight } = element;
    const size = clientWidth * Math.min(clientHeight, window.innerHeight);
    if (scrollHeight <= clientHeight + 1 || size <= largest) continue;
    if (/auto|scroll/.test(getComputedStyle(element).overflowY)) [found, largest] = [element, size];
  }
  return found;
}

/**
 * Waits for fonts, pictures and two frames with the same layout; ends animations and hides the caret.
 * @param mostMs for each of the waits
 */
export async function settle(mostMs = Infinity): Promise<SettleResult> {
  const bounds: string[] = [];
  const fonts = document.fonts.ready;
  if (!(await within(fonts, Math.min(FONTS_BOUND_MS, mostMs)))) bounds.push('fonts were still loading');
  if (!(await within(picturesDecoded(), Math.min(PICTURES_BOUND_MS, mostMs))))
    bounds.push('pictures were still loading');

  if (!(await loadingScreenGone(Math.min(LOADING_SCREEN_BOUND_MS, mostMs))))
    bounds.push('a loading screen still lay over the page');

  await layoutAtRest(bounds);
  hideCaret();
  return { bounds };
}

/** Waits until the layout is the same twice in a row. @param pause what is waited for first between the two; later it is a frame */
async function layoutAtRest(bounds: string[], pause = frame): Promise<void> {
  const until = performance.now() + LAYOUT_BOUND_MS;
  let before = '';
  for (;;) {
    endAnimations();
    const now = layoutDigest();
    if (now === before) break;
    if (performance.now() > until) {
      bounds.push('the layout was still moving');
      break;
    }
    await (before === '' ? pause() : frame());
    before = now;
  }
}

/** The next task: after the observers and animation callbacks of the frame under way. */
const endOfFrame = () =>
  new Promise<void>((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });

/** What a device's window is to be like, CSS px. */
export interface WindowSize {
  readonly width: number;
  readonly height: number;
  /** Whether the page may be laid out in another width and shown shrunk, as on phones. */
  readonly mobile: boolean;
}

export interface ResizeResult extends SettleResult {
  /** How far the page's viewport meta tag asks to be shown enlarged at first; null where it does not. */
  readonly initialScale: number | null;
  /** The addresses of style sheets that the page can't read, since they are of another origin. */
  readonly unread: readonly string[];
}

/** Waits until the page has taken a new size of its window in and is at rest in it, at its top. */
export async function resized({ width, height, mobile }: WindowSize): Promise<ResizeResult> {
  const bounds: string[] = [];
  const until = performance.now() + RESIZE_BOUND_MS;
  const hasSize = () => {
    const { visualViewport: shown } = window;
    if (!mobile || !shown) return window.innerWidth === width && window.innerHeight === height;
    return (
      Math.abs(shown.width * shown.scale - width) < 2 && Math.abs(shown.height * shown.scale - height) < 2
    );
  };
  // The page hears of its new size with the next frame.
  do await frame();
  while (!hasSize() && performance.now() < until);
  window.scrollTo({ left: 0, top: 0, behavior: 'instant' });
  if (document.fonts.status !== 'loaded' && !(await within(document.fonts.ready, FONTS_BOUND_MS)))
    bounds.push('fonts were still loading');
  // The frame that brought the size in has told the page's scripts of it; what they do then is done when it is over.
  await layoutAtRest(bounds, endOfFrame);
  const { initialScale } = readViewportMeta(viewportMeta() ?? '');
  return { bounds, initialScale, unread: unreadSheets(document) };
}

async function loadingScreenGone(mostMs: number): Promise<boolean> {
  const until = performance.now() + mostMs;
  while (isBehindLoadingScreen()) {
    if (performance.now() > until) return false;
    endAnimations();
    await frame();
  }
  return true;
}

/** A raised layer fixed over the whole screen, with hardly a word and nothing to press, over a page that has more to say. */
function isBehindLoadingScreen(): boolean {
  const { innerWidth, innerHeight } = window;
  for (let at = document.elementFromPoint(innerWidth / 2, innerHeight / 2); at; at = parentElementOf(at)) {
    const style = getComputedStyle(at);
    if (style.position !== 'fixed' || !(Number.parseInt(style.zIndex) > 0)) continue;
    const { left, top, right, bottom } = at.getBoundingClientRect();
    if (left > 0 || top > 0 || right < innerWidth || bottom < innerHeight) continue;
    const words = (at as HTMLElement).innerText.trim().length;
    const isBare =
      words <= 40 && at.querySelector('a, button, input, select, textarea, iframe, form, canvas') === null;
    return isBare && document.body.innerText.length > words + 80;
  }
  return false;
}

function picturesDecoded(): Promise<unknown> {
  const pictures = [...document.images].filter((image) => image.currentSrc !== '');
  return Promise.allSettled(pictures.map((image) => image.decode()));
}

/** Finite animations go to their end, endless ones to their start; videos and animated pictures stand still. */
function endAnimations(): void {
  for (const animation of document.getAnimations()) {
    try {
      const end = animation.effect?.getComputedTiming().endTime;
      if (end === Infinity) {
        animation.pause();
        animation.currentTime = 0;
      } else {
        animation.finish();
      }
    } catch {
      // An animation without a target or with a timeline of its own refuses; it stays where it is.
    }
  }
  for (const media of document.querySelectorAll('video, audio')) (media as HTMLMediaElement).pause();
}

/** A text that is the same exactly when every element stands where it stood. */
function layoutDigest(): string {
  let sum = 0;
  let count = 0;
  for (const element of document.querySelectorAll('*')) {
    if (count++ > 20_000) break;
    const rect = element.getBoundingClientRect();
    sum = (sum * 31 + rect.x * 7 + rect.y * 13 + rect.width * 17 + rect.height * 19) % 1e12;
  }
  const scroller = document.scrollingElement ?? document.documentElement;
  return `${count} ${sum} ${scroller.scrollWidth} ${scroller.scrollHeight}`;
}

function hideCaret(): void {
  const active = document.activeElement;
  if (active instanceof HTMLElement)
    inlineStyleOf(active).setProperty('caret-color', 'transparent', 'important');
}
