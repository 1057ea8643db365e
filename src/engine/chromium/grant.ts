import type { CDPSession, Protocol } from 'puppeteer-core';
import { isTrustedOrigin, NO_ACCESS, type Access, type Cookie } from '../access.js';

/**
 * Puts in force what a job sends along, before the first request: cookies and storage, headers and credentials for the
 * origins that may have them, and whether any certificate will do. (Chrome DevTools Protocol, domains Fetch, Network,
 * Security.)
 */
export async function grantAccess(session: CDPSession, access: Access, page: string): Promise<void> {
  if (access === NO_ACCESS) return;
  const calls: Promise<unknown>[] = [];
  if (access.trustAnyCertificate) {
    calls.push(session.send('Security.setIgnoreCertificateErrors', { ignore: true }));
  }
  if (access.cookies.length > 0) {
    const cookies = access.cookies.map((cookie) => withPlace(cookie, page));
    calls.push(session.send('Network.setCookies', { cookies }));
  }
  if (Object.keys(access.storage).length > 0) {
    const source = `(${restoreStorage.toString()})(${JSON.stringify(access.storage)})`;
    calls.push(session.send('Page.addScriptToEvaluateOnNewDocument', { source }));
  }
  if (Object.keys(access.headers).length > 0 || access.credentials) {
    addHeaders(session, access, page);
    if (access.credentials) answerChallenges(session, access, page);
    const patterns = [...new Set([new URL(page).origin, ...access.origins])].map((origin) => ({
      urlPattern: `${origin}/*`,
    }));
    calls.push(session.send('Fetch.enable', { patterns, handleAuthRequests: access.credentials !== null }));
  }
  await Promise.all(calls);
}

function withPlace(cookie: Cookie, page: string): Protocol.Network.CookieParam {
  const { name, value, ...rest } = cookie;
  const given = Object.fromEntries(Object.entries(rest).filter(([, entry]) => entry !== undefined));
  return { name, value, ...given, ...(cookie.domain === undefined && { url: page }) };
}

function addHeaders(session: CDPSession, access: Access, page: string): void {
  session.on('Fetch.requestPaused', ({ requestId, request }) => {
    // Each hop of a redirect is paused again, so a header never follows one to another origin.
    const headers = isTrustedOrigin(access, page, request.url)
      ? Object.entries(merged(request.headers, access.headers)).map(([name, value]) => ({ name, value }))
      : undefined;
    void session
      .send('Fetch.continueRequest', { requestId, ...(headers && { headers }) })
      .catch(() => undefined);
  });
}

/** Header names are the same whatever their case. */
function merged(
  own: Readonly<Record<string, string>>,
  added: Readonly<Record<string, string>>,
): Record<string, string> {
  const names = new Set(Object.keys(added).map((name) => name.toLowerCase()));
  const kept = Object.entries(own).filter(([name]) => !names.has(name.toLowerCase()));
  return { ...Object.fromEntries(kept), ...added };
}

function answerChallenges(session: CDPSession, access: Access, page: string): void {
  const tried = new Set<string>();
  session.on('Fetch.authRequired', ({ requestId, request, authChallenge }) => {
    const { credentials } = access;
    const mayHave =
      credentials !== null &&
      authChallenge.source !== 'Proxy' &&
      isTrustedOrigin(access, page, request.url) &&
      !tried.has(requestId);
    tried.add(requestId);
    // A second challenge means that they are wrong; the server's answer is then shown as it is.
    const authChallengeResponse = mayHave
      ? { response: 'ProvideCredentials' as const, ...credentials }
      : { response: 'CancelAuth' as const };
    void session.send('Fetch.continueWithAuth', { requestId, authChallengeResponse }).catch(() => undefined);
  });
}

/* Runs in the page, as text, before its first script. */
function restoreStorage(storage: Readonly<Record<string, Readonly<Record<string, string>>>>): void {
  try {
    const entries = storage[location.origin];
    if (!entries || localStorage.length > 0) return;
    for (const [key, value] of Object.entries(entries)) localStorage.setItem(key, value);
  } catch {
    // A document without an origin has no storage.
  }
}
