import { measuringCanvas } from './measuring-canvas.js';

/** Text that any Latin face has glyphs of: one measurement of the face holds for all of it. */
const LATIN = /^[\p{ASCII}\u0080-\u024f\u2000-\u206f\u20a0-\u20bf]*$/u;
const NOT_LATIN = /[^\p{ASCII}\u0080-\u024f]/u;
/** Faces are measured at this size, CSS px, and told in em. */
const SIZE = 100;
const MAX_SAMPLE = 40;
/** Past these a page makes up faces to keep us busy. */
const MAX_FACES = 500;

/** Four numbers, as `LayoutSnapshot.faces` has them; null where they can't be told. */
type Face = readonly [number, number, number, number] | null;

/** What was measured, for as long as the page has the same faces loaded. */
const measured = new Map<string, Face>();
let measuredOf: readonly string[] = [];

/** Which faces the page brought, and how far each is loaded. */
const facesNow = () =>
  [...document.fonts].map(({ family, weight, status }) => `${family} ${weight} ${status}`);

/** How the letters of a face stand in a line's box. Every face is measured once a script. */
export class FaceReader {
  readonly rows: number[] = [];
  private readonly numbers = new Map<string, number>();
  private canvas: CanvasRenderingContext2D | null = null;
  private lastFamily = '';

  constructor() {
    const now = facesNow();
    if (now.length === measuredOf.length && now.every((face, i) => face === measuredOf[i])) return;
    measured.clear();
    measuredOf = now;
  }

  /** The row of a face as it draws a text; −1 where it can't be told. */
  number(family: string, text: string): number {
    const sample = text.slice(0, MAX_SAMPLE);
    const isLatin = LATIN.test(sample);
    const block = isLatin ? '' : String((NOT_LATIN.exec(sample)?.[0]?.codePointAt(0) ?? 0) >> 7);
    const key = `${block} ${family}`;
    let row = this.numbers.get(key);
    if (row === undefined) {
      row = this.add(key, family, isLatin ? null : sample);
      this.numbers.set(key, row);
    }
    return row;
  }

  private add(key: string, family: string, sample: string | null): number {
    if (this.rows.length >= 4 * MAX_FACES) return -1;
    let face = measured.get(key);
    if (face === undefined) {
      face = this.measure(family, sample);
      // What letters of another script look like hangs on which they are.
      if (sample === null) measured.set(key, face);
    }
    if (face === null) return -1;
    this.rows.push(...face);
    return this.rows.length / 4 - 1;
  }

  /** @param sample what is measured; null for the letters of a Latin face */
  private measure(family: string, sample: string | null): Face {
    this.canvas ??= measuringCanvas();
    const { canvas } = this;
    if (!canvas) return null;
    if (family !== this.lastFamily) canvas.font = `${SIZE}px ${family}`;
    this.lastFamily = family;
    const capitals = canvas.measureText(sample ?? 'H');
    const { fontBoundingBoxAscent: ascent, fontBoundingBoxDescent: descent } = capitals;
    const height = (ascent + descent) / SIZE;
    if (!(height > 0.5 && height < 5)) return null;
    const rise = capitals.actualBoundingBoxAscent / SIZE;
    const drop = canvas.measureText(sample ?? 'p').actualBoundingBoxDescent / SIZE;
    const inEm = (value: number) => Math.round(value * 1000) / 1000;
    return [inEm(ascent / (ascent + descent)), inEm(rise), inEm(Math.max(0, drop)), inEm(height)];
  }
}
