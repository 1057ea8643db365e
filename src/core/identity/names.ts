import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** One step: the tag with the classes that a person wrote. */
export function step(view: SnapshotView, i: NodeIndex): string {
  return stepText(view.tag(i), classesWritten(view, i).slice(0, MAX_CLASSES));
}

const MAX_CLASSES = 3;

export function stepText(tag: string, classes: readonly string[]): string {
  return [tag, ...classes].map(escapeIdentifier).join('.');
}

/** The classes of an element that a person wrote. */
export function classesWritten(view: SnapshotView, i: NodeIndex): string[] {
  return view.classes(i).filter((name) => !looksGenerated(name));
}

/** Has an id that a person wrote. */
export function isNamed(view: SnapshotView, i: NodeIndex): boolean {
  const id = view.id(i);
  return id !== '' && !looksGenerated(id);
}

/** Names that a build made up (hashes, counters) change with every build; ids of findings must not. */
export function looksGenerated(name: string): boolean {
  return /\d{4,}|^:|[_-](?=[a-z0-9]*\d[a-z])[a-z0-9]{5,}$/i.test(name) || name.length > 40;
}

/** CSSOM, section 2.1: serialise an identifier. */
export function escapeIdentifier(text: string): string {
  let out = '';
  for (const [i, char] of Array.from(text).entries()) {
    const code = char.codePointAt(0)!;
    if (code === 0) out += '\uFFFD';
    else if (
      code < 0x20 ||
      code === 0x7f ||
      (/\d/.test(char) && (i === 0 || (i === 1 && text.startsWith('-'))))
    ) {
      out += `\\${code.toString(16)} `;
    } else if (i === 0 && char === '-' && text.length === 1) out += '\\-';
    else if (code >= 0x80 || /[A-Za-z0-9_-]/.test(char)) out += char;
    else out += `\\${char}`;
  }
  return out;
}
