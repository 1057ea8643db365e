/** What a corner is that nothing says otherwise of, and where a browser knows no other. */
const ROUND = 1;

/** The named forms as arguments of `superellipse()`. */
const NAMED: Readonly<Record<string, number>> = {
  round: ROUND,
  squircle: 2,
  square: Infinity,
  bevel: 0,
  scoop: -1,
  notch: -Infinity,
};

/** How a corner is shaped within its radii: the argument of `superellipse()` (CSS Borders 4, section 3), of a computed `corner-*-shape`. */
export function cornerShape(value: string): number {
  const [, argument = ''] = /^superellipse\((.+)\)$/.exec(value) ?? [];
  if (argument === 'infinity') return Infinity;
  if (argument === '-infinity') return -Infinity;
  return NAMED[value] ?? (argument === '' ? ROUND : Number.parseFloat(argument));
}

/**
 * Whether a point of a corner's rectangle is inside what the corner leaves of it: bulging ones by their superellipse, hollow ones by the
 * same seen from the outer corner.
 * @param x, y from the rectangle's inner corner (0) to its outer one (1)
 */
export function cornerHolds(shape: number, x: number, y: number): boolean {
  if (x > 1 || y > 1) return false;
  const power = 2 ** Math.abs(shape);
  if (power === Infinity) return shape > 0;
  return shape >= 0 ? x ** power + y ** power <= 1 : (1 - x) ** power + (1 - y) ** power >= 1;
}
