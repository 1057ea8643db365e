import type { Finding, Seen } from './finding.js';

/** Where a finding was seen, once it goes under another finding's message: what is said otherwise there is said there. */
export function seenUnder(
  message: string,
  { seen, message: usual }: Pick<Finding, 'seen' | 'message'>,
): Seen[] {
  return seen.map(({ message: own = usual, ...entry }) =>
    own === message ? entry : { ...entry, message: own },
  );
}
