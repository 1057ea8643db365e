export const twoDigits = (n: number): string => String(n).padStart(2, '0');

/** `2026-11-23`, by the clock of this machine. */
export function localDay(date: Date): string {
  return [date.getFullYear(), twoDigits(date.getMonth() + 1), twoDigits(date.getDate())].join('-');
}
