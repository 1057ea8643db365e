/** What a width is to a reader: a phone's, a tablet's, or more. */
export const WIDTH_CLASSES = ['narrow', 'medium', 'wide'] as const;
export type WidthClass = (typeof WIDTH_CLASSES)[number];

/** The least widths of the classes after the first, CSS px. */
const MEDIUM = 600;
const WIDE = 1024;

/** @param width of a viewport, CSS px */
export function widthClass(width: number): WidthClass {
  if (width < MEDIUM) return 'narrow';
  return width < WIDE ? 'medium' : 'wide';
}
