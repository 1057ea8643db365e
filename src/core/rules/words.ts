/** A length for a message: at most one digit after the point, none when it is 0. */
export function px(length: number): string {
  return `${String(Math.round(length * 10) / 10)} px`;
}

/** The start of a text, for a message. */
export function excerpt(text: string): string {
  const folded = text.trim().replace(/\s+/g, ' ');
  return folded.length > 40 ? `${folded.slice(0, 38).trimEnd()}…` : folded;
}
