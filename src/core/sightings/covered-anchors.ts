import { px } from '../geometry/format.js';
import type { Rect } from '../geometry/rect.js';
import { signature } from '../identity/signature.js';
import { isAtTopEdge } from '../intent/bars.js';
import type { Scene } from '../layout/scene.js';
import { pxOf } from '../css/lengths.js';
import { isContentOf } from '../layout/scrollers.js';
import { mainPortOf, type Scrollport } from '../layout/scrollport.js';
import { FLAG_ANCHOR_TARGET } from '../layout/snapshot.js';
import type { NodeIndex } from '../layout/view.js';
import { onScreen } from './words.js';
import type { RenderView, Sighting } from './sighting.js';

interface Bar {
  readonly node: NodeIndex;
  readonly height: number;
}

/** What a link leads to, where the page is then scrolled to, and how much of its first line is hidden, CSS px. */
interface Target {
  readonly node: NodeIndex;
  readonly top: number;
  readonly first: Rect;
  readonly height: number;
}

/**
 * A bar that stays at the top of the screen hides what a link of the page leads to: its target is brought to the top edge
 * (CSS Scroll Snap 1, `scroll-margin` and `scroll-padding`), and the bar is already there.
 */
export function coveredAnchors(scene: Scene, render: RenderView): Sighting[] {
  const { view } = scene;
  const port = mainPortOf(view);
  const bars = port ? barsAtTop(scene, port) : [];
  if (!port || bars.length === 0) return [];
  const { node, origin, most } = port;
  const padding = pxOf(view.style(node < 0 ? view.root : node, 'scroll-padding-top')) ?? 0;
  const hidden = new Map<Bar, Target[]>();
  for (let i = 0; i < view.count; i++) {
    if (!view.has(i, FLAG_ANCHOR_TARGET) || !scene.painted[i]) continue;
    if (node >= 0 && !isContentOf(view, node, i)) continue;
    const [bar] = bars.filter((each) => !scene.contains(each.node, i) && !scene.contains(i, each.node));
    const first = firstLine(scene, i);
    if (!bar || !first) continue;
    const top = view.box(i).y - origin - padding - (pxOf(view.style(i, 'scroll-margin-top')) ?? 0);
    // At its end a page stops scrolling, with the target lower on the screen; what the page begins with is free there.
    if (top > most || top < bar.height) continue;
    const height = Math.min(bar.height - (first.y - origin - top), first.height);
    if (height < 0.5 * first.height) continue;
    hidden.set(bar, [...(hidden.get(bar) ?? []), { node: i, top, first, height }]);
  }
  return [...hidden].map(([bar, targets]) => sighting(scene, render, bar, targets, node < 0));
}

/** Of the targets that a bar hides, the first one is shown. */
function sighting(
  scene: Scene,
  render: RenderView,
  bar: Bar,
  targets: readonly Target[],
  isOfPage: boolean,
): Sighting {
  const { view } = scene;
  const { node, top, first, height } = targets[0]!;
  return {
    node: bar.node,
    related: [],
    affected: [node],
    key: `anchor ${signature(view, bar.node)}`,
    rect: first,
    by: { axis: 'y', px: height },
    shows: {
      ...(isOfPage && { scrolled: top, fault: { ...view.box(bar.node), y: top, height: bar.height } }),
      lost: [{ ...first, height }],
    },
    severity: 'warning',
    message: `${toldOf(targets.length)} brought to the top of the screen, under the ${px(bar.height)} high bar (scroll-padding-top or scroll-margin-top keeps it clear), ${onScreen(render)}.`,
  };
}

function toldOf(targets: number): string {
  return targets === 1
    ? 'Hides what a link leads to: the target is'
    : `Hides what links lead to: ${targets} targets are`;
}

function barsAtTop(scene: Scene, port: Scrollport): Bar[] {
  const bars: Bar[] = [];
  const { view } = scene;
  for (let i = 0; i < view.count; i++) {
    if (!scene.painted[i] || !isAtTopEdge(scene, i, port)) continue;
    const sticks = port.node < 0 || view.style(i, 'position') === 'sticky';
    const top = sticks ? (pxOf(view.style(i, 'top')) ?? 0) : view.box(i).y - port.origin - port.scrolled;
    bars.push({ node: i, height: view.box(i).height + top });
  }
  return bars;
}

function firstLine(scene: Scene, i: NodeIndex) {
  const { view } = scene;
  for (let at = i; at <= scene.lastOf(i); at++) {
    const [line] = view.linesOf(at);
    if (line !== undefined && scene.painted[at]) return view.lineBox(line);
  }
  return null;
}
