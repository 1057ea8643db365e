const WORDS: Readonly<Record<string, readonly [one: string, many: string]>> = {
  sticky: ['sticks to the screen', 'stick to the screen'],
  fixed: ['is fixed to the screen', 'are fixed to the screen'],
  absolute: ['leaves the flow', 'leave the flow'],
};

/** Positions that a reader sees: the others leave a box where its neighbours do. */
const SEEN = /sticky|fixed|absolute/;

/** Whether one of two values of `position` is seen, and they differ. */
export function isPositionChange(from: string, to: string): boolean {
  return from !== to && (SEEN.test(from) || SEEN.test(to));
}

/** What becomes of an element that is positioned otherwise, of one and of several. */
export function positionWords(from: string, to: string): { readonly one: string; readonly many: string } {
  const [one, many] =
    WORDS[to] ??
    (from === 'absolute'
      ? (['returns to the flow', 'return to the flow'] as const)
      : (['scrolls with the page', 'scroll with the page'] as const));
  return { one, many };
}
