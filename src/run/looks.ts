import type { Judge } from '../core/findings/judge.js';
import { intersect, union, type Rect } from '../core/geometry/rect.js';
import { letterGroundOf } from '../core/layout/letters.js';
import { sceneOf } from '../core/layout/scene.js';
import { FLAG_CONTROL, FLAG_IN_PICTURE, FLAG_PICTURE, type Look } from '../core/layout/snapshot.js';
import type { SnapshotView } from '../core/layout/view.js';
import { middleOf, type Doubt } from '../core/sightings/doubt.js';
import type { RenderView } from '../core/sightings/sighting.js';
import type { Probe, StyleChange } from '../engine/probe.js';
import { NOTHING_KNOWN } from './look-memory.js';
import { loadSharp } from '../engine/load-sharp.js';

/** Of a render, so many spots are looked at, those first of which most would be lost. */
const MOST_DOUBTS = 12;
/** All of them are seen in the same pictures, which are so large at most, CSS px. */
const MOST_WIDTH = 2_000;
const MOST_HEIGHT = 1_600;
/** Colours that differ by more, of 255 in a channel, are ink. */
const INK = 24;

const NO_WORDS = {
  color: 'transparent',
  '-webkit-text-fill-color': 'transparent',
  '-webkit-text-stroke-color': 'transparent',
  'text-decoration-color': 'transparent',
  'text-shadow': 'none',
};
/** Words of a drawing have no colour: they are filled. */
const NO_DRAWN_WORDS = { fill: 'transparent', stroke: 'transparent' };
/** On a ground of whatever colour but this one. */
const READABLE = { color: 'rgb(255, 0, 144)', '-webkit-text-fill-color': 'rgb(255, 0, 144)' };
const NOTHING = { opacity: '0' };
const NO_SHAPE = { 'border-radius': '0', 'clip-path': 'none', 'mask-image': 'none' };
/** Open, and yet laid out by itself as what clips is: floats stay in it, and its baseline is its foot (CSS Containment 2, section 3.2). */
const NO_EDGE = { overflow: 'visible', contain: 'layout' };
const NO_GROUND = { 'background-image': 'none' };
/** Where a ground fills the letters. */
const NO_FILLED_WORDS = { ...NO_WORDS, ...NO_GROUND, 'background-color': 'transparent' };

/** So many scroll positions of a render are looked at. */
const MOST_SCROLLED = 2;

/**
 * Looks at the doubtful spots of a render in the live page. Ink is what changes in a picture when the words are made
 * transparent: counted with and without what lies over them, the difference is what it hides. All spots are seen in the same four
 * pictures, and those that meet only while the page scrolls in four more. What was seen is kept with the layout, which is to be judged after
 * that.
 * @param memory of other sizes of the same page: what was seen there needs no other look
 */
export async function takeLooks(
  judge: Judge,
  render: RenderView,
  probe: Probe,
  memory = NOTHING_KNOWN,
): Promise<void> {
  const { view } = render;
  const all = together(judge.doubts(render));
  if (all.length === 0) return;
  const looks: Look[] = [];
  const open: Doubt[] = [];
  for (const doubt of all) {
    const known = memory.recall(doubt);
    if (known) looks.push(known);
    else open.push(doubt);
  }
  const atRest = withinReach(open.filter(({ passing }) => !passing));
  if (atRest.doubts.length > 0) {
    const found = await lookAt(view, atRest.doubts, atRest.area, (changes) =>
      probe.picturesWith(changes, atRest.area),
    );
    for (const [i, look] of found.entries()) memory.keep(atRest.doubts[i]!, look);
    looks.push(...found);
  }
  for (const doubt of open.filter(({ passing }) => passing).slice(0, MOST_SCROLLED)) {
    const { scrolled, bar } = doubt.passing!;
    const { shownWidth: width, shownHeight: height } = view.snapshot.viewport;
    const screen = { x: 0, y: scrolled, width, height };
    const [found] = await lookAt(view, [doubt], screen, (changes) => probe.screensWith(changes, scrolled));
    if (!found) continue;
    const look = { ...found, bar: view.uid(bar) };
    memory.keep(doubt, look);
    looks.push(look);
  }
  if (looks.length > 0) view.snapshot.looks = looks;
}

/** Words that may hide what they lie on are taken away to see that: whether they can be made out there themselves can't be seen in the same pictures. */
function together(doubts: readonly Doubt[]): readonly Doubt[] {
  const hiding = new Set(doubts.filter(({ byWords }) => byWords).map(({ cover }) => cover));
  return doubts.filter(({ unread, under }) => !unread || !hiding.has(under));
}

/** @param area what the pictures show, CSS px of the page */
async function lookAt(
  view: SnapshotView,
  doubts: readonly Doubt[],
  area: Rect,
  shoot: (changes: readonly StyleChange[][]) => Promise<Buffer[] | null>,
): Promise<Look[]> {
  const scene = sceneOf(view);
  const without = stylesOf(
    view,
    doubts,
    ({ cover }) => cover,
    (doubt) => undone(view, doubt),
  );
  const bare = stylesOf(
    view,
    doubts,
    ({ under, sign }) => (sign ? under : drawerOf(view, under)),
    ({ under, sign, cuts }) => {
      if (sign) return sign === 'ground' ? NO_GROUND : NOTHING;
      const isWhole =
        view.has(under, cuts ? FLAG_CONTROL : FLAG_CONTROL | FLAG_PICTURE) &&
        !doubts.some(({ cover }) => scene.contains(under, cover));
      if (isWhole) return NOTHING;
      if (view.has(under, FLAG_IN_PICTURE)) return NO_DRAWN_WORDS;
      return letterGroundOf(view, under) < 0 ? NO_WORDS : NO_FILLED_WORDS;
    },
  );
  // A sign that stands in the words that it lies on has its colour from them.
  const kept = stylesOf(
    view,
    doubts.filter(
      ({ cover, under, byWords, cuts, unread }) =>
        !byWords && !cuts && !unread && scene.contains(under, cover),
    ),
    ({ cover }) => cover,
    ({ cover }) => ({ color: view.style(cover, 'color'), '-webkit-text-fill-color': 'currentcolor' }),
  );
  const pictures = await shoot([[], [...bare, ...kept], without, [...without, ...bare]]);
  if (!pictures) return [];
  const [seen, seenBare, open, openBare] = (await Promise.all(pictures.map(pixelsOf))) as [
    Pixels,
    Pixels,
    Pixels,
    Pixels,
  ];
  const scale = seen.width / area.width;
  const perPx = scale * scale;
  return doubts.map(({ cover, under, area: spot }) => {
    const at = within(spot, area, scale);
    const ink = inkIn(open, openBare, at) / perPx;
    const shown = inkIn(seen, seenBare, at) / perPx;
    return {
      cover: view.uid(cover),
      under: view.uid(under),
      at: middleOf(spot),
      ink,
      hidden: Math.max(0, ink - shown),
    };
  });
}

/** What is to be seen without what lies over the words, cuts them, or leaves them in a colour that can't be made out. */
function undone(view: SnapshotView, { cover, byWords, cuts, unread }: Doubt): Record<string, string> {
  if (cuts) return uncut(view, cover, cuts);
  return byWords ? NO_WORDS : unread ? READABLE : NOTHING;
}

function uncut(view: SnapshotView, cutter: number, by: 'shape' | 'edge'): Record<string, string> {
  if (by === 'shape') return NO_SHAPE;
  // What clips is no wider than it has to be in a row.
  return view.style(cutter, 'min-width') === 'auto' ? { ...NO_EDGE, 'min-width': '0' } : NO_EDGE;
}

/** As many of the doubts as fit into one picture, beginning with the largest, and that picture. */
function withinReach(all: readonly Doubt[]): { doubts: Doubt[]; area: Rect } {
  const doubts: Doubt[] = [];
  let area: Rect = { x: 0, y: 0, width: 0, height: 0 };
  for (const doubt of all.slice(0, MOST_DOUBTS)) {
    const both = doubts.length === 0 ? doubt.area : union(area, doubt.area);
    if (both.width > MOST_WIDTH || both.height > MOST_HEIGHT) continue;
    doubts.push(doubt);
    area = both;
  }
  const [x, y] = [Math.floor(area.x), Math.floor(area.y)];
  const right = Math.ceil(area.x + area.width);
  const bottom = Math.ceil(area.y + area.height);
  return { doubts, area: { x, y, width: right - x, height: bottom - y } };
}

/** What draws the ink of an element's words: itself, or a ground that fills them. */
function drawerOf(view: SnapshotView, i: number): number {
  const ground = letterGroundOf(view, i);
  return ground >= 0 ? ground : i;
}

/** Of several doubts about one element, the first says what becomes of it. */
function stylesOf(
  view: SnapshotView,
  doubts: readonly Doubt[],
  whose: (doubt: Doubt) => number,
  styles: (doubt: Doubt) => Record<string, string>,
): StyleChange[] {
  const ofNodes = new Map([...doubts].reverse().map((doubt) => [whose(doubt), styles(doubt)]));
  return [...ofNodes].map(([node, changed]) => ({ uids: [view.uid(node)], styles: changed }));
}

interface Pixels {
  /** Three bytes a pixel. */
  readonly data: Uint8Array;
  readonly width: number;
  readonly height: number;
}

async function pixelsOf(picture: Buffer): Promise<Pixels> {
  const sharp = await loadSharp();
  const { data, info } = await sharp(picture)
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

/** A spot as device pixels of the picture. */
function within(spot: Rect, area: Rect, scale: number): Rect {
  return {
    x: (spot.x - area.x) * scale,
    y: (spot.y - area.y) * scale,
    width: spot.width * scale,
    height: spot.height * scale,
  };
}

/** How many pixels of a spot differ between two pictures of the same size. */
function inkIn(a: Pixels, b: Pixels, spot: Rect): number {
  const found = intersect(spot, { x: 0, y: 0, width: a.width, height: a.height });
  if (!found) return 0;
  let ink = 0;
  const right = Math.ceil(found.x + found.width);
  const bottom = Math.ceil(found.y + found.height);
  for (let y = Math.floor(found.y); y < Math.min(bottom, a.height); y++)
    for (let x = Math.floor(found.x); x < Math.min(right, a.width); x++) {
      const at = 3 * (y * a.width + x);
      const differs = [0, 1, 2].some(
        (channel) => Math.abs(a.data[at + channel]! - b.data[at + channel]!) > INK,
      );
      if (differs) ink++;
    }
  return ink;
}
