import type { Place } from '../page/act.js';
import type { Deadline } from './deadline.js';
import type { PageDriver, Point } from './driver.js';
import { StepFailed, WorldLost } from './failures.js';
import type { Input, WaitCondition } from './steps.js';

/** How long an input waits for its element, and a condition to come to be. */
const BOUND_MS = 5_000;
const RETRY_MS = 50;
const QUIET_MS = 300;

/**
 * Does in an open page what a user of the device would: with a finger where it has a touch screen, with the mouse elsewhere.
 * An element is waited for until it is there, shown, still and not covered.
 */
export class Dispatcher {
  constructor(
    private readonly driver: PageDriver,
    private readonly deadline: Deadline,
    private readonly isTouch: boolean,
    private readonly note: (text: string) => void,
  ) {}

  /** @throws StepFailed */
  async dispatch(input: Input): Promise<void> {
    const { driver, deadline, isTouch } = this;
    if (!driver.capabilities.has('input')) throw new StepFailed('this engine does nothing to a page.');
    switch (input.kind) {
      case 'click':
      case 'tap': {
        const at = await this.placeOf(input.selector);
        return deadline.race(isTouch ? driver.tapAt(at) : driver.clickAt(at));
      }
      case 'hover': {
        const at = await this.placeOf(input.selector);
        if (!isTouch) return deadline.race(driver.pointTo(at));
        this.note(`hover ${input.selector}: left out, a touch screen has no hover`);
        return;
      }
      case 'fill':
        return this.fill(input.selector, input.text);
      case 'press':
        if (input.selector !== null) await this.fill(input.selector, null);
        return deadline.race(driver.press(input.key));
      case 'choose': {
        await this.placeOf(input.selector);
        const result = await this.inPage(() => driver.call('choose', input.selector, input.option));
        if (result === 'none') throw new StepFailed('it is not a select field.');
        if (result === 'no-option') throw new StepFailed(`it has no option "${input.option}".`);
        return;
      }
      case 'scrollTo':
        return this.comesTrue(
          () => driver.call('scrollTo', input.place),
          () => 'nothing on the page matches it.',
        );
      case 'run': {
        const failure = await deadline.race(driver.runScript(input.script));
        if (failure !== null) throw new StepFailed(`the script failed: ${failure}`);
        return;
      }
    }
  }

  /** @throws StepFailed */
  async until(condition: WaitCondition): Promise<void> {
    const { driver, deadline } = this;
    if ('ms' in condition) return deadline.pause(condition.ms);
    if ('network' in condition) {
      return this.comesTrue(
        () => Promise.resolve(driver.network.isQuiet(QUIET_MS, Infinity)),
        () => 'the network was never quiet.',
      );
    }
    return this.comesTrue(
      () => driver.call('holds', condition),
      () => `it did not come to be within ${BOUND_MS / 1000} s.`,
    );
  }

  private async placeOf(selector: string): Promise<Point> {
    let last: Place = { state: 'missing' };
    let still = '';
    await this.comesTrue(
      async () => {
        last = await this.driver.call('locate', selector);
        if (last.state !== 'ready') return false;
        const moved = last.rect !== still;
        still = last.rect;
        return !moved;
      },
      () => whyNot(last),
    );
    return last as unknown as Point;
  }

  private async fill(selector: string, text: string | null): Promise<void> {
    await this.placeOf(selector);
    const { driver, deadline } = this;
    const kind = await this.inPage(() => driver.call('focusField', selector, text ?? ''));
    if (kind === 'none' && text !== null) throw new StepFailed('it is not a field.');
    if (kind !== 'text' || text === null) return;
    await deadline.race(text === '' ? driver.press('Delete') : driver.type(text));
  }

  private async comesTrue(test: () => Promise<boolean>, reason: () => string): Promise<void> {
    const end = performance.now() + BOUND_MS;
    while (!(await this.inPage(test))) {
      if (performance.now() > end) throw new StepFailed(reason());
      await this.deadline.pause(RETRY_MS);
    }
  }

  /** A step before may have led to another page, whose world is new. */
  private async inPage<T>(call: () => Promise<T>): Promise<T> {
    const end = performance.now() + BOUND_MS;
    for (;;) {
      try {
        return await this.deadline.race(call());
      } catch (error) {
        if (!(error instanceof WorldLost)) throw asStepFailure(error);
        if (performance.now() > end) throw new StepFailed('the page keeps going elsewhere.');
        await this.deadline.pause(RETRY_MS);
      }
    }
  }
}

function asStepFailure(error: unknown): unknown {
  const invalid = error instanceof Error && /SyntaxError.*selector/s.test(error.message);
  return invalid ? new StepFailed('it is not a valid selector.') : error;
}

function whyNot(place: Place): string {
  switch (place.state) {
    case 'missing':
      return 'nothing on the page matches it.';
    case 'hidden':
      return 'it is there, but not shown.';
    case 'disabled':
      return 'it is disabled.';
    case 'covered':
      return `${place.by} lies over it.`;
    case 'ready':
      return 'it never stopped moving.';
  }
}
