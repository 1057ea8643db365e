/** Gives every distinct string a number. */
export class Interner {
  readonly strings: string[] = [];
  private readonly numbers = new Map<string, number>();

  number(text: string): number {
    let n = this.numbers.get(text);
    if (n === undefined) {
      n = this.strings.length;
      this.strings.push(text);
      this.numbers.set(text, n);
    }
    return n;
  }
}

/** Gives every distinct row of numbers a number; `flat` holds the rows one after the other. */
export class RowInterner {
  readonly flat: number[] = [];
  private readonly numbers = new Map<string, number>();

  number(row: readonly number[]): number {
    const key = row.join(',');
    let n = this.numbers.get(key);
    if (n === undefined) {
      n = this.numbers.size;
      this.numbers.set(key, n);
      for (const value of row) this.flat.push(value);
    }
    return n;
  }
}

/** Thousandths of a CSS px: finer than any browser lays out (1/64 px), and short when written. */
export function px(value: number): number {
  return Math.round(value * 1000) / 1000;
}
