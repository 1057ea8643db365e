/** Linear light of each sRGB value, 0 to 1 (IEC 61966-2-1). */
const LINEAR = Float64Array.from({ length: 256 }, (_, value) => {
  const share = value / 255;
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
});

/**
 * How different two colours look: the Euclidean distance in Oklab, which CSS Color 4 (section 11) names ΔEOK; 0.02 is about what can just be
 * seen beside each other, black to white is 1.
 * Source: Björn Ottosson, "A perceptual color space for image processing", 2020.
 * @param r1, g1, b1, r2, g2, b2 sRGB, 0 to 255
 */
export function colourDistance(
  r1: number,
  g1: number,
  b1: number,
  r2: number,
  g2: number,
  b2: number,
): number {
  toOklab(r1, g1, b1, FIRST);
  toOklab(r2, g2, b2, SECOND);
  const l = FIRST[0]! - SECOND[0]!;
  const a = FIRST[1]! - SECOND[1]!;
  const b = FIRST[2]! - SECOND[2]!;
  return Math.sqrt(l * l + a * a + b * b);
}

/** Two to this power is how many pairs are remembered. */
const KEPT_BITS = 14;

/**
 * Tells how different two colours look, and remembers it of pairs met lately: edges of letters are made of few. Colours are 24 bits, red
 * the lowest.
 */
export function rememberedDistance(): (first: number, second: number) => number {
  const size = 1 << KEPT_BITS;
  const [firsts, seconds] = [new Int32Array(size).fill(-1), new Int32Array(size)];
  const distances = new Float64Array(size);
  return (first, second) => {
    const at = Math.imul(first ^ Math.imul(second, 0x9e3779b1), 0x85ebca6b) >>> (32 - KEPT_BITS);
    if (firsts[at] !== first || seconds[at] !== second) {
      firsts[at] = first;
      seconds[at] = second;
      distances[at] = colourDistance(
        first & 255,
        (first >> 8) & 255,
        first >> 16,
        second & 255,
        (second >> 8) & 255,
        second >> 16,
      );
    }
    return distances[at]!;
  };
}

const FIRST = new Float64Array(3);
const SECOND = new Float64Array(3);

function toOklab(red: number, green: number, blue: number, into: Float64Array): void {
  const r = LINEAR[red]!;
  const g = LINEAR[green]!;
  const b = LINEAR[blue]!;
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  into[0] = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s;
  into[1] = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s;
  into[2] = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s;
}
