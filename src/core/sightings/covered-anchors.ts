import { px } from '../geometry/format.js';
import { signature } from '../identity/signature.js';
import { isAtTopEdge } from '../intent/bars.js';
import type { Scene } from '../layout/scene.js';
import { pxOf } from '../css/lengths.js';
import { FLAG_ANCHOR_TARGET } from '../layout/snapshot.js';
import type { NodeIndex } from '../layout/view.js';
import { onScreen } from './words.js';
import type { RenderView, Sighting } from './sighting.js';

/**
 * A bar that stays at the top of the screen hides what a link of the page leads to: its target is brought to the top edge
 * (CSS Scroll Snap 1, `scroll-margin` and `scroll-padding`), and the bar is already there.
 */
export function coveredAnchors(scene: Scene, render: RenderView): Sighting[] {
  const { view } = scene;
  const bars = barsAtTop(scene);
  if (bars.length === 0) return [];
  const { viewport, document: page } = view.snapshot;
  const most = Math.max(0, page.height - viewport.shownHeight);
  const padding = pxOf(view.style(view.root, 'scroll-padding-top')) ?? 0;
  const found = new Map<NodeIndex, Sighting>();
  const hides = new Map<NodeIndex, number>();
  for (let i = 0; i < view.count; i++) {
    if (!view.has(i, FLAG_ANCHOR_TARGET) || !scene.painted[i]) continue;
    const [bar] = bars.filter(({ node }) => !scene.contains(node, i) && !scene.contains(i, node));
    const first = firstLine(scene, i);
    if (!bar || !first) continue;
    const target = view.box(i).y - padding - (pxOf(view.style(i, 'scroll-margin-top')) ?? 0);
    // At its end a page stops scrolling, with the target lower on the screen; what the page begins with is free there.
    if (target > most || target < bar.height) continue;
    const hidden = Math.min(bar.height - (first.y - target), first.height);
    if (hidden < 0.5 * first.height) continue;
    hides.set(bar.node, (hides.get(bar.node) ?? 0) + 1);
    // Of the targets that a bar hides, the first one is shown.
    if (found.has(bar.node)) continue;
    found.set(bar.node, {
      node: bar.node,
      related: [],
      affected: [i],
      key: `anchor ${signature(view, bar.node)}`,
      rect: first,
      by: { axis: 'y', px: hidden },
      shows: {
        scrolled: target,
        fault: { ...view.box(bar.node), y: target, height: bar.height },
        lost: [{ ...first, height: hidden }],
      },
      severity: 'warning',
      message: `the ${px(bar.height)} high bar (scroll-padding-top or scroll-margin-top keeps it clear), ${onScreen(render)}.`,
    });
  }
  return [...found].map(([bar, sighting]) => ({
    ...sighting,
    message: `${toldOf(hides.get(bar) ?? 1)} brought to the top of the screen, under ${sighting.message}`,
  }));
}

function toldOf(targets: number): string {
  return targets === 1
    ? 'Hides what a link leads to: the target is'
    : `Hides what links lead to: ${targets} targets are`;
}

function barsAtTop(scene: Scene): { node: NodeIndex; height: number }[] {
  const bars: { node: NodeIndex; height: number }[] = [];
  const { view } = scene;
  for (let i = 0; i < view.count; i++) {
    if (scene.painted[i] && isAtTopEdge(scene, i))
      bars.push({ node: i, height: view.box(i).height + (pxOf(view.style(i, 'top')) ?? 0) });
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
