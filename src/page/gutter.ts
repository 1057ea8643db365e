/**
 * Keeps the room of a scroll bar free, or gives it back. A picture of the whole page is taken in a viewport as high as the
 * page, which needs no scroll bar: without this the page would be laid out wider in it than on the screen.
 */
export function keepGutter(keep: boolean): void {
  const { style } = document.documentElement;
  if (!keep) style.removeProperty('scrollbar-gutter');
  else if (window.innerWidth > document.documentElement.clientWidth)
    style.setProperty('scrollbar-gutter', 'stable', 'important');
}
