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

type Waivable = Pick<Finding, 'id' | 'rule' | 'selector' | 'related' | 'page'>;

/** Which waiver each finding falls under, and what became of the waivers. */
export interface Accepted {
  /** By the finding's id. */
  readonly waived: ReadonlyMap<string, Waiver>;
  readonly uses: WaiverUse[];
}

/** @param today `YYYY-MM-DD` */
export function applyWaivers(
  findings: readonly Waivable[],
  waivers: readonly Waiver[],
  today: string,
): Accepted {
  const waived = new Map<string, Waiver>();
  const uses = waivers.map((waiver): WaiverUse => {
    if (waiver.until < today) return { ...waiver, state: 'expired' };
    const held = findings.filter((finding) => isUnder(finding, waiver));
    for (const { id } of held) if (!waived.has(id)) waived.set(id, waiver);
    return { ...waiver, state: held.length > 0 ? 'used' : 'unused' };
  });
  return { waived, uses };
}

/** Whether a waiver is for the part that one page has of a finding: it is applied before pages are put together. */
export function isForOnePage(waiver: Waiver): boolean {
  return waiver.page !== undefined && waiver.finding === undefined;
}

function isUnder(finding: Waivable, waiver: Waiver): boolean {
  if (waiver.finding !== undefined) return waiver.finding === finding.id;
  if (waiver.rule !== finding.rule) return false;
  if (waiver.page !== undefined && waiver.page !== finding.page) return false;
  return waiver.selector === undefined || [finding.selector, ...finding.related].includes(waiver.selector);
}
