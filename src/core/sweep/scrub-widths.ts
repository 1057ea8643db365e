/** Between two pictures that a handle goes by, at most so far, CSS px. */
const STEP = 64;

/**
 * The sizes of a range that are pictured small, to be gone through by hand: both sides of each change, both ends, and regular steps between.
 * @param changes first sizes of new stretches
 */
export function scrubWidths(from: number, to: number, changes: readonly number[]): number[] {
  const corners = new Set([from, ...changes.flatMap((at) => [at - 1, at]), to]);
  const known = [...corners].filter((at) => at >= from && at <= to).sort((a, b) => a - b);
  return known.flatMap((corner, i) => {
    const next = known[i + 1] ?? corner;
    const parts = Math.max(1, Math.ceil((next - corner) / STEP));
    return Array.from({ length: parts }, (_, part) => Math.round(corner + ((next - corner) * part) / parts));
  });
}
