/** Numbers from a seed, the same everywhere: mulberry32 (Tommy Ettinger, public domain). */
export function randomOf(seed) {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return {
    next,
    /** A whole number from least to most. */
    int: (least, most) => least + Math.floor(next() * (most - least + 1)),
    pick: (list) => list[Math.floor(next() * list.length)],
  };
}
