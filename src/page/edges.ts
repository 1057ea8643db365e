export type Edges = readonly [top: number, right: number, bottom: number, left: number];

export const NO_EDGES: Edges = [0, 0, 0, 0];

/** The four used lengths of a box property (`padding`, `margin`, `border-width`), CSS px, from its shorthand: one reading. */
export function edgesOf(style: CSSStyleDeclaration, property: 'padding' | 'margin'): Edges {
  return edgesIn(style.getPropertyValue(property));
}

/**
 * The used margins of an element. What is left for `margin: auto` beside a block that is too wide for its container is less than nothing
 * (CSS 2.1, section 10.3.3), and moves nothing: such a margin is 0.
 */
export function marginsOf(style: CSSStyleDeclaration, element: Element): Edges {
  const [top, right, bottom, left] = edgesOf(style, 'margin');
  if (right >= 0 && left >= 0) return [top, right, bottom, left];
  const set = element.computedStyleMap();
  const pulls = (side: 'left' | 'right', px: number) =>
    px < 0 && String(set.get(`margin-${side}`)) === 'auto' ? 0 : px;
  return [top, pulls('right', right), bottom, pulls('left', left)];
}

/** The four lengths of a shorthand as it is written in a computed style. */
export function edgesIn(written: string): Edges {
  if (written === '0px' || written === '') return NO_EDGES;
  const parts = written.split(' ').map((part) => Number.parseFloat(part) || 0);
  const [top = 0, right = top, bottom = top, left = right] = parts;
  return [top, right, bottom, left];
}
