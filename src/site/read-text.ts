import { readFile } from 'node:fs/promises';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { IsopticError, messageOf } from '../core/errors.js';

const TIMEOUT_MS = 20_000;
/** Sitemaps may have 50 MB (sitemaps.org); nothing that is read here should have more. */
const MAX_BYTES = 50 * 1024 * 1024;

export interface Fetched {
  readonly text: string;
  readonly contentType: string;
  /** After redirects. */
  readonly url: string;
}

/** Whether a target is written as a URL. */
export function isUrl(text: string): boolean {
  return /^[a-z][a-z0-9+.-]*:\/\//i.test(text);
}

/** Reads a URL; gzip is unpacked. Null for an answer that is not 200. @throws IsopticError `unreadable` */
export async function fetchText(url: string): Promise<Fetched | null> {
  try {
    const answer = await fetch(url, { signal: AbortSignal.timeout(TIMEOUT_MS), headers: { accept: '*/*' } });
    if (!answer.ok) {
      await answer.body?.cancel();
      return null;
    }
    const text = await unpacked(Buffer.from(await answer.arrayBuffer()));
    return { text, contentType: answer.headers.get('content-type') ?? '', url: answer.url };
  } catch (error) {
    throw new IsopticError(
      'unreadable',
      `${url}: can not be read (${reasonOf(error)}).`,
      'Is the server running, and the address right?',
    );
  }
}

/** Reads a file or a URL as text; gzip is unpacked. @throws IsopticError `unreadable` */
export async function readText(where: string): Promise<string> {
  if (isUrl(where)) {
    const fetched = await fetchText(where);
    if (fetched) return fetched.text;
    throw new IsopticError(
      'unreadable',
      `${where}: the server did not answer with 200.`,
      'Is the address right?',
    );
  }
  try {
    return await unpacked(await readFile(where));
  } catch (error) {
    throw new IsopticError(
      'unreadable',
      `${where}: can not be read (${messageOf(error)}).`,
      'Is the path right?',
    );
  }
}

async function unpacked(bytes: Buffer): Promise<string> {
  const isGzip = bytes[0] === 0x1f && bytes[1] === 0x8b;
  const plain = isGzip ? await promisify(gunzip)(bytes, { maxOutputLength: MAX_BYTES }) : bytes;
  if (plain.length > MAX_BYTES) throw new Error('it is larger than 50 MB');
  return plain.toString('utf8');
}

function reasonOf(error: unknown): string {
  const cause = error instanceof Error ? error.cause : undefined;
  return cause instanceof Error ? cause.message : messageOf(error);
}
