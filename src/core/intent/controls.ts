import { area, liesWithin, meets } from '../geometry/rect.js';
import { commonAncestor } from '../layout/branches.js';
import { isUpright } from '../layout/rotation.js';
import { isDrawn, isOpaque } from '../layout/paint.js';
import type { Ink, Scene } from '../layout/scene.js';
import { FLAG_FIELD, FLAG_LABEL, LINE_FIELD } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/**
 * A unit, an icon or a floating label that stands in a field, or on its border, and keeps clear of what is written in it:
 * the field has room for it.
 */
export function isAdornment(scene: Scene, field: Ink, text: Ink): boolean {
  const { view } = scene;
  const written = view
    .linesOf(field.node)
    .filter((line) => (view.snapshot.lines.flags[line]! & LINE_FIELD) !== 0)
    .map((line) => view.lineBox(line));
  if (written.some((rect) => meets(rect, text.full, 2))) return false;
  if (isLabelOfAnother(scene, field.node, text.node)) return false;
  if (liesWithin(text.full, field.full, 2)) return true;
  // A label that sits on the upper border, in a notch.
  const onBorder =
    text.full.y < field.full.y && text.full.y + text.full.height < field.full.y + field.full.height / 2;
  return onBorder && isLabel(scene, text) && interruptsBorder(scene, field, text);
}

/** Whether words are the label of a field, and not of this one. */
function isLabelOfAnother(scene: Scene, field: NodeIndex, words: NodeIndex): boolean {
  const { labels } = scene.view.snapshot;
  let isAnothers = false;
  for (let at = 0; at < labels.length; at += 2) {
    if (!scene.contains(labels[at + 1]!, words)) continue;
    if (labels[at] === field) return false;
    isAnothers = true;
  }
  return isAnothers;
}

/** Whether the border of a field keeps clear of the words on it: they bring a background, or there is no border. */
function interruptsBorder({ view }: Scene, field: Ink, text: Ink): boolean {
  if (view.borders(field.node)[0] === 0) return true;
  for (let at = text.node; at >= 0; at = view.parent(at)) {
    if (view.tag(at) === 'legend' || isOpaque(view, at)) return true;
    if (view.has(at, FLAG_LABEL)) break;
  }
  return false;
}

/** A control that loses more of its size than this has lost a place to be hit. */
const MOST_SHARE = 0.3;

/**
 * Whether what is lost of a control is room round its words and pictures that nobody sees: its box is not drawn, or it is
 * turned, and the upright rectangle round it has corners that are not its own.
 * @param px how much of it is lost along an axis
 * @param isLost whether something that stands in it is lost
 */
export function losesRoomOnly(
  scene: Scene,
  ink: Ink,
  { px, axis }: { readonly px: number; readonly axis: 'x' | 'y' },
  isLost: (inner: Ink) => boolean,
): boolean {
  const { kind, node, full } = ink;
  if (kind !== 'control') return false;
  const { view } = scene;
  const upright = isUpright(view, node);
  if (upright && (isDrawn(view, node) || px > MOST_SHARE * (axis === 'x' ? full.width : full.height)))
    return false;
  const within = scene.inksWithin(ink);
  return within.length > 0 && !within.some(isLost);
}

/** A button inside a field, a heart or a close button on a card that is a link, an arrow on a slide: small, and on top. */
export function isOnLargerControl(scene: Scene, a: Ink, b: Ink): boolean {
  const [small, large] = area(a.full) <= area(b.full) ? [a, b] : [b, a];
  if (small.rank < large.rank || !liesWithin(small.full, large.full, 6)) return false;
  const isField = scene.view.has(large.node, FLAG_FIELD);
  // A field that is written into is no part of another one.
  if (isField && isWrittenInto(scene.view, small.node)) return false;
  if (!isField) return area(large.full) >= 3 * area(small.full) && !hidesWords(scene, small, large);
  const written = scene.view.linesOf(large.node).map((line) => scene.view.lineBox(line));
  return isOfField(scene, small.node, large) && !written.some((rect) => meets(rect, small.full, 2));
}

function isWrittenInto(view: SnapshotView, i: NodeIndex): boolean {
  return view.has(i, FLAG_FIELD) && view.tag(i) !== 'select';
}

/** Of a field's height, what holds it together with its button is no higher. */
const GROUP_HEIGHTS = 2.5;

/** Where several fields stand, a button in one of them takes no more of its width. */
const MOST_OF_SEVERAL = 0.25;

/** Whether a button stands beside a field, or in a box that is made for the two; among several fields, whether it is as small as a sign. */
function isOfField(scene: Scene, button: NodeIndex, field: Ink): boolean {
  const { view } = scene;
  const holder = commonAncestor(scene, button, field.node);
  if (view.box(holder).height <= GROUP_HEIGHTS * field.full.height) return true;
  if (holder !== view.parent(button) && holder !== view.parent(field.node)) return false;
  const isSmall = view.box(button).width <= MOST_OF_SEVERAL * field.full.width;
  return isSmall || isOnlyField(scene, field.node, holder);
}

function isOnlyField(scene: Scene, field: NodeIndex, holder: NodeIndex): boolean {
  for (let at = holder + 1; at <= scene.lastOf(holder); at++)
    if (at !== field && scene.painted[at] && scene.view.has(at, FLAG_FIELD)) return false;
  return true;
}

/** Whether the smaller one lies on words of the larger one. */
function hidesWords(scene: Scene, small: Ink, large: Ink): boolean {
  return scene
    .inksIn(small.full)
    .some(
      (ink) =>
        ink.kind === 'text' &&
        scene.contains(large.node, ink.node) &&
        !scene.contains(small.node, ink.node) &&
        meets(ink.full, small.full, 2),
    );
}

function isLabel({ view }: Scene, text: Ink): boolean {
  for (let at = text.node; at >= 0; at = view.parent(at)) {
    if (view.has(at, FLAG_LABEL) || view.tag(at) === 'legend') return true;
  }
  return false;
}
