import { px } from '../geometry/format.js';
import { likeness } from '../identity/signature.js';
import { intersect, type Rect } from '../geometry/rect.js';
import { isDecoration } from '../intent/decoration.js';
import type { Cover, Ink, Scene } from '../layout/scene.js';
import { isContentOf } from '../layout/scrollers.js';
import { mainPortOf, type Scrollport } from '../layout/scrollport.js';
import { FLAG_HEADING } from '../layout/snapshot.js';
import { stickingOf, type Sticking } from '../layout/sticking.js';
import { stayingRoot, stickyRoot } from '../layout/viewport-layer.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { byCulprit, type Culprits } from './by-culprit.js';
import { andMore, nameOf, onScreen, shortName } from './words.js';
import type { RenderView, Sighting } from './sighting.js';

/** Of a line's or control's height. */
const LEAST_SHARE = 0.3;
/** They meet over at least so much scrolling, CSS px: what passes in a moment is not noticed. */
const LEAST_RANGE = 40;

/** Of the screen: what is larger both ways is a panel and no bar. */
const PANEL_SHARE = 0.5;

interface Hiding {
  readonly culprit: NodeIndex;
  readonly ink: Ink;
  readonly cover: Cover;
  readonly px: number;
  /** What is scrolled: −1 for the page. */
  readonly in: NodeIndex;
  /** How far it is scrolled when they meet, and what of the ink is then lost: on the page, or where it is at first in a container; CSS px. */
  readonly scrolled: number;
  readonly lost: Rect;
}

/**
 * What sticks to the top of the screen while the page scrolls sticks under something else that is there: the head of a
 * table under the header of the site.
 */
export function coveredSticking(scene: Scene, render: RenderView): Sighting[] {
  const { view } = scene;
  const bars: Sticking[] = [];
  for (let i = 0; i < view.count; i++) {
    const sticking = stickyRoot(view, i) === i && scene.painted[i] ? stickingOf(view, i) : null;
    if (sticking) bars.push(sticking);
  }
  if (bars.length === 0) return [];
  const hidings: Hiding[] = [];
  const main = mainPortOf(view);
  const covers = scene.covers.flatMap((cover) => {
    const root = stayingRoot(view, cover.node);
    const sticking = root < 0 ? null : stickingOf(view, root);
    const beside = overMain(view, main, cover);
    return [sticking, beside].flatMap((each) => (each ? [{ cover, sticking: each }] : []));
  });
  for (const bar of bars) {
    for (const { cover, sticking: over } of covers) {
      if (over.in !== bar.in || scene.contains(bar.node, cover.node) || scene.contains(over.node, bar.node))
        continue;
      if (isPileOf(view, bar.node, over.node)) continue;
      if (Math.min(bar.to, over.to) - Math.max(bar.from, over.from) < LEAST_RANGE) continue;
      hidings.push(...hidden(scene, bar, cover, over));
    }
  }
  return byCulprit(view, hidings).map((group) => sighting(scene, render, group));
}

/** What lies over the part that is scrolled in the page's place, and stays where it is meanwhile: as if it stuck there. */
function overMain(view: SnapshotView, main: Scrollport | null, { node }: Cover): Sticking | null {
  if (!main || main.node < 0 || isContentOf(view, main.node, node)) return null;
  const box = view.box(node);
  const onScreen = { ...box, y: box.y - main.origin - main.scrolled };
  return { node, in: main.node, onScreen, from: 0, to: main.most };
}

/** Headings that push one another away, of whatever rank, panels that pile up: each is meant to lie on the one before. */
function isPileOf(view: SnapshotView, a: NodeIndex, b: NodeIndex): boolean {
  const { width, shownHeight } = view.snapshot.viewport;
  const isPanel = (i: NodeIndex) =>
    view.box(i).height > PANEL_SHARE * shownHeight && view.box(i).width > PANEL_SHARE * width;
  const areHeadings = view.has(a, FLAG_HEADING) && view.has(b, FLAG_HEADING);
  return areHeadings || likeness(view, a) === likeness(view, b) || isPanel(a) || isPanel(b);
}

/** What of a sticking element is under a cover while both are at their place on the screen. */
function hidden(scene: Scene, sticking: Sticking, cover: Cover, over: Sticking): Hiding[] {
  const { view } = scene;
  const { node, onScreen: place } = sticking;
  const rest = view.box(node);
  const shift = place.y - rest.y;
  const coverRect = { ...cover.rect, y: cover.rect.y + over.onScreen.y - view.box(over.node).y };
  return scene.inksIn(rest).flatMap((ink): Hiding[] => {
    if (ink.kind === 'picture' || !scene.contains(node, ink.node) || isDecoration(scene, ink.node)) return [];
    if (cover.rank <= ink.rank) return [];
    const common = intersect({ ...ink.shown!, y: ink.shown!.y + shift }, coverRect);
    if (!common || common.height < LEAST_SHARE * ink.full.height || common.width < 4) return [];
    // Whichever comes to its place later was given the wrong one.
    const culprit = over.from > sticking.from ? over.node : node;
    const scrolled = Math.max(over.from, sticking.from);
    const isOfPage = sticking.in < 0;
    const lost = isOfPage ? { ...common, y: common.y + scrolled } : ink.shown!;
    return [{ culprit, ink, cover, px: common.height, in: sticking.in, scrolled, lost }];
  });
}

function sighting({ view }: Scene, render: RenderView, { entries, fault }: Culprits<Hiding>): Sighting {
  const worst = entries.reduce((a, b) => (b.px > a.px ? b : a));
  const inks = new Set(entries.map(({ ink }) => ink)).size;
  const { more, isMany } = andMore(inks - 1);
  const [what, where] = worst.in < 0 ? ['the page', 'the screen'] : [shortName(view, worst.in), 'that part'];
  return {
    ...fault,
    key: `sticking ${fault.key}`,
    affected: entries.map(({ ink }) => ink.node),
    partners: entries.map((hiding) => hiding.cover.node),
    rect: view.box(fault.node),
    by: { axis: 'y', px: worst.px },
    shows: { ...(worst.in < 0 && { scrolled: worst.scrolled }), lost: entries.map(({ lost }) => lost) },
    severity: 'warning',
    message: `While ${what} scrolls, ${nameOf(view, worst.ink)}${more} ${isMany ? 'are' : 'is'} ${px(worst.px)} under the ${view.tag(worst.cover.node)}: both stay at the top of ${where}, ${onScreen(render)}.`,
  };
}
