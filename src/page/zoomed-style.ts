/** Looked up when it is first asked for: a row's columns are made without a page, too. */
let property: PropertyDescriptor | undefined;

/**
 * By how much an element's own computed lengths and scroll sizes are larger on the page (CSS Viewport 1, the `zoom` property): rectangles are
 * told in px of the page, those are not. Chromium tells it from 128 on. As of other properties, a form's field can't stand in for it.
 */
export function zoomOf(element: Element): number {
  property ??= Object.getOwnPropertyDescriptor(Element.prototype, 'currentCSSZoom');
  return property ? (property.get!.call(element) as number) : 1;
}

/** The computed style of an element or of what is generated in it, with lengths in px of the page. */
export function computedStyleOf(element: Element, pseudo?: string): CSSStyleDeclaration {
  const style = (element.ownerDocument.defaultView ?? window).getComputedStyle(element, pseudo);
  const zoom = zoomOf(element);
  return zoom === 1 ? style : inPagePx(style, zoom);
}

function inPagePx(style: CSSStyleDeclaration, zoom: number): CSSStyleDeclaration {
  return new Proxy(style, {
    get(target, name) {
      if (name === 'getPropertyValue')
        return (property: string) => zoomed(target.getPropertyValue(property), zoom);
      const value: unknown = Reflect.get(target, name, target);
      if (typeof value === 'string') return zoomed(value, zoom);
      return typeof value === 'function' ? (value.bind(target) as unknown) : value;
    },
  });
}

/** What a matrix moves by (CSS Transforms 1, section 12; 2, section 13): the last two of six numbers, of sixteen the thirteenth to fifteenth. */
const MATRIX = /^matrix(3d)?\((.*)\)$/;

function zoomed(value: string, zoom: number): string {
  // An address may hold anything.
  if (value.includes('url(')) return value;
  const times = (written: string) => String(Math.round(Number(written) * zoom * 1e4) / 1e4);
  const matrix = MATRIX.exec(value);
  if (matrix) {
    const numbers = matrix[2]!.split(', ');
    const moves = matrix[1] === undefined ? [4, 5] : [12, 13, 14];
    for (const at of moves) numbers[at] = times(numbers[at]!);
    return `matrix${matrix[1] ?? ''}(${numbers.join(', ')})`;
  }
  return value.replace(/-?[\d.]+(?=px)/g, times);
}
