/** One picture of a film: what size the window has, or how far it is scrolled, and for how long it is shown. */
export interface FilmShot {
  /** CSS px: a width, or a scroll position. */
  readonly at: number;
  readonly ms: number;
}

export interface FilmPace {
  /** CSS px a second, at full speed. */
  readonly pxPerSecond: number;
  readonly framesPerSecond: number;
  /** How long it stays at a stop, ms. */
  readonly stopMs: number;
}

/**
 * The pictures of a film that runs from one size to another, either way, with a stop at each change. Between two stops it starts and ends
 * slowly, and is as long on its way as at its full pace.
 * @param changes first sizes of new stretches: it stops on both sides of each
 */
export function filmShots(from: number, to: number, changes: readonly number[], pace: FilmPace): FilmShot[] {
  const [low, high] = [Math.min(from, to), Math.max(from, to)];
  const stops = [low, ...changes.filter((at) => at > low && at <= high).flatMap((at) => [at - 1, at]), high];
  const path = [...new Set(stops)].sort((a, b) => (from < to ? a - b : b - a));
  const frameMs = 1000 / pace.framesPerSecond;
  const shots: FilmShot[] = [{ at: path[0]!, ms: pace.stopMs }];
  path.slice(1).forEach((stop, i) => {
    const start = path[i]!;
    const way = Math.abs(stop - start);
    const frames = Math.max(1, Math.round((way / pace.pxPerSecond) * pace.framesPerSecond));
    for (let frame = 1; frame < frames; frame++) {
      const at = Math.round(start + (stop - start) * eased(frame / frames));
      if (at !== shots.at(-1)!.at && at !== stop) shots.push({ at, ms: frameMs });
    }
    // The first of two stops that are a px apart is passed at once.
    const next = path[i + 2];
    const isBeforeChange = next !== undefined && Math.abs(next - stop) === 1;
    shots.push({ at: stop, ms: isBeforeChange ? pace.stopMs / 2 : pace.stopMs });
  });
  return shots;
}

/** Smoothstep: slow at both ends. */
function eased(share: number): number {
  return share * share * (3 - 2 * share);
}
