export type Edges = readonly [top: number, right: number, bottom: number, left: number];

export const NO_EDGES: Edges = [0, 0, 0, 0];

/** The four used lengths of a box property (`padding`, `margin`, `border-width`), CSS px, from its shorthand: one reading. */
export function edgesOf(style: CSSStyleDeclaration, property: 'padding' | 'margin'): Edges {
  return edgesIn(style.getPropertyValue(property));
}

/** The four lengths of a shorthand as it is written in a computed style. */
export function edgesIn(written: string): Edges {
  if (written === '0px' || written === '') return NO_EDGES;
  const parts = written.split(' ').map((part) => Number.parseFloat(part) || 0);
  const [top = 0, right = top, bottom = top, left = right] = parts;
  return [top, right, bottom, left];
}
