import type { CDPSession } from 'puppeteer-core';
import type { Device } from '../../core/profile/profile.js';
import type { Place } from '../../page/act.js';
import type { Deadline } from '../deadline.js';
import { stepText, type Preparation, type StepAction, type WaitCondition } from '../steps.js';
import { keyEvent } from './keys.js';
import type { NetworkWatch } from './network.js';
import { isLostContext, type PageWorld } from './page-world.js';

/** How long a step waits for its element or its condition. */
const STEP_MS = 5_000;
const RETRY_MS = 50;
const QUIET_MS = 300;

/** A step that could not be done. */
export class StepFailed extends Error {
  override readonly name = 'StepFailed';
}

export interface StepTools {
  readonly session: CDPSession;
  readonly world: PageWorld;
  readonly network: NetworkWatch;
  readonly device: Device;
  readonly deadline: Deadline;
  readonly notes: Set<string>;
  /** Goes to another address and waits for it. */
  readonly go: (url: string) => Promise<void>;
  readonly onMark: (state: string) => Promise<void>;
}

/**
 * Does the steps of one preparation as a user of the device would: with a finger where it has a touch screen, with the
 * mouse elsewhere.
 * @throws StepFailed with the step's place, what it was, and why it could not be done
 */
export async function runSteps(preparation: Preparation, url: string, tools: StepTools): Promise<void> {
  const runner = new StepRunner(url, tools);
  for (const step of preparation.steps) {
    try {
      await runner.run(step.action);
    } catch (error) {
      if (!(error instanceof StepFailed)) throw error;
      throw new StepFailed(
        `${step.where}: step ${step.number} of "${preparation.name}" (${stepText(step)}): ${error.message}`,
      );
    }
  }
}

class StepRunner {
  constructor(
    private readonly url: string,
    private readonly tools: StepTools,
  ) {}

  async run(action: StepAction): Promise<void> {
    const { session, device, deadline } = this.tools;
    const isTouch = device.touchPoints > 0;
    switch (action.kind) {
      case 'go':
        return this.tools.go(new URL(action.to, this.url).href);
      case 'click':
      case 'tap': {
        const at = await this.placeOf(action.selector);
        return isTouch ? this.touch(at) : this.mouse(at, true);
      }
      case 'hover': {
        const at = await this.placeOf(action.selector);
        if (isTouch) {
          this.tools.notes.add(`hover ${action.selector}: left out, a touch screen has no hover`);
          return;
        }
        return this.mouse(at, false);
      }
      case 'fill':
        return this.fill(action.selector, action.text);
      case 'press': {
        if (action.selector !== null) await this.fill(action.selector, null);
        const key = keyEvent(action.key)!;
        await deadline.race(session.send('Input.dispatchKeyEvent', { type: 'keyDown', ...key }));
        await deadline.race(session.send('Input.dispatchKeyEvent', { type: 'keyUp', ...key }));
        return;
      }
      case 'choose': {
        await this.placeOf(action.selector);
        const result = await this.inPage(() =>
          this.tools.world.call('choose', action.selector, action.option),
        );
        if (result === 'none') throw new StepFailed('it is not a select field.');
        if (result === 'no-option') throw new StepFailed(`it has no option "${action.option}".`);
        return;
      }
      case 'scrollTo':
        return this.until(
          () => this.tools.world.call('scrollTo', action.place),
          () => 'nothing on the page matches it.',
        );
      case 'wait':
        return this.wait(action.until);
      case 'run':
        return this.script(action.script);
      case 'mark':
        return this.tools.onMark(action.state);
    }
  }

  /** Waits until an element is there, shown, still and not covered. */
  private async placeOf(selector: string): Promise<{ x: number; y: number }> {
    let last: Place = { state: 'missing' };
    let still = '';
    await this.until(
      async () => {
        last = await this.tools.world.call('locate', selector);
        if (last.state !== 'ready') return false;
        const moved = last.rect !== still;
        still = last.rect;
        return !moved;
      },
      () => whyNot(last),
    );
    return last as unknown as { x: number; y: number };
  }

  private async fill(selector: string, text: string | null): Promise<void> {
    await this.placeOf(selector);
    const { world, session, deadline } = this.tools;
    const kind = await this.inPage(() => world.call('focusField', selector, text ?? ''));
    if (kind === 'none' && text !== null) throw new StepFailed('it is not a field.');
    if (kind !== 'text' || text === null) return;
    if (text === '') {
      const key = keyEvent('Delete')!;
      await deadline.race(session.send('Input.dispatchKeyEvent', { type: 'keyDown', ...key }));
      return;
    }
    await deadline.race(session.send('Input.insertText', { text }));
  }

  private async mouse({ x, y }: { x: number; y: number }, press: boolean): Promise<void> {
    const send = (type: 'mouseMoved' | 'mousePressed' | 'mouseReleased') =>
      this.tools.deadline.race(
        this.tools.session.send('Input.dispatchMouseEvent', {
          type,
          x,
          y,
          ...(type !== 'mouseMoved' && { button: 'left' as const, clickCount: 1 }),
        }),
      );
    await send('mouseMoved');
    if (!press) return;
    await send('mousePressed');
    await send('mouseReleased');
  }

  private async touch({ x, y }: { x: number; y: number }): Promise<void> {
    const { session, deadline } = this.tools;
    const touchPoints = [{ x: Math.round(x), y: Math.round(y) }];
    await deadline.race(session.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints }));
    await deadline.race(session.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] }));
  }

  private async wait(until: WaitCondition): Promise<void> {
    const { network, deadline, world } = this.tools;
    if ('ms' in until) {
      await deadline.race(new Promise((resolve) => setTimeout(resolve, until.ms)));
      return;
    }
    if ('network' in until) {
      await this.until(
        () => Promise.resolve(network.isQuiet(QUIET_MS, Infinity)),
        () => 'the network was never quiet.',
      );
      return;
    }
    await this.until(
      () => world.call('holds', until),
      () => `it did not come to be within ${STEP_MS / 1000} s.`,
    );
  }

  /** In the page's own world: a script of the user's is meant to reach what the page made. */
  private async script(expression: string): Promise<void> {
    const { exceptionDetails } = await this.tools.deadline.race(
      this.tools.session.send('Runtime.evaluate', {
        expression: `(async () => { ${expression}\n})()`,
        awaitPromise: true,
        userGesture: true,
      }),
    );
    if (exceptionDetails) {
      const text = exceptionDetails.exception?.description ?? exceptionDetails.text;
      throw new StepFailed(`the script failed: ${text.split('\n', 1)[0]!}`);
    }
  }

  private async until(test: () => Promise<boolean>, reason: () => string): Promise<void> {
    const end = performance.now() + STEP_MS;
    while (!(await this.inPage(test))) {
      if (performance.now() > end) throw new StepFailed(reason());
      await this.tools.deadline.race(new Promise((resolve) => setTimeout(resolve, RETRY_MS)));
    }
  }

  /** A step before may have led to another page, whose world is new. */
  private async inPage<T>(call: () => Promise<T>): Promise<T> {
    const end = performance.now() + STEP_MS;
    for (;;) {
      try {
        return await call();
      } catch (error) {
        if (!isLostContext(error)) throw asStepFailure(error);
        if (performance.now() > end) throw new StepFailed('the page keeps going elsewhere.');
        await this.tools.deadline.race(new Promise((resolve) => setTimeout(resolve, RETRY_MS)));
        await this.tools.world.enter().catch((lost: unknown) => {
          if (!isLostContext(lost)) throw lost;
        });
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
