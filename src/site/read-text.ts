import { readFile } from 'node:fs/promises';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { IsopticError, messageOf } from '../core/errors.js';
import type * as HttpClient from './http-client.js';
import { isTrustedOrigin, NO_ACCESS, type Access } from '../engine/access.js';

const TIMEOUT_MS = 20_000;
const MAX_REDIRECTS = 10;
/** Sitemaps may have 50 MB (sitemaps.org); nothing that is read here should have more. */
const MAX_BYTES = 50 * 1024 * 1024;
const TOO_LARGE = 'it is larger than 50 MB';

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

/**
 * Reads a URL; gzip is unpacked. Null for an answer that is not 200.
 * @param start the page that `access` is meant for: headers, cookies and credentials go to its origin
 * @throws IsopticError `unreadable`
 */
export async function fetchText(
  url: string,
  access: Access = NO_ACCESS,
  start = url,
): Promise<Fetched | null> {
  const client = await import('./http-client.js');
  const { Agent, fetch } = client;
  const signal = AbortSignal.timeout(TIMEOUT_MS);
  const dispatcher = access.trustAnyCertificate
    ? new Agent({ connect: { rejectUnauthorized: false } })
    : null;
  try {
    for (let at = url, hops = 0; hops <= MAX_REDIRECTS; hops++) {
      const headers = { accept: '*/*', ...headersFor(client, access, start, at) };
      // Redirects are followed here, so that headers go to no other origin.
      const answer = await fetch(at, {
        signal,
        headers,
        redirect: 'manual',
        ...(dispatcher && { dispatcher }),
      });
      const location = answer.headers.get('location');
      if (answer.status >= 300 && answer.status < 400 && location !== null) {
        await answer.body?.cancel();
        at = new URL(location, at).href;
        continue;
      }
      if (!answer.ok) {
        await answer.body?.cancel();
        return null;
      }
      const text = await unpacked(await bodyOf(answer.body));
      return { text, contentType: answer.headers.get('content-type') ?? '', url: at };
    }
    throw new Error('it redirects for ever');
  } catch (error) {
    throw new IsopticError(
      'unreadable',
      `${url}: can not be read (${reasonOf(error)}).`,
      'Is the server running, and the address right?',
    );
  } finally {
    await dispatcher?.close();
  }
}

function headersFor(
  { domainMatch, pathMatch }: Pick<typeof HttpClient, 'domainMatch' | 'pathMatch'>,
  access: Access,
  start: string,
  url: string,
): Record<string, string> {
  if (!isTrustedOrigin(access, start, url)) return {};
  const { headers, cookies, credentials } = access;
  const { hostname, pathname, protocol } = new URL(url);
  const own = cookies.filter(
    ({ domain, path, secure }) =>
      (domain === undefined || domainMatch(hostname, domain.replace(/^\./, '')) === true) &&
      (path === undefined || pathMatch(pathname, path)) &&
      (secure !== true || protocol === 'https:'),
  );
  const basic =
    credentials && Buffer.from(`${credentials.username}:${credentials.password}`).toString('base64');
  return {
    ...(basic && { authorization: `Basic ${basic}` }),
    ...(own.length > 0 && { cookie: own.map(({ name, value }) => `${name}=${value}`).join('; ') }),
    ...headers,
  };
}

/** A body, given up as soon as it is larger than anything that is read here should be. */
async function bodyOf(body: AsyncIterable<Uint8Array> | null): Promise<Buffer> {
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of body ?? []) {
    size += part.length;
    if (size > MAX_BYTES) throw new Error(TOO_LARGE);
    parts.push(part);
  }
  return Buffer.concat(parts);
}

/** Reads a file or a URL as text; gzip is unpacked. @throws IsopticError `unreadable` */
export async function readText(where: string, access: Access = NO_ACCESS): Promise<string> {
  if (isUrl(where)) {
    const fetched = await fetchText(where, access);
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
  if (plain.length > MAX_BYTES) throw new Error(TOO_LARGE);
  return plain.toString('utf8');
}

function reasonOf(error: unknown): string {
  const cause = error instanceof Error ? error.cause : undefined;
  return cause instanceof Error ? cause.message : messageOf(error);
}
