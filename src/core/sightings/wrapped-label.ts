import type { NodeIndex } from '../layout/view.js';
import { byCulprit } from './by-culprit.js';
import { onScreen } from './words.js';
import type { RenderView, Sighting } from './sighting.js';

/** A control whose short label stands in two rows or more. */
export interface Wrapped {
  readonly culprit: NodeIndex;
  readonly text: string;
  readonly rows: number;
}

/** @param say a sentence about the worst of them, without its end */
export function wrappedSightings(
  render: RenderView,
  wrapped: readonly Wrapped[],
  say: (label: Wrapped) => string,
): Sighting[] {
  return byCulprit(render.view, wrapped).map(({ entries, fault }) => {
    const worst = entries.reduce((a, b) => (b.rows > a.rows ? b : a));
    const rect = render.view.box(worst.culprit);
    return { ...fault, rect, by: null, message: `${say(worst)}, ${onScreen(render)}.` };
  });
}
