import { createHash } from 'node:crypto';
import { readFile, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import envPaths from 'env-paths';
import writeFileAtomic from 'write-file-atomic';
import * as z from 'zod';
import { IsopticError } from '../core/errors.js';
import type { Device } from '../core/profile/profile.js';
import type { Access, SignedInState } from '../engine/access.js';
import { NO_ALTERATIONS } from '../engine/job.js';
import { makeFolder } from '../engine/make-folder.js';
import type { Engine, EngineLog } from '../engine/engine.js';
import { BrowserPool } from '../engine/pool.js';
import type { Step } from '../engine/steps.js';
import type { Redact } from './plan.js';
import type { RunFolder } from './run-folder.js';

export interface SignIn {
  readonly name: string;
  /** The page that it begins at. */
  readonly at: string;
  readonly steps: readonly Step[];
  /** How long what it leaves is used again, ms. */
  readonly keepMs: number;
  /** Sets sign-ins of the same name in different configurations apart. */
  readonly scope: string;
}

export interface SignInTools {
  readonly engine: Engine;
  readonly browser: string | undefined;
  readonly device: Device;
  readonly access: Access;
  readonly folder: RunFolder;
  readonly timeoutMs: number;
  readonly signal: AbortSignal;
  readonly log: EngineLog;
  readonly redact: Redact;
}

const stateSchema = z.object({
  cookies: z.array(
    z.object({
      name: z.string(),
      value: z.string(),
      domain: z.string().optional(),
      path: z.string().optional(),
      secure: z.boolean().optional(),
      httpOnly: z.boolean().optional(),
      sameSite: z.enum(['Strict', 'Lax', 'None']).optional(),
      expires: z.number().optional(),
    }),
  ),
  storage: z.record(z.string(), z.record(z.string(), z.string())),
});

/**
 * The state that a sign-in leaves in the browser: what was kept of an earlier one where that is young enough, else
 * signs in and keeps it, readable by this user only, outside of every run folder.
 * @throws IsopticError `sign-in-failed`, exit status 3
 */
export async function signedInState(
  signIn: SignIn,
  again: boolean,
  tools: SignInTools,
): Promise<SignedInState> {
  const file = keptFile(signIn, tools.access);
  if (!again) {
    const kept = await readKept(file, signIn.keepMs);
    if (kept) return kept;
  }
  const state = await signInNow(signIn, tools);
  await keep(file, state);
  return state;
}

async function signInNow(signIn: SignIn, tools: SignInTools): Promise<SignedInState> {
  const { engine, browser, device, access, folder, timeoutMs, signal, log, redact } = tools;
  const pool = new BrowserPool(engine, {
    executable: browser,
    fonts: 'host',
    concurrency: 1,
    browsers: 1,
    log,
  });
  try {
    const outcome = await pool.render({
      url: signIn.at,
      device,
      access,
      timeoutMs,
      signal,
      shots: { fold: false, full: false },
      preparations: [{ name: signIn.name, steps: signIn.steps }],
      alter: NO_ALTERATIONS,
      locate: [],
      keepState: true,
    });
    if (outcome.status === 'ok') return outcome.signedIn ?? { cookies: [], storage: {} };
    const picture =
      outcome.picture && (await folder.write('sign-in.failed.png', outcome.picture).catch(() => null));
    throw new IsopticError(
      'sign-in-failed',
      `The sign-in "${signIn.name}" failed on ${device.name}: ${redact(outcome.error.message)}`,
      picture ? `What was there: ${folder.full(picture)}` : 'Is the address right?',
      3,
    );
  } finally {
    await pool.close();
  }
}

/** Where the state of a sign-in is kept. A changed one is another one, and so is one with another user or password. */
export function keptFile({ name, scope, at, steps }: SignIn, { credentials, headers }: Access): string {
  const actions = steps.map(({ action }) => action);
  const all = JSON.stringify([scope, name, at, actions, credentials, headers]);
  const key = createHash('sha256').update(all).digest('hex').slice(0, 24);
  return join(envPaths('isoptic', { suffix: '' }).data, 'signed-in', `${key}.json`);
}

async function readKept(file: string, keepMs: number): Promise<SignedInState | null> {
  try {
    const { mtimeMs } = await stat(file);
    if (Date.now() - mtimeMs > keepMs) return null;
    return stateSchema.parse(JSON.parse(await readFile(file, 'utf8')));
  } catch {
    return null;
  }
}

/** A state that can't be kept is no reason not to use it. */
async function keep(file: string, state: SignedInState): Promise<void> {
  try {
    await makeFolder(dirname(file), 0o700);
    await writeFileAtomic(file, JSON.stringify(state), { mode: 0o600 });
  } catch {
    // The next run signs in again.
  }
}
