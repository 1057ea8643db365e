import { calc } from '@csstools/css-calc';

/** A computed length in CSS px; null for keywords, percentages and everything else that is none. */
export function pxOf(value: string): number | null {
  return /^-?[\d.]+px$/.test(value) ? Number.parseFloat(value) : null;
}

/**
 * A computed length, percentage or math function of both (CSS Values 4, section 10) in CSS px; NaN for everything else.
 * @param whole what 100 % is, CSS px
 */
export function lengthOf(value: string, whole: number): number {
  if (/^-?[\d.]+%$/.test(value)) return (Number.parseFloat(value) / 100) * whole;
  if (/^-?[\d.]+(px)?$/.test(value)) return Number.parseFloat(value);
  if (!value.endsWith(')')) return Number.NaN;
  const inPx = value.replace(/([\d.]+)%/g, (_, percent: string) => `${(Number(percent) / 100) * whole}px`);
  return pxOf(calc(inPx)) ?? Number.NaN;
}
