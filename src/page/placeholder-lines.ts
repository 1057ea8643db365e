import { textWidth } from './text-width.js';

/** What `line-height: normal` comes to, about, em. */
const NORMAL = 1.2;

/**
 * How high a placeholder stands in a text area, which can't be scrolled to what it does not show of one, CSS px.
 * @param room for a line, CSS px
 */
export function placeholderHeight(text: string, style: CSSStyleDeclaration, room: number): number {
  const own = Number.parseFloat(style.lineHeight);
  const line = Number.isFinite(own) ? own : NORMAL * Number.parseFloat(style.fontSize);
  return line * text.split('\n').reduce((sum, paragraph) => sum + linesIn(paragraph, style.font, room), 0);
}

/** Words are put into a line for as long as there is room, and broken where one is longer than that (CSS Text 3, section 5). */
function linesIn(paragraph: string, font: string, room: number): number {
  if (room <= 0) return 1;
  const space = textWidth(' ', font) ?? 0;
  let lines = 1;
  let used = 0;
  for (const word of paragraph.split(/\s+/)) {
    const width = textWidth(word, font) ?? 0;
    if (used > 0 && used + space + width > room) [lines, used] = [lines + 1, 0];
    const broken = Math.max(0, Math.ceil(width / room) - 1);
    lines += broken;
    used += (used > 0 ? space : 0) + width - broken * room;
  }
  return lines;
}
