import { area, intersect, type Rect } from '../../geometry/rect.js';
import { cut, type Clips } from '../../layout/clips.js';
import { sceneOf } from '../../layout/scene.js';
import type { NodeIndex } from '../../layout/view.js';
import { paints } from '../../layout/visible.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';

/** Of an element that is larger than the screen, this share of the screen must show it. */
const LARGE_SHARE = 0.5;
/** Rounding of layout, CSS px. */
const TOLERANCE = 1;

/**
 * Something that the configuration calls essential is not in the first screen. How it measures:
 * docs/rules/essential-out-of-sight.md.
 */
export const essentialOutOfSight: Rule = {
  meta: {
    name: 'essential-out-of-sight',
    family: 'viewport',
    severity: 'error',
    summary: 'something named as essential is not in the first screen',
  },
  check(render) {
    if (render.essentials.length === 0) return [];
    const { clips } = sceneOf(render.view);
    return render.essentials.flatMap((selector) => sightingOf(render, clips, selector));
  },
};

function sightingOf(render: RenderView, clips: Clips, selector: string): Sighting[] {
  const { view } = render;
  const { shownWidth: width, shownHeight: height } = view.snapshot.viewport;
  const screen: Rect = { x: 0, y: 0, width, height };
  const nodes = view.snapshot.matches.find((match) => match.selector === selector)?.nodes ?? [];
  const seen = nodes.map((node) => ({
    node,
    box: paints(view, node) ? cut(view.box(node), clips.shownBox(node)) : null,
  }));
  if (seen.some(({ box }) => box !== null && isInSight(box, screen))) return [];
  const [nearest] = seen.filter((entry) => entry.box !== null).sort((a, b) => a.box!.y - b.box!.y);
  const found = (node: NodeIndex, rect: Rect, px: number | null, message: string): Sighting[] => [
    { node, related: [], key: selector, rect, by: px === null ? null : { axis: 'y', px }, message },
  ];
  if (!nearest) {
    const why = nodes.length === 0 ? 'is not on the page' : 'is on the page, but not shown';
    return found(nodes[0] ?? view.root, screen, null, `The essential ${selector} ${why}.`);
  }
  const box = nearest.box!;
  const below = box.y + box.height - height;
  if (below > TOLERANCE) {
    const end = `ends ${Math.round(below)} px below the first screen, which is ${height} px high`;
    return found(nearest.node, box, below, `The essential ${selector} ${end}.`);
  }
  return found(nearest.node, box, null, `The essential ${selector} lies beside the first screen.`);
}

/** Wholly in the screen where it fits in it, else over most of it. */
function isInSight(box: Rect, screen: Rect): boolean {
  const shown = intersect(box, screen);
  if (!shown) return false;
  const fits = box.width <= screen.width + TOLERANCE && box.height <= screen.height + TOLERANCE;
  if (!fits) return area(shown) >= LARGE_SHARE * area(screen);
  return shown.width >= box.width - TOLERANCE && shown.height >= box.height - TOLERANCE;
}
