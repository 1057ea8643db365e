/** A number for a message: at most one digit after the point, none when it is 0. */
export function tidy(value: number): string {
  return String(Math.round(value * 10) / 10);
}

/** A length for a message. */
export function px(length: number): string {
  return `${tidy(length)} px`;
}
