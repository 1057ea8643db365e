import { displacementOf } from './displace.js';
import { isContents, isInlineText } from './displays.js';
import { perNode } from './memo.js';
import { isDrawn } from './paint.js';
import { FLAG_CONTROL, FLAG_IN_PICTURE, SETTING_PROPERTIES, type StyleProperty } from './snapshot.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** What words have from the element that they stand in. */
const OF_WORDS: readonly StyleProperty[] = [
  'color',
  'direction',
  'font-family',
  'font-size',
  'line-height',
  'overflow-wrap',
  'text-transform',
  'visibility',
  'white-space',
];

/** The element whose words an element holds: itself, or the one around it where it is but a nameless wrapper in its lines. */
export function unwrapped(view: SnapshotView, i: NodeIndex): NodeIndex {
  let at = i;
  while (isWrapper(view, at)) at = view.parent(at);
  return at;
}

/** An inline element without a name or a look of its own: the words in it are as they would be without it. */
const isWrapper = perNode((view, i): boolean => {
  const around = view.parent(i);
  if (around <= view.body || !view.isElement(i) || !(isInlineText(view, i) || isContents(view, i)))
    return false;
  if (view.id(i) !== '' || view.classes(i).length > 0 || view.has(i, FLAG_CONTROL | FLAG_IN_PICTURE))
    return false;
  // Others say something of their words, and what they say is seen.
  if (view.tag(i) !== 'span' && !view.tag(i).includes('-')) return false;
  if (isDrawn(view, i) || displacementOf(view, i) !== null || isSetApart(view, i, around)) return false;
  return OF_WORDS.every((property) => view.style(i, property) === view.style(around, property));
});

/** Whether the letters or words of an element are set closer or wider; of one without words of its own nobody knows how they would be. */
function isSetApart(view: SnapshotView, i: NodeIndex, around: NodeIndex): boolean {
  const [own, its] = [spacingsOf(view, i), spacingsOf(view, around)];
  return own.some((spacing, at) => spacing !== its[at]);
}

const SPACINGS = (['letter-spacing', 'word-spacing'] as const).map((property) =>
  SETTING_PROPERTIES.indexOf(property),
);

function spacingsOf(view: SnapshotView, i: NodeIndex): string[] {
  const values = view.settingOf(i).split(';');
  return SPACINGS.map((at) => (/^(normal)?$/.test(values[at] ?? '') ? '0px' : values[at]!));
}
