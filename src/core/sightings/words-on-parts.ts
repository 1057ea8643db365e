import { px } from '../geometry/format.js';
import { area, outAlong, sizeAlong, union, type Rect } from '../geometry/rect.js';
import type { Scene } from '../layout/scene.js';
import { FLAG_PICTURE } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { byCulprit, type Culprits } from './by-culprit.js';
import { hiddenInk, type Doubt } from './doubt.js';
import { boxMeetingsOf, meetingsOf, type BoxMeeting, type Meeting } from './meeting-parts.js';
import type { RenderView, Sighting } from './sighting.js';
import { andMore, capital, nameOf, onScreen, shortName, sideWords } from './words.js';

/** Of a picture, where it is not clear, letters lie on so much: they fill a quarter of their own place. */
const LEAST_SHARE = 0.08;

const asDoubt = ({ box, words, common }: Meeting): Doubt => ({
  cover: words.node,
  under: box,
  area: common,
  byWords: true,
  sign: 'picture',
});

/** Where a picture is clear, and whether it is round, boxes do not know. */
export function partDoubts(view: SnapshotView): Doubt[] {
  return meetingsOf(view)
    .filter(({ box }) => view.has(box, FLAG_PICTURE))
    .map(asDoubt);
}

function isSeen(view: SnapshotView, meeting: Meeting): boolean {
  // Of words across an edge, the half that lies beyond it counts for nothing.
  const least = meeting.ran === 'moved' ? LEAST_SHARE / 2 : LEAST_SHARE;
  return !view.has(meeting.box, FLAG_PICTURE) || hiddenInk(view, asDoubt(meeting), least) !== 0;
}

/** Pictures and drawn boxes that have run out of their part, and under words of another one. */
export function partsUnderWords({ view }: Scene, render: RenderView): Sighting[] {
  const seen = meetingsOf(view).filter((meeting) => !isOfWords(meeting) && isSeen(view, meeting));
  return byCulprit(view, seen).map((group) => {
    const worst = worstOf(group);
    const said =
      worst.ran === 'pulled'
        ? `Is pulled up by ${px(-view.margins(worst.culprit)[0])}`
        : ranOutWords(view, worst);
    return sighting(view, group, `${said}, and under ${metBy(view, group)}, ${onScreen(render)}.`);
  });
}

function isOfWords({ ran }: Meeting): boolean {
  return ran === 'words' || ran === 'moved';
}

/** Words that have run out of their part, and onto a picture or a drawn box of another one; or that were moved over its edge. */
export function wordsOnParts({ view }: Scene, render: RenderView, told: ReadonlySet<NodeIndex>): Sighting[] {
  const seen = meetingsOf(view).filter(
    (meeting) => isOfWords(meeting) && !told.has(meeting.culprit) && isSeen(view, meeting),
  );
  return byCulprit(view, seen).map((group) => {
    const { box, words, axis, holder, ran } = worstOf(group);
    const around = view.box(holder);
    const { more, isMany } = andMore(new Set(group.entries.map((entry) => entry.words)).size - 1);
    const said =
      ran === 'moved'
        ? `${isMany ? 'were' : 'was'} moved over the edge of`
        : `${isMany ? 'run' : 'runs'} ${px(outAlong(words.full, around, axis))} out of ${sideWords(words.full, around, axis)}, onto`;
    return sighting(
      view,
      group,
      `${capital(nameOf(view, words))}${more} ${said} ${shortName(view, box)}, ${onScreen(render)}.`,
    );
  });
}

/** Pictures and drawn boxes that have run out of their part, and over the rim of another one. */
export function boxesOnParts({ view }: Scene, render: RenderView, told: ReadonlySet<NodeIndex>): Sighting[] {
  const seen = boxMeetingsOf(view).filter(({ culprit }) => !told.has(culprit));
  return byCulprit(view, seen).map(({ entries, fault }) => {
    const worst = worstOf({ entries });
    const { axis, culprit, other } = worst;
    return {
      ...fault,
      key: `rim ${fault.key}`,
      partners: entries.map((entry) => entry.other),
      rect: entries.map((entry) => entry.common).reduce(union, view.box(culprit)),
      by: { axis, px: Math.max(...entries.map(({ common }) => sizeAlong(common, axis))) },
      severity: 'warning',
      message: `${ranOutWords(view, worst)}, and over the rim of ${shortName(view, other)}, ${onScreen(render)}.`,
    };
  });
}

/** How far a box has run out of what, told of what is at fault. */
function ranOutWords(view: SnapshotView, { box, axis, holder, culprit }: Meeting | BoxMeeting): string {
  const [own, around] = [view.box(box), view.box(holder)];
  const out = outAlong(own, around, axis);
  const isOut = out >= 1;
  const runs = isOut
    ? `runs ${px(out)} out of ${sideWords(own, around, axis)}`
    : `reaches into the next ${axis === 'x' ? 'column' : 'row'}`;
  if (culprit === box) return capital(runs) + (isOut ? ` of ${shortName(view, holder)}` : '');
  return `In it, ${view.has(box, FLAG_PICTURE) ? 'a picture' : shortName(view, box)} ${runs}`;
}

function worstOf<T extends { readonly common: Rect }>({ entries }: { readonly entries: readonly T[] }): T {
  return entries.reduce((a, b) => (area(b.common) > area(a.common) ? b : a));
}

function metBy(view: SnapshotView, group: Culprits<Meeting>): string {
  const { more } = andMore(new Set(group.entries.map((entry) => entry.words)).size - 1);
  return `${nameOf(view, worstOf(group).words)}${more}`;
}

function sighting(view: SnapshotView, group: Culprits<Meeting>, message: string): Sighting {
  const { entries, fault } = group;
  const { axis, common } = worstOf(group);
  return {
    ...fault,
    key: `part ${fault.key}`,
    affected: entries.map(({ words }) => words.node),
    partners: entries.map(({ box }) => box),
    rect: entries.map((entry) => entry.common).reduce(union, view.box(fault.node)),
    by: { axis, px: sizeAlong(common, axis) },
    shows: { lost: entries.map((entry) => entry.common) },
    // On a ground of one colour words can still be read.
    ...(entries.every(({ box }) => !view.has(box, FLAG_PICTURE)) && { severity: 'warning' as const }),
    message,
  };
}
