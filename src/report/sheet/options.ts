/** How a contact sheet is laid out and drawn. Lengths are px of the sheet. */
export interface SheetOptions {
  readonly scale: SheetScale;
  /** The first screen, the whole page, or the element that a selector matches. */
  readonly part: 'fold' | 'full' | { readonly selector: string };
  /** Of the highest screen, or of the strips that a long page is cut into. */
  readonly height: number;
  /** Profiles a row; null for as many as make the sheet about as wide as it is good to look at. */
  readonly columns: number | null;
  readonly gap: number;
  readonly ground: 'light' | 'dark';
  readonly labels: boolean;
  /** Whether findings are outlined. */
  readonly marks: boolean;
  /** Whether devices are drawn round their screens. */
  readonly frame: boolean;
  /** The longest that a side of the sheet may be; a larger one is made smaller. */
  readonly largest: number;
}

export const SHEET_SCALES = ['fit', 'true', 'css'] as const;
export type SheetScale = (typeof SHEET_SCALES)[number];

export const GROUNDS = {
  light: {
    ground: '#f1f2f4',
    ink: '#1d2024',
    soft: '#5a6067',
    body: '#3a3f45',
    bar: '#d5d8dc',
    line: '#b9bdc3',
  },
  dark: {
    ground: '#16181b',
    ink: '#eceef0',
    soft: '#a6adb5',
    body: '#4a5058',
    bar: '#2b2f34',
    line: '#4a5058',
  },
} as const;

/** What shows a finding in a drawing on light ground, by its severity. */
export const SEVERITY_TONES = { error: '#b8123b', warning: '#8f4a00', notice: '#5a6067' } as const;
