import { labelAt, labelsAcross } from '../core/sweep/ranges.js';
import type { Manifest } from '../run/manifest.js';

type Sizes = Pick<Manifest, 'sweep'>;

/** The names of the ranges of a page that spans of widths lie in; none where nothing names ranges. */
export function labelsOf(
  { sweep }: Sizes,
  page: string,
  spans: readonly (readonly [from: number, to: number])[],
): string[] {
  return labelsAcross(
    rangesOf(sweep, page),
    spans.map(([min, max]) => ({ min, max })),
  );
}

/** The name of the range of a page that a width lies in; null where it lies in none. */
export function labelOf({ sweep }: Sizes, page: string, width: number): string | null {
  return labelAt(rangesOf(sweep, page), width);
}

function rangesOf(sweep: Sizes['sweep'], page: string) {
  const { ranges = [] } = sweep?.find((each) => each.page === page && each.axis === 'width') ?? {};
  return ranges.map(({ label, span: [min, max] }) => ({ label, span: { min, max } }));
}
