declare global {
  /** The listener that the engine puts into every document before its scripts asks it what to do with an event. */
  var isopticOnResize: ((event: Event) => void) | undefined;
}

/**
 * Holds the page as it is while a picture of the whole of it is taken, or lets go of it. The picture is taken in a viewport as
 * high as the page, which needs no scroll bar: without the room of one kept free the page would be laid out wider in it than
 * on the screen. And the page hears nothing of that viewport: what it does once its window is resized is not what was measured. On the
 * way there the viewport is a px wide for a moment: what a media query changes by that must not come back by a transition.
 */
export function holdForPicture(hold: boolean): void {
  holdTransitions(hold);
  const { style } = document.documentElement;
  const { innerWidth: width, innerHeight: height } = window;
  if (!hold) {
    style.removeProperty('scrollbar-gutter');
    // The event may come after the picture, when the window has its size again.
    globalThis.isopticOnResize = (event) => {
      if (window.innerWidth === width && window.innerHeight === height) event.stopImmediatePropagation();
      else globalThis.isopticOnResize = undefined;
    };
    return;
  }
  globalThis.isopticOnResize = (event) => event.stopImmediatePropagation();
  if (width > document.documentElement.clientWidth)
    style.setProperty('scrollbar-gutter', 'stable', 'important');
}

let still: CSSStyleSheet | null = null;

function holdTransitions(hold: boolean): void {
  const others = [...document.adoptedStyleSheets].filter((sheet) => sheet !== still);
  // The styles of the viewport that is there again are worked out while nothing can move.
  if (still) document.documentElement.getBoundingClientRect();
  still = null;
  if (hold) {
    still = new CSSStyleSheet();
    still.replaceSync('*, ::before, ::after { transition: none !important }');
  }
  document.adoptedStyleSheets = still ? [...others, still] : others;
}
