import { liesWithin, meets, outOf, rightOf, sizeAlong, union, type Rect } from '../geometry/rect.js';
import { LAYOUT_FAMILIES, severityOf, type Rule } from '../rules/rule.js';
import { gravest, type Sighting } from '../sightings/sighting.js';
import { blockAround } from '../layout/ancestors.js';
import { commonAncestor } from '../layout/branches.js';
import { displacementOf, isOutOfFlow } from '../layout/displace.js';
import { movedBy } from '../layout/transforms.js';
import { holdsItems, isFlow, isGrid, isOwnRow } from '../layout/displays.js';
import { hasOwnWidth } from '../layout/own-size.js';
import { sceneOf, type Scene } from '../layout/scene.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

export interface Reported {
  readonly rule: Rule;
  readonly sighting: Sighting;
}

/**
 * Of the sightings of one render, those that are not merely what another one leads to: content that has run out of its box
 * lies on what stands beside it, sticks out of the page and is cut off there, but it is one defect. An overflow comes before
 * what it leads to; of two overlaps or two losses of the same element, the first rule's stays. What stays weighs as much as
 * what it leads to.
 *
 * @param reported in the order of the rules
 */
export function withoutConsequences(view: SnapshotView, reported: readonly Reported[]): Reported[] {
  const kept: Reported[] = [];
  for (const entry of reported) {
    const at = kept.findIndex((earlier) => leadsTo(sceneOf(view), earlier, entry));
    if (at < 0) kept.push(entry);
    else if (isLostByIt(sceneOf(view), kept[at]!, entry) || hidesOthers(sceneOf(view), kept[at]!, entry))
      kept[at] = entry;
    else kept[at] = withWeightOf(kept[at]!, entry);
  }
  return kept;
}

/**
 * Of a box that is too low for what is in it, it is worse that no scrolling gets to the rest than that the rest is out of the box; of
 * words that run out of a box and are cut off behind it, what is gone is worse than what shows outside, where it is more.
 */
function isLostByIt(
  scene: Scene,
  { rule, sighting }: Reported,
  { rule: its, sighting: later }: Reported,
): boolean {
  if (rule.meta.name !== 'box-overflow') return false;
  // The box may be what is too high for another one that is as large as the screen.
  if (its.meta.name === 'unreachable') return scene.contains(later.node, sighting.node);
  return (
    later.node === sighting.node &&
    its.meta.name === 'text-clipped' &&
    severityOf(its, later) !== 'notice' &&
    (later.by?.px ?? 0) > (sighting.by?.px ?? 0)
  );
}

/** A drawer that waits beside the screen is there to be out of reach; a strip of it that stays on the screen hides what is under it. */
function hidesOthers(scene: Scene, { rule, sighting }: Reported, later: Reported): boolean {
  const { node, by } = sighting;
  if (rule.meta.name !== 'unreachable' || later.rule.meta.name !== 'covered' || !by) return false;
  const isMostlyOut = by.px >= 0.5 * sizeAlong(scene.view.box(node), by.axis);
  const hidden = later.sighting.affected ?? [];
  return later.sighting.node === node && isMostlyOut && hidden.some((one) => !scene.contains(node, one));
}

/** What lies on something by an overflow is as bad as what lies there for another reason. */
function withWeightOf(kept: Reported, { rule, sighting }: Reported): Reported {
  const [own, its] = [severityOf(kept.rule, kept.sighting), severityOf(rule, sighting)];
  const { sighting: stays } = kept;
  const isGraver = gravest([own, its]) === its && (own !== its || stays.mild === true);
  return isGraver && !sighting.mild ? { ...kept, sighting: { ...stays, severity: its, mild: false } } : kept;
}

function leadsTo(scene: Scene, earlier: Reported, later: Reported): boolean {
  if (earlier.rule === later.rule) return false;
  const family = earlier.rule.meta.family;
  if (![family, later.rule.meta.family].every((of) => LAYOUT_FAMILIES.includes(of))) return false;
  if (earlier.sighting.node === later.sighting.node && family === later.rule.meta.family) return true;
  const atFault = [earlier.sighting.node, ...earlier.sighting.related];
  const isOneFault = earlier.rule.meta.name !== 'page-overflow' && atFault.includes(later.sighting.node);
  if (family === 'overflow' && !isOneFault && meetAtHome(scene, atFault, earlier.sighting, later.sighting))
    return false;
  if (meetWithin(earlier.sighting, later.sighting) || happensIn(scene, earlier, later.sighting)) return false;
  if (family === 'overflow' && meetAtOtherEnd(scene, earlier.sighting, later.sighting)) return false;
  if (family === 'overflow') {
    // Whatever ran out is what the later one is about.
    const stray = [...atFault, ...(earlier.sighting.affected ?? [])];
    const about = later.sighting.affected ?? [later.sighting.node];
    const isBesidePage = later.rule.meta.name === 'unreachable' && later.sighting.by?.axis === 'x';
    if (isBesidePage && isPulledOut(scene.view, later.sighting.node)) return false;
    if (stray.includes(later.sighting.node)) return true;
    const takesPart = later.sighting.partners ?? [];
    const isPartOfIt = (node: NodeIndex) => atFault.some((at) => scene.contains(at, node));
    // Words that are too long for their box lie on what stands beside it.
    const isRunOut = (node: NodeIndex) =>
      later.rule.meta.family === 'overlap' &&
      (atFault.includes(node) || atFault.includes(blockAround(scene.view, node)));
    // What lies over much lies on some of it whether that ran out or not.
    const arePaired = takesPart.length > 0 && takesPart.length === about.length;
    const isLedTo = arePaired
      ? about.every((node, i) => isRunOut(node) || isPartOfIt(takesPart[i]!))
      : takesPart.some(isPartOfIt) || about.some(isRunOut);
    if (isLedTo) return true;
    const isInOrAround = atFault.some((at) => isWithOneAnother(scene, at, later.sighting.node));
    if (later.rule.meta.family === 'overlap' && isInOrAround && about.some((node) => stray.includes(node)))
      return true;
    const isStray = (node: NodeIndex) => stray.some((at) => scene.contains(at, node));
    // A centred box that is too wide reaches past both sides of the page. Of a row, other items are out of reach.
    const past = later.sighting.by?.px ?? 0;
    const isMovedWith = (at: NodeIndex) =>
      about.every(
        (node) =>
          scene.contains(node, at) ||
          (scene.contains(at, node) && pastBeginning(scene.view, at) >= past - 1) ||
          movesOut(scene, at, node),
      );
    if (isBesidePage && atFault.some(isMovedWith)) return true;
    if (earlier.rule.meta.name !== 'page-overflow') {
      // The box at fault holds much that has not run out of it.
      const ranOut = earlier.sighting.affected ?? atFault;
      return about.every((node) => ranOut.some((at) => isWithOneAnother(scene, at, node)));
    }
    return later.rule.meta.family === 'overflow' && [later.sighting.node, ...about].some(isStray);
  }
  if (family === 'clipped') return atFault.includes(later.sighting.node);
  // Overlaps: the same element at fault, or the same pair seen from the other side.
  return later.rule.meta.family === 'overlap' && atFault.includes(later.sighting.node);
}

/**
 * Whether what sticks out is lain on where it belongs, in the box that holds it: that is no consequence of its sticking out at the other
 * end.
 */
function meetAtHome(scene: Scene, atFault: readonly NodeIndex[], { by }: Sighting, later: Sighting): boolean {
  const { view } = scene;
  const areas = later.shows?.lost ?? [];
  const takesPart = [...(later.affected ?? []), ...(later.partners ?? [])];
  const own = atFault.filter((at) => takesPart.some((node) => scene.contains(at, node)));
  return (
    areas.length > 0 &&
    own.length > 0 &&
    own.every((at) => {
      const home = view.containingElement(at);
      // In a box of both, one may have pushed the other aside, but what is out of the flow.
      if (takesPart.some((node) => isPushed(scene, at, node, home, by?.axis))) return false;
      return areas.every((area) => liesWithin(area, roomOf(view, home), 1));
    })
  );
}

/** The box of an element, or of the page, as wide as the screen, which places what no element does (−1). */
function roomOf(view: SnapshotView, i: NodeIndex): Rect {
  const { viewport, document: page } = view.snapshot;
  return i >= 0 ? view.box(i) : { x: 0, y: 0, width: viewport.width, height: page.height };
}

/** Whether an element stands in the flow of a box, and what is too large in it along an axis, `at`, can have taken room from it. */
function isPushed(
  scene: Scene,
  at: NodeIndex,
  node: NodeIndex,
  home: NodeIndex,
  axis: 'x' | 'y' | undefined,
): boolean {
  const { view } = scene;
  if (!scene.contains(home, node) || scene.contains(at, node) || isOutOfFlow(view, at)) return false;
  // Words that run out of a box which stays where it belongs took no room from others, unless it was given some for them.
  const isInPlace = axis === 'x' && liesBeside(view.box(at), view.box(home));
  if (isInPlace && !isSizedByWords(view, at, home)) return false;
  let item = node;
  let isMoved = displacementOf(view, at) !== null;
  for (let up = node; up > home; up = view.parent(up)) {
    if (isOutOfFlow(view, up)) return false;
    isMoved ||= displacementOf(view, up) !== null;
    item = up;
  }
  // Blocks one below the other take no width from each other, and meet in columns of text alone if none was moved.
  if (isMoved && axis === 'x' && isFlow(view, home) && isOwnRow(view, at) && isOwnRow(view, item))
    return false;
  return !isGrid(view, home) || !beginsOn(view, at, item);
}

/** Whether the room that an item of a flex row was given goes by what stands in it. */
function isSizedByWords(view: SnapshotView, item: NodeIndex, row: NodeIndex): boolean {
  const isFixed = /[\d.]/.test(view.style(item, 'flex-basis')) || hasOwnWidth(view, item);
  return holdsItems(view, row) && !isGrid(view, row) && !isFixed;
}

/** Whether a box lies between the left and the right edge of another one. */
function liesBeside(box: Rect, other: Rect): boolean {
  const { left, right } = outOf(box, other);
  return left <= 1 && right <= 1;
}

/** Whether an item of a grid begins on another one, as those do that were given the same columns: one that is aside leaves it its place. */
function beginsOn(view: SnapshotView, i: NodeIndex, other: NodeIndex): boolean {
  const [box, its] = [view.box(i), view.box(other)];
  const begin = view.snapshot.direction === 'rtl' ? rightOf(box) : box.x;
  return begin > its.x + 2 && begin < rightOf(its) - 2 && meets(box, its, 2);
}

/**
 * Whether something is lost within the boxes that lines run out of below: where none of those has run to. (Of a line that runs out
 * sideways, what is within its box is the same line.)
 */
function meetWithin({ by, homes = [] }: Sighting, { shows }: Sighting): boolean {
  if (by?.axis !== 'y') return false;
  return (shows?.lost ?? []).some((area) => homes.some((box) => liesWithin(area, box, 1)));
}

/** Whether something is lost within the box that another thing runs out of at one side, towards its other end: not by its running out. */
function meetAtOtherEnd(scene: Scene, { node, related, by, homes = [] }: Sighting, later: Sighting): boolean {
  const { view } = scene;
  const areas = later.shows?.lost ?? [];
  const home = homes.find((box) => areas.every((area) => liesWithin(area, box, 1)));
  if (by?.axis !== 'x' || areas.length === 0 || home === undefined) return false;
  const takesPart = [...(later.affected ?? []), ...(later.partners ?? [])];
  const own = [node, ...related].filter((at) => takesPart.some((one) => scene.contains(at, one)));
  return (
    own.length > 0 &&
    own.every((at) => {
      const box = view.box(at);
      const { left, right } = outOf(box, home);
      const middle = box.x + box.width / 2;
      if (left > 1) return right <= 1 && areas.every((area) => area.x >= middle);
      return right > 1 && areas.every((area) => rightOf(area) <= middle);
    })
  );
}

/**
 * Whether all that takes part stands in a box that is too wide for the page by its own width: that box is what lays it out, on whatever
 * page.
 */
function happensIn(scene: Scene, { rule, sighting }: Reported, later: Sighting): boolean {
  if (rule.meta.name !== 'page-overflow') return false;
  const takesPart = [later.node, ...(later.affected ?? []), ...(later.partners ?? [])];
  return [sighting.node, ...sighting.related].some(
    (at) => hasOwnWidth(scene.view, at) && takesPart.every((node) => node !== at && scene.contains(at, node)),
  );
}

/** How far an element reaches past the side at which the page begins, CSS px. */
function pastBeginning(view: SnapshotView, i: NodeIndex): number {
  const { direction, viewport } = view.snapshot;
  const box = view.box(i);
  return direction === 'rtl' ? rightOf(box) - viewport.width : -box.x;
}

/** Whether a margin, an offset or a transform has brought an element past the side at which the page begins, and not to the middle of it. */
function isPulledOut(view: SnapshotView, i: NodeIndex): boolean {
  const { direction, viewport } = view.snapshot;
  const [, right, , left] = view.margins(i);
  const offset = view.style(i, 'position') === 'relative' ? Number.parseFloat(view.style(i, 'left')) || 0 : 0;
  const moved = offset + (movedBy(view, i)?.x ?? 0);
  const pulled = direction === 'rtl' ? moved - right : -moved - left;
  const page = { x: 0, y: 0, width: viewport.width, height: 0 };
  const { left: one, right: other } = outOf(view.box(i), page);
  return pulled >= pastBeginning(view, i) - 1 && Math.abs(one - other) > 2;
}

/** Whether an item that is too wide for its row alone moves another one out: of a row set from its middle, on both sides by as much. */
function movesOut(scene: Scene, wide: NodeIndex, other: NodeIndex): boolean {
  const { view } = scene;
  const row = commonAncestor(scene, wide, other);
  if (row < 0 || !holdsItems(view, row) || view.box(wide).width <= view.contentBox(row).width) return false;
  const items = view.childrenOf(row).filter((item) => view.isRendered(item));
  const { left, right } = outOf(
    items.map((item) => marginBox(view, item)).reduce(union),
    view.contentBox(row),
  );
  return left > 2 && Math.abs(left - right) < 2;
}

function marginBox(view: SnapshotView, i: NodeIndex): Rect {
  const { x, y, width, height } = view.box(i);
  const [top, right, bottom, left] = view.margins(i);
  return { x: x - left, y: y - top, width: width + left + right, height: height + top + bottom };
}

function isWithOneAnother(scene: Scene, a: NodeIndex, b: NodeIndex): boolean {
  return scene.contains(a, b) || scene.contains(b, a);
}
