import { area, intersect, type Rect } from '../geometry/rect.js';
import { isDecoration } from '../intent/decoration.js';
import { isSymbols } from '../intent/typography.js';
import { perSnapshot, perStyle } from '../layout/memo.js';
import { groundAlpha, hasBackgroundImage } from '../layout/paint.js';
import { sceneOf, type Cover, type Ink, type Scene } from '../layout/scene.js';
import { FLAG_CONTROL } from '../layout/snapshot.js';
import { stickingOf, type Sticking } from '../layout/sticking.js';
import { stayingRoot } from '../layout/viewport-layer.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { byCulprit, type Culprits } from './by-culprit.js';
import { hiddenInk, type Doubt } from './doubt.js';
import type { RenderView, Sighting } from './sighting.js';
import { andMore, nameOf, onScreen, shortName } from './words.js';

/** They meet over at least so much scrolling, CSS px: what passes in a moment is not noticed. */
const LEAST_RANGE = 40;
/** What is higher is a part of the page over which the next one is drawn, of the screen's height. */
const BAR_SHARE = 0.4;
/** What passes is at least so high and wide, CSS px. */
const LEAST_HEIGHT = 20;
const LEAST_WIDTH = 12;
/** Through a ground that is denser, words are a shimmer. */
const DENSE = 0.6;
/** Of the letters that pass, those of the bar lie on so much of them. */
const THROUGH_SHARE = 0.12;

/** What of the page meets the words of what stays on the screen, while the page scrolls by. */
export interface Passing {
  /** `over`: it hides them. `through`: its words and theirs are seen on one another. */
  readonly how: 'over' | 'through';
  readonly bar: Sticking;
  /** The bar's element: to be told apart by. */
  readonly culprit: NodeIndex;
  readonly ink: Ink;
  readonly by: NodeIndex;
  /** How far the page is scrolled then, and where they meet: on the page, CSS px. */
  readonly scrolled: number;
  readonly common: Rect;
}

/**
 * Of everything that stays at its place on the screen while the page scrolls, what passes over its words, or through them. Boxes tell
 * what would; whether it does, with all that a script does to a bar once the page is scrolled, is seen in pixels.
 */
const passingsOf = perSnapshot((view): readonly Passing[] => {
  const { viewport, document: page, rootOverflow } = view.snapshot;
  if (page.height < viewport.shownHeight + LEAST_RANGE || /hidden|clip/.test(rootOverflow.y)) return [];
  // Shown shrunk, the screen holds another part of the page than its size says.
  const { width, shownWidth, scrollbar, scale } = viewport;
  if (Math.abs(scale - 1) > 0.01 || shownWidth > width + scrollbar + 1) return [];
  const scene = sceneOf(view);
  return barsOf(scene).flatMap((bar) => passingOf(scene, bar) ?? []);
});

function barsOf(scene: Scene): Sticking[] {
  const { view } = scene;
  const found: Sticking[] = [];
  for (let i = 1; i < view.count; i++) {
    if (!scene.painted[i] || stayingRoot(view, i) !== i) continue;
    const bar = stickingOf(view, i);
    if (!bar || bar.in >= 0 || bar.to - bar.from < LEAST_RANGE) continue;
    if (bar.onScreen.height <= BAR_SHARE * view.snapshot.viewport.shownHeight) found.push(bar);
  }
  return found;
}

function passingOf(scene: Scene, bar: Sticking): Passing | null {
  const { view } = scene;
  const shift = bar.onScreen.y - view.box(bar.node).y;
  const found = scene.inksIn(view.box(bar.node)).flatMap((ink) => {
    const isWords = ink.kind === 'text' && stayingRoot(view, ink.node) === bar.node;
    if (!isWords || isDecoration(scene, ink.node) || isSymbols(view, ink)) return [];
    const place = { ...ink.shown!, y: ink.shown!.y + shift };
    if (place.y < 0 || place.y + place.height > view.snapshot.viewport.shownHeight) return [];
    return passesOver(scene, bar, ink, place) ?? passesThrough(scene, bar, ink, place) ?? [];
  });
  return found.reduce<Passing | null>((a, b) => (a && area(a.common) >= area(b.common) ? a : b), null);
}

/** @param place of the ink, from the screen's top left */
function passesOver(scene: Scene, bar: Sticking, ink: Ink, place: Rect): Passing | null {
  const { view } = scene;
  for (const cover of scene.covers) {
    if (cover.rank <= ink.rank || stayingRoot(view, cover.node) >= 0 || scene.contains(cover.node, ink.node))
      continue;
    const { rect } = cover;
    if (rect.height < LEAST_HEIGHT || isCurtain(scene, bar, cover)) continue;
    // It lies on most of the words from where its top is above their middle until its foot is.
    const slack = 0.4 * place.height;
    const first = Math.max(bar.from, 1, rect.y - place.y - slack);
    const last = Math.min(bar.to, rect.y + rect.height - place.y - place.height + slack);
    if (last < first) continue;
    // By its middle: pictures may be clear along their edges.
    const scrolled = Math.round((first + last) / 2);
    const common = intersect({ ...place, y: place.y + scrolled }, rect);
    if (common && common.width >= LEAST_WIDTH)
      return { how: 'over', bar, culprit: bar.node, ink, by: cover.node, scrolled, common };
  }
  return null;
}

/** A part as wide as the screen that is drawn over a picture or title which waits under it. */
function isCurtain({ view }: Scene, bar: Sticking, { rect }: Cover): boolean {
  const { x, width } = bar.onScreen;
  if (rect.x > x + 1 || rect.x + rect.width < x + width - 1) return false;
  let controls = 0;
  for (let i = bar.node; i < view.count && stayingRoot(view, i) === bar.node; i++)
    if (view.has(i, FLAG_CONTROL)) controls++;
  return controls < 2;
}

/** @param place of the ink, from the screen's top left */
function passesThrough(scene: Scene, bar: Sticking, ink: Ink, place: Rect): Passing | null {
  const { view } = scene;
  if (hasGround(scene, bar.node, ink)) return null;
  let best: Passing | null = null;
  for (const other of scene.inks) {
    if (other.kind !== 'text' || !other.shown || stayingRoot(view, other.node) >= 0) continue;
    const { shown } = other;
    const scrolled = Math.round(shown.y + shown.height / 2 - place.y - place.height / 2);
    if (scrolled < Math.max(1, bar.from) || scrolled > bar.to) continue;
    const common = intersect({ ...place, y: place.y + scrolled }, shown);
    if (!common || common.width < LEAST_WIDTH || (best && area(best.common) >= area(common))) continue;
    if (isDecoration(scene, other.node)) continue;
    best = { how: 'through', bar, culprit: bar.node, ink, by: other.node, scrolled, common };
  }
  return best;
}

/** Whether the words of a bar stand on something of its own, or change with what is under them. */
export function hasGround(scene: Scene, bar: NodeIndex, ink: Ink): boolean {
  const { view } = scene;
  const isOnCover = scene
    .coversIn(ink.shown!)
    .some(({ node, rank }) => rank < ink.rank && stayingRoot(view, node) === bar);
  if (isOnCover) return true;
  for (let at = ink.node; at >= bar; at = view.parent(at)) {
    if (isMixed(view, at)) return true;
    if (hasBackgroundImage(view, at)) return true;
    if (groundAlpha(view, at) >= DENSE) return true;
  }
  return false;
}

const isMixed = perStyle(
  (view, i) =>
    !/^(normal)?$/.test(view.style(i, 'mix-blend-mode')) ||
    !/^(none)?$/.test(view.style(i, 'backdrop-filter')),
);

/** Bars that repeat are one, of which the first is looked at. */
function barsWith(view: SnapshotView, how: Passing['how']): Culprits<Passing>[] {
  return byCulprit(
    view,
    passingsOf(view).filter((passing) => passing.how === how),
  );
}

export function passingDoubts(view: SnapshotView, how: Passing['how']): Doubt[] {
  return barsWith(view, how).map(({ entries: [first] }) => doubtOf(first!));
}

function doubtOf({ how, ink, by, common, bar, scrolled }: Passing): Doubt {
  const [cover, under] = how === 'over' ? [by, ink.node] : [ink.node, by];
  return { cover, under, area: common, byWords: how === 'through', passing: { bar: bar.node, scrolled } };
}

/** What passes over words that stay on the screen, or through them, as pixels have shown. */
export function passingWords({ view }: Scene, render: RenderView, how: Passing['how']): Sighting[] {
  return barsWith(view, how)
    .filter(({ entries: [first] }) => isSeen(view, first!))
    .map((group) => sighting(view, render, group));
}

function isSeen(view: SnapshotView, passing: Passing): boolean {
  const doubt = doubtOf(passing);
  return ((passing.how === 'over' ? hiddenInk(view, doubt) : hiddenInk(view, doubt, THROUGH_SHARE)) ?? 0) > 0;
}

function sighting(view: SnapshotView, render: RenderView, { entries, fault }: Culprits<Passing>): Sighting {
  const [{ how, ink, by, common, scrolled, bar }] = entries as [Passing];
  const { more, isMany } = andMore(entries.length - 1);
  const what = how === 'over' ? `${shortName(view, by)} passes over` : 'its words pass through';
  const stays = `which ${isMany ? 'stay' : 'stays'} on the screen`;
  const ground = how === 'over' ? '' : ` without a ground of ${isMany ? 'their' : 'its'} own`;
  return {
    ...fault,
    key: `passing ${how} ${fault.key}`,
    affected: entries.map((entry) => entry.ink.node),
    partners: entries.map((entry) => entry.by),
    rect: view.box(fault.node),
    by: { axis: 'y', px: common.height },
    shows: {
      scrolled,
      fault: { ...bar.onScreen, y: bar.onScreen.y + scrolled },
      lost: [common],
    },
    passing: how,
    severity: 'warning',
    message: `While the page scrolls, ${what} ${nameOf(view, ink)}${more}, ${stays}${ground}, ${onScreen(render)}.`,
  };
}
