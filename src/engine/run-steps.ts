import { StepFailed } from './failures.js';
import type { PageSession } from './page-session.js';
import { stepText, type Preparation, type StepAction } from './steps.js';

/**
 * Does the steps of one preparation.
 * @param url the page's own address, which `go` steps are relative to
 * @param onMark is called where a state is to be captured
 * @throws StepFailed with the step's place, what it was, and why it could not be done
 */
export async function runSteps(
  page: PageSession,
  { name, steps }: Preparation,
  url: string,
  onMark: (state: string) => Promise<void>,
): Promise<void> {
  for (const step of steps) {
    try {
      await run(page, step.action, url, onMark);
    } catch (error) {
      if (!(error instanceof StepFailed)) throw error;
      throw new StepFailed(
        `${step.where}: step ${step.number} of "${name}" (${stepText(step)}): ${error.message}`,
      );
    }
  }
}

function run(
  page: PageSession,
  action: StepAction,
  url: string,
  onMark: (state: string) => Promise<void>,
): Promise<void> {
  switch (action.kind) {
    case 'go':
      return page.go(new URL(action.to, url).href);
    case 'wait':
      return page.until(action.until);
    case 'mark':
      return onMark(action.state);
    default:
      return page.dispatch(action);
  }
}
