/** Tables of more cells are not filled: the lists are then aligned by what is equal. */
const MOST_CELLS = 40_000;

/**
 * Pairs of two lists in their order whose scores together are the highest; a pair scores at least `least`.
 * Source: Needleman and Wunsch, "A general method applicable to the search for similarities", 1970, with gaps that cost nothing.
 * @param score 0 to 1
 * @returns positions in both lists, rising; null where the lists are too long for it
 */
export function alignedInOrder(
  lengthA: number,
  lengthB: number,
  score: (a: number, b: number) => number,
  least: number,
): [a: number, b: number, score: number][] | null {
  if (lengthA * lengthB > MOST_CELLS) return null;
  const width = lengthB + 1;
  const best = new Float64Array((lengthA + 1) * width);
  const scores = new Float64Array(lengthA * lengthB);
  for (let a = lengthA - 1; a >= 0; a--) {
    for (let b = lengthB - 1; b >= 0; b--) {
      const own = score(a, b);
      scores[a * lengthB + b] = own;
      const paired = own >= least ? own + best[(a + 1) * width + b + 1]! : 0;
      best[a * width + b] = Math.max(paired, best[(a + 1) * width + b]!, best[a * width + b + 1]!);
    }
  }
  const pairs: [number, number, number][] = [];
  for (let a = 0, b = 0; a < lengthA && b < lengthB;) {
    const own = scores[a * lengthB + b]!;
    const here = best[a * width + b]!;
    if (own >= least && here === own + best[(a + 1) * width + b + 1]!) pairs.push([a++, b++, own]);
    else if (here === best[(a + 1) * width + b]!) a++;
    else b++;
  }
  return pairs;
}

/**
 * Of numbers in a list, the positions of a longest rising run, in order.
 * Source: Fredman, "On computing the length of longest increasing subsequences", 1975.
 */
export function longestRising(numbers: readonly number[]): number[] {
  const tails: number[] = [];
  const before: number[] = [];
  for (const [at, number] of numbers.entries()) {
    let low = 0;
    let high = tails.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (numbers[tails[middle]!]! <= number) low = middle + 1;
      else high = middle;
    }
    before[at] = low > 0 ? tails[low - 1]! : -1;
    tails[low] = at;
  }
  const kept: number[] = [];
  for (let at = tails.at(-1) ?? -1; at >= 0; at = before[at]!) kept.push(at);
  return kept.reverse();
}
