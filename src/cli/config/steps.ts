import * as z from 'zod';
import { KEY_NAMES, keyEvent } from '../../engine/keys.js';
import type { Step, StepAction } from '../../engine/steps.js';
import { selectorSchema } from './selector.js';
import { secretSchema, type Secrets } from './secrets.js';

const waitShape = {
  selector: selectorSchema,
  gone: selectorSchema,
  text: z.string().min(1),
  network: z.literal('quiet'),
  ms: z.number().int().min(0).max(60_000),
};

const key = z
  .string()
  .refine(
    (text) => keyEvent(text) !== null,
    `must be a key such as ${KEY_NAMES.slice(0, 4).join(', ')} or Control+A`,
  );

/** What a step may be; each has exactly one of these keys. */
const stepShape = {
  go: z.string().min(1),
  click: selectorSchema,
  tap: selectorSchema,
  hover: selectorSchema,
  fill: z.strictObject({ in: selectorSchema, with: secretSchema }),
  press: z.union([key, z.strictObject({ key, in: selectorSchema })]),
  choose: z.strictObject({ in: selectorSchema, option: z.string() }),
  scrollTo: z.union([z.string().min(1), z.strictObject({ x: z.number(), y: z.number() })]),
  wait: z
    .strictObject(waitShape)
    .partial()
    .refine(hasOneKey, `must have exactly one of ${Object.keys(waitShape).join(', ')}`),
  run: z.union([z.string().min(1), z.strictObject({ file: z.string().min(1) })]),
  mark: z
    .string()
    .min(1)
    .max(60)
    .regex(/[\p{L}\p{N}]/u, 'must have a letter or a digit'),
};

export const stepSchema = z
  .strictObject(stepShape)
  .partial()
  .refine(hasOneKey, `must have exactly one of ${Object.keys(stepShape).join(', ')}`);

export const stepsSchema = z.array(stepSchema).min(1);

function hasOneKey(value: object): boolean {
  return Object.keys(value).length === 1;
}

/**
 * Steps as the engine does them.
 * @param whereOf the place of a step, `file:line`, by its index
 * @throws IsopticError `secret-missing`, `script-unreadable`
 */
export async function toSteps(
  written: z.output<typeof stepsSchema>,
  whereOf: (index: number) => string,
  secrets: Secrets,
): Promise<Step[]> {
  return Promise.all(
    written.map(async (step, i) => ({
      action: await toAction(step, whereOf(i), secrets),
      where: whereOf(i),
      number: i + 1,
    })),
  );
}

async function toAction(
  step: z.output<typeof stepSchema>,
  where: string,
  secrets: Secrets,
): Promise<StepAction> {
  if (step.go !== undefined) return { kind: 'go', to: step.go };
  if (step.click !== undefined) return { kind: 'click', selector: step.click };
  if (step.tap !== undefined) return { kind: 'tap', selector: step.tap };
  if (step.hover !== undefined) return { kind: 'hover', selector: step.hover };
  if (step.fill) {
    return { kind: 'fill', selector: step.fill.in, text: await secrets.read(step.fill.with, where) };
  }
  if (step.press !== undefined) {
    return typeof step.press === 'string'
      ? { kind: 'press', key: step.press, selector: null }
      : { kind: 'press', key: step.press.key, selector: step.press.in };
  }
  if (step.choose) return { kind: 'choose', selector: step.choose.in, option: step.choose.option };
  if (step.scrollTo !== undefined) return { kind: 'scrollTo', place: step.scrollTo };
  if (step.wait) return { kind: 'wait', until: step.wait as Extract<StepAction, { kind: 'wait' }>['until'] };
  if (step.run !== undefined) {
    return {
      kind: 'run',
      script: typeof step.run === 'string' ? step.run : await secrets.readFile(step.run.file, where),
    };
  }
  return { kind: 'mark', state: step.mark! };
}
