import { isDecoration } from '../intent/decoration.js';
import { isSymbols } from '../intent/typography.js';
import { pxOf } from '../css/lengths.js';
import { intersect, sizeAlong } from '../geometry/rect.js';
import type { Ink, Scene } from '../layout/scene.js';
import { scrollerOf, scrollsAlong } from '../layout/scrollers.js';
import { holderOf, isSticky } from '../layout/sticking.js';
import { stickyRoot } from '../layout/viewport-layer.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { byCulprit } from './by-culprit.js';
import { inksScrolledBy } from './covered-scrollers.js';
import { hasGround } from './passing.js';
import { andMore, nameOf, onScreen, shortName } from './words.js';
import type { RenderView, Sighting } from './sighting.js';

/** What scrolls by less than this hardly moves, CSS px. */
const LEAST_RANGE = 40;
/** Words meet over so much of the lower of them, and over so many CSS px of their width. */
const LEAST_SHARE = 0.5;
const LEAST_WIDTH = 12;

type Axis = 'x' | 'y';
const SIDES = { x: ['left', 'right'], y: ['top', 'bottom'] } as const;

interface Through {
  readonly culprit: NodeIndex;
  readonly holder: NodeIndex;
  readonly ink: Ink;
  readonly other: Ink;
}

/**
 * Words that stick in a scroll container without a ground of their own, such as a table's first column or its head: what scrolls passes
 * through them (CSS Positioned Layout 3, section 3.4).
 */
export function passingInScrollers(scene: Scene, render: RenderView): Sighting[] {
  const { view } = scene;
  const found: Through[] = [];
  const scrolled = new Map<NodeIndex, readonly Ink[]>();
  const scrolledBy = (holder: NodeIndex) => {
    let inks = scrolled.get(holder);
    if (!inks)
      scrolled.set(holder, (inks = inksScrolledBy(scene, holder).filter(({ kind }) => kind === 'text')));
    return inks;
  };
  for (let i = 1; i < view.count; i++) {
    if (!isSticky(view, i) || !scene.painted[i]) continue;
    const holder = scrollerOf(view, view.parent(i));
    if (holder < 0) continue;
    const words = scene
      .inksIn(view.box(i))
      .filter((ink) => ink.kind === 'text' && stickyRoot(view, ink.node) === i && !hasGround(scene, i, ink));
    const ways = words.length > 0 ? waysOf(view, i, holder) : [];
    for (const way of ways) {
      const meeting = words.flatMap((ink) => {
        if (isDecoration(scene, ink.node) || isSymbols(view, ink)) return [];
        const other = scrolledBy(holder).find((one) => passes(scene, way, ink, one));
        return other ? [{ culprit: i, holder, ink, other }] : [];
      });
      found.push(...meeting);
    }
  }
  return byCulprit(view, found).map(({ entries, fault }) => {
    const [{ holder, ink }] = entries as [Through];
    const { more, isMany } = andMore(new Set(entries.map((entry) => entry.ink)).size - 1);
    return {
      ...fault,
      key: `passing in ${fault.key}`,
      affected: entries.map((entry) => entry.ink.node),
      partners: entries.map((entry) => entry.other.node),
      rect: view.box(fault.node),
      by: { axis: 'y', px: ink.full.height },
      shows: { lost: entries.map((entry) => entry.ink.shown!) },
      passing: 'through',
      severity: 'warning',
      message: `While ${shortName(view, holder)} scrolls, its words pass through ${nameOf(view, ink)}${more}, which ${isMany ? 'stay' : 'stays'} without a ground of ${isMany ? 'their' : 'its'} own, ${onScreen(render)}.`,
    };
  });
}

/** How an element stays while its container scrolls. */
interface Way {
  readonly axis: Axis;
  /** How far the container scrolls, CSS px. */
  readonly range: number;
  /** It stays at the left or the top. */
  readonly isAtStart: boolean;
  /** The box in which it stays. */
  readonly around: NodeIndex;
}

function waysOf(view: SnapshotView, i: NodeIndex, holder: NodeIndex): Way[] {
  const [width, height, scrollWidth, scrollHeight] = view.scrollSizes(holder);
  const ranges = { x: scrollWidth - width, y: scrollHeight - height };
  return (['x', 'y'] as const).flatMap((axis): Way[] => {
    const [isAtStart, isAtEnd] = SIDES[axis].map((side) => pxOf(view.style(i, side)) !== null);
    const stays = isAtStart || isAtEnd;
    if (!stays || ranges[axis] < LEAST_RANGE || !scrollsAlong(view, holder, axis)) return [];
    return [{ axis, range: ranges[axis], isAtStart: isAtStart === true, around: holderOf(view, i) }];
  });
}

/** Whether other words come to where those of a sticky element are. */
function passes(scene: Scene, { axis, range, isAtStart, around }: Way, ink: Ink, other: Ink): boolean {
  if (stickyRoot(scene.view, other.node) >= 0) return false;
  if (!scene.contains(around, other.node) || isDecoration(scene, other.node)) return false;
  const away = isAtStart ? other.full[axis] - ink.full[axis] : ink.full[axis] - other.full[axis];
  if (away <= 0 || away > range) return false;
  const common = intersect({ ...other.full, [axis]: ink.full[axis] }, ink.full);
  if (!common || common.width < LEAST_WIDTH) return false;
  return sizeAlong(common, 'y') >= LEAST_SHARE * Math.min(ink.full.height, other.full.height);
}
