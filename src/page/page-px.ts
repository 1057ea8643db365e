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

/** By how much transforms draw lengths larger than styles tell them: what an element stands in, and its own with it. */
export interface Drawn {
  readonly outer: number;
  readonly own: number;
}

export const AS_TOLD: Drawn = { outer: 1, own: 1 };

/** Along one axis more than along the other, as a share. */
const LEAST_DIFFERENCE = 0.01;

/** By how much a matrix and a `scale` enlarge what they are given alike along both axes; 1 where along one more than along the other. */
export function enlargedBy(transform: string, scale: string): number {
  const { a, b, c, d, is2D } = new DOMMatrixReadOnly(transform === 'none' ? '' : transform);
  const [x = 1, y = x] = scale === 'none' ? [] : scale.split(' ').map(Number);
  const [across, down] = [x * Math.hypot(a, b), y * Math.hypot(c, d)].map(Math.abs) as [number, number];
  return is2D && across > 0 && Math.abs(across - down) < LEAST_DIFFERENCE * across ? across : 1;
}

/** The computed style of an element or of what is generated in it, with lengths in px of the page. */
export function computedStyleOf(
  element: Element,
  { outer, own }: Drawn,
  pseudo?: string,
): CSSStyleDeclaration {
  const style = (element.ownerDocument.defaultView ?? window).getComputedStyle(element, pseudo);
  const zoom = zoomOf(element);
  return zoom * outer === 1 && zoom * own === 1 ? style : inPagePx(style, zoom * outer, zoom * own);
}

/** They are lengths of what an element stands in: a transform leaves its margins and offsets as they are. */
const OUTER = /^(margin|left|right|top|bottom|inset|transform$|translate)/;

function inPagePx(style: CSSStyleDeclaration, outer: number, own: number): CSSStyleDeclaration {
  const converted = (value: string, name: string) => enlarged(value, OUTER.test(name) ? outer : own);
  return new Proxy(style, {
    get(target, name) {
      if (name === 'getPropertyValue')
        return (property: string) => converted(target.getPropertyValue(property), property);
      const value: unknown = Reflect.get(target, name, target);
      if (typeof value === 'string') return converted(value, String(name));
      return typeof value === 'function' ? (value.bind(target) as unknown) : value;
    },
  });
}

/** What a matrix moves by (CSS Transforms 1, section 12; 2, section 13): the last two of six numbers, of sixteen the thirteenth to fifteenth. */
const MATRIX = /^matrix(3d)?\((.*)\)$/;

function enlarged(value: string, factor: number): string {
  // An address may hold anything.
  if (value.includes('url(')) return value;
  const times = (written: string) => String(Math.round(Number(written) * factor * 1e4) / 1e4);
  const matrix = MATRIX.exec(value);
  if (matrix) {
    const numbers = matrix[2]!.split(', ');
    const moves = matrix[1] === undefined ? [4, 5] : [12, 13, 14];
    for (const at of moves) numbers[at] = times(numbers[at]!);
    return `matrix${matrix[1] ?? ''}(${numbers.join(', ')})`;
  }
  return value.replace(/-?[\d.]+(?=px)/g, times);
}
