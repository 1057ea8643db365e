/** A number for a message that needs a fraction: at most one digit after the point, none when it is 0. */
export function tidy(value: number): string {
  return String(Math.round(value * 10) / 10);
}

/** A length for a message: nobody reads tenths of a px off a screen. */
export function px(length: number): string {
  const whole = Math.round(length);
  return whole === 0 && length > 0 ? 'less than 1 px' : `${whole} px`;
}

/** A size for a message. */
export function sizeText({ width, height }: { readonly width: number; readonly height: number }): string {
  return `${Math.max(1, Math.round(width))} × ${Math.max(1, Math.round(height))} px`;
}

/** So many of a thing: `1 line`, `3 lines`. */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}
