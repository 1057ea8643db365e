import type { FindingRecord, Manifest } from '../../run/manifest.js';
import { labelOf } from '../range-labels.js';

type Sweep = NonNullable<Manifest['sweep']>[number];
export type WidthShot = NonNullable<Sweep['shots']>[number];

/** What is known of a page at one of its widths. */
export interface AtWidth {
  readonly width: number;
  /** The picture of that layout that is nearest to it; null where there are none. */
  readonly shot: WidthShot | null;
  /** The layout's first and last width. */
  readonly stretch: readonly [from: number, to: number];
  /** What changed where this layout begins; empty for the first. */
  readonly change: string;
  /** The name of the range that it lies in; null where it lies in none. */
  readonly label: string | null;
  /** Errors and warnings that show at it. */
  readonly failing: readonly FindingRecord[];
}

export function atWidth(sweep: Sweep, findings: readonly FindingRecord[], width: number): AtWidth {
  const { page, from, to, edges } = sweep;
  const start = edges.filter((edge) => edge.width <= width).at(-1);
  const next = edges.find((edge) => edge.width > width);
  const stretch = [start?.width ?? from, (next?.width ?? to + 1) - 1] as const;
  return {
    width,
    stretch,
    shot: nearest(
      (sweep.shots ?? []).filter((shot) => shot.width >= stretch[0] && shot.width <= stretch[1]),
      width,
    ),
    change: start?.message ?? '',
    label: labelOf({ sweep: [sweep] }, page, width),
    failing: findings.filter(
      ({ severity, waived, spans }) =>
        severity !== 'notice' &&
        !waived &&
        (spans?.[page] ?? []).some(([first, last]) => width >= first && width <= last),
    ),
  };
}

/** The first width of the next layout, or of the one before; the end of the range where there is none. */
export function nextChange({ from, to, edges }: Sweep, width: number, by: 1 | -1): number {
  const starts = [from, ...edges.map((edge) => edge.width)];
  return by > 0
    ? (starts.find((start) => start > width) ?? to)
    : (starts.filter((start) => start < width).at(-1) ?? from);
}

/** The next width that has a picture; the same one where there is none. */
export function nextShot({ shots = [] }: Sweep, width: number, by: 1 | -1): number {
  const found =
    by > 0 ? shots.find((shot) => shot.width > width) : shots.filter((shot) => shot.width < width).at(-1);
  return found?.width ?? width;
}

function nearest(shots: readonly WidthShot[], width: number): WidthShot | null {
  return shots.reduce<WidthShot | null>(
    (best, shot) =>
      best === null || Math.abs(shot.width - width) < Math.abs(best.width - width) ? shot : best,
    null,
  );
}
