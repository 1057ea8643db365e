/**
 * How many elements the experiments on one render may lay out, all together: a page with a hundred defects is not measured a thousand times.
 * Counted, not timed: the same page gets the same causes on a busy machine.
 */
const MOST_LAID_OUT = 150_000;
/** Even of a large page there are so many experiments, and no more of a small one. */
const EXPERIMENTS = { least: 12, most: 200 };
/** How many experiments a defect takes, by and large: what a render could not get through is left to the next that shows it. */
const OF_A_DEFECT = 3;
/** A page that lays itself out so slowly is given up. */
const GIVEN_UP_MS = 15_000;

/** What experiments on one render may still take. */
export class ExperimentBudget {
  private left: number;
  /** So many defects of a render are looked into. */
  readonly defects: number;
  private readonly until = performance.now() + GIVEN_UP_MS;

  /** @param elements of the page */
  constructor(elements: number) {
    this.left = Math.min(EXPERIMENTS.most, Math.max(EXPERIMENTS.least, MOST_LAID_OUT / elements));
    this.defects = Math.floor(this.left / OF_A_DEFECT);
  }

  take(): void {
    this.left--;
  }

  isSpent(): boolean {
    return this.left < 1 || this.isGivenUp();
  }

  isGivenUp(): boolean {
    return performance.now() > this.until;
  }
}
