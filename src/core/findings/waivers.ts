import type { Finding } from './finding.js';

/** A finding that the user has accepted. */
export interface Waiver {
  /** The finding's id; or else `rule`, and where it is needed `selector` and `page`. */
  readonly finding?: string | undefined;
  readonly rule?: string | undefined;
  readonly selector?: string | undefined;
  readonly page?: string | undefined;
  readonly reason: string;
  readonly who: string;
  /** The last day on which it holds, `YYYY-MM-DD`. */
  readonly until: string;
}

export interface WaiverUse extends Waiver {
  readonly state: 'used' | 'unused' | 'expired';
}

/**
 * Which waiver a finding falls under, and what became of each waiver.
 * @param today `YYYY-MM-DD`
 */
export function applyWaivers(
  findings: readonly Pick<Finding, 'id' | 'rule' | 'selector' | 'related' | 'page'>[],
  waivers: readonly Waiver[],
  today: string,
): { readonly waived: ReadonlyMap<string, Waiver>; readonly uses: WaiverUse[] } {
  const waived = new Map<string, Waiver>();
  const uses = waivers.map((waiver): WaiverUse => {
    if (waiver.until < today) return { ...waiver, state: 'expired' };
    const held = findings.filter((finding) => isUnder(finding, waiver));
    for (const { id } of held) if (!waived.has(id)) waived.set(id, waiver);
    return { ...waiver, state: held.length > 0 ? 'used' : 'unused' };
  });
  return { waived, uses };
}

function isUnder(
  finding: Pick<Finding, 'id' | 'rule' | 'selector' | 'related' | 'page'>,
  waiver: Waiver,
): boolean {
  if (waiver.finding !== undefined) return waiver.finding === finding.id;
  if (waiver.rule !== finding.rule) return false;
  if (waiver.page !== undefined && waiver.page !== finding.page) return false;
  return waiver.selector === undefined || [finding.selector, ...finding.related].includes(waiver.selector);
}
