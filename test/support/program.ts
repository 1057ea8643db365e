import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { createServer, type RequestListener, type Server } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { manifestSchema, type Manifest } from '../../src/run/manifest.js';

export const MAIN = resolve('dist/cli/main.js');

export interface Outcome {
  readonly status: number | null;
  readonly stdout: string;
  readonly stderr: string;
}

export interface RunOptions {
  readonly cwd?: string;
  readonly env?: Readonly<Record<string, string | undefined>>;
  /** Called with the running child, to signal it. */
  readonly during?: (child: ChildProcess) => void | Promise<void>;
}

/** Starts the built program as a user would and waits for its end. */
export async function isoptic(args: readonly string[], options: RunOptions = {}): Promise<Outcome> {
  const child = spawn(process.execPath, [MAIN, ...args], {
    cwd: options.cwd,
    env: { ...process.env, NO_COLOR: '1', ...options.env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let stdout = '';
  let stderr = '';
  child.stdout.setEncoding('utf8').on('data', (text: string) => (stdout += text));
  child.stderr.setEncoding('utf8').on('data', (text: string) => (stderr += text));
  const ended = new Promise<number | null>((resolve) => child.once('close', (status) => resolve(status)));
  await options.during?.(child);
  return { status: await ended, stdout, stderr };
}

/** The manifest that `--json` printed, held against the schema. */
export function manifestOf(outcome: Outcome): Manifest {
  return manifestSchema.parse(JSON.parse(outcome.stdout));
}

export async function readManifest(folder: string): Promise<Manifest> {
  return manifestSchema.parse(JSON.parse(await readFile(join(folder, 'run.json'), 'utf8')));
}

/** A temporary folder for one test file; `dispose` removes it. */
export async function temporaryFolder(): Promise<{ path: string; dispose: () => Promise<void> }> {
  const path = await mkdtemp(join(tmpdir(), 'isoptic-test-'));
  return { path, dispose: () => rm(path, { recursive: true, force: true, maxRetries: 3 }) };
}

/** A loopback server for one test file. */
export async function serve(
  listener: RequestListener,
  tls?: { readonly key: string; readonly cert: string },
): Promise<{ origin: string; close: () => Promise<void> }> {
  const server: Server = tls ? createSecureServer(tls, listener) : createServer(listener);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    origin: `${tls ? 'https' : 'http'}://127.0.0.1:${(server.address() as AddressInfo).port}`,
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
}

/** Command lines of the processes that a process started, itself left out, at any depth (Linux). */
export async function descendants(pid: number): Promise<{ pid: number; command: string }[]> {
  const children = await readFile(`/proc/${pid}/task/${pid}/children`, 'utf8').catch(() => '');
  const direct = children.split(' ').filter(Boolean).map(Number);
  const all = await Promise.all(
    direct.map(async (child) => {
      const command = await readFile(`/proc/${child}/cmdline`, 'utf8').catch(() => '');
      return [{ pid: child, command: command.replaceAll('\0', ' ') }, ...(await descendants(child))];
    }),
  );
  return all.flat();
}

export function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}

export async function until(test: () => boolean | Promise<boolean>, ms = 20_000): Promise<void> {
  const end = Date.now() + ms;
  while (!(await test())) {
    if (Date.now() > end) throw new Error(`not so after ${ms} ms`);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}
