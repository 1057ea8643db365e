/** A computed length in CSS px; null for keywords, percentages and everything else that is none. */
export function pxOf(value: string): number | null {
  return /^-?[\d.]+px$/.test(value) ? Number.parseFloat(value) : null;
}
