import type { ExitStatus } from '../core/errors.js';
import type { Comparison } from '../run/compare/record.js';
import { isDiffering } from '../report/view/differing.js';

/** What a comparison fails on. */
export const CHANGE_FAIL_ON = ['new-error', 'new-warning', 'change', 'never'] as const;
export type ChangeFailOn = (typeof CHANGE_FAIL_ON)[number];

/** The status that a comparison ends with. */
export function changeStatusOf(
  { pairs, findings, notes }: Pick<Comparison, 'pairs' | 'findings' | 'notes'>,
  failOn: ChangeFailOn,
): ExitStatus {
  if (notes.some((note) => note.startsWith('interrupted'))) return 130;
  if (failOn === 'never') return 0;
  const fresh = findings.new.filter(({ waived }) => !waived);
  if (fresh.some(({ severity }) => severity === 'error')) return 1;
  if (failOn === 'new-error') return 0;
  if (fresh.some(({ severity }) => severity === 'warning')) return 1;
  if (failOn === 'new-warning') return 0;
  return pairs.some(isDiffering) || findings.new.length + findings.gone.length > 0 ? 1 : 0;
}
