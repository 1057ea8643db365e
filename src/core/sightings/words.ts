import type { Ink } from '../layout/scene.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { RenderView } from './sighting.js';

/** The start of a text, for a message. */
function excerpt(text: string): string {
  const folded = text.trim().replace(/\s+/g, ' ');
  return folded.length > 40 ? `${folded.slice(0, 38).trimEnd()}…` : folded;
}

/** The words of a line, in quotation marks. */
export function quotedText(view: SnapshotView, line: number): string {
  return `“${excerpt(view.lineText(line))}”`;
}

export function quoted(view: SnapshotView, { line }: Ink): string {
  return quotedText(view, line);
}

/** What a reader sees or uses: `the text “…”`, `a control (button)`, `a picture (img)`. */
export function nameOf(view: SnapshotView, ink: Ink): string {
  return ink.kind === 'text' ? `the text ${quoted(view, ink)}` : `a ${ink.kind} (${view.tag(ink.node)})`;
}

/** As the beginning of a sentence. */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** How messages end: on what screen it was measured. */
export function onScreen({ device }: RenderView): string {
  return `on a ${device.width} px wide screen`;
}

/** An element as short as it can be told apart by eye: `div.card.wide`, `nav#menu`. */
export function shortName(view: SnapshotView, i: NodeIndex): string {
  if (!view.isElement(i)) return `${shortName(view, view.parent(i))}${view.tag(i)}`;
  const id = view.id(i);
  const classes = view.classes(i).slice(0, 2);
  return view.tag(i) + (id === '' ? classes.map((name) => `.${name}`).join('') : `#${id}`);
}
