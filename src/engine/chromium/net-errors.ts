import type { RenderFault } from '../job.js';

/** What Chromium's network errors mean to the person who gave the URL. */
const MEANINGS: Record<string, [code: string, meaning: string]> = {
  ERR_CONNECTION_REFUSED: ['connection-refused', 'nothing answers there; is the server running?'],
  ERR_CONNECTION_RESET: ['connection-reset', 'the server closed the connection without an answer'],
  ERR_CONNECTION_CLOSED: ['connection-reset', 'the server closed the connection without an answer'],
  ERR_EMPTY_RESPONSE: ['empty-response', 'the server closed the connection without an answer'],
  ERR_CONNECTION_TIMED_OUT: ['timeout', 'the connection timed out'],
  ERR_NAME_NOT_RESOLVED: ['name-not-resolved', 'the host name is not known; is it spelled right?'],
  ERR_INTERNET_DISCONNECTED: ['offline', 'this machine has no network'],
  ERR_ADDRESS_UNREACHABLE: ['address-unreachable', 'the address can not be reached from here'],
  ERR_TOO_MANY_REDIRECTS: ['too-many-redirects', 'it redirects for ever'],
  ERR_UNSAFE_PORT: ['unsafe-port', 'browsers refuse to use that port'],
  ERR_ABORTED: ['no-document', 'the answer is a download or empty, not a page'],
  ERR_INVALID_RESPONSE: ['invalid-response', 'the answer is not valid HTTP'],
  ERR_INVALID_HTTP_RESPONSE: ['invalid-response', 'the answer is not valid HTTP'],
};

/** @param errorText as the protocol gives it: `net::ERR_…` */
export function loadFault(url: string, errorText: string): RenderFault {
  const name = errorText.replace(/^net::/, '');
  const [code, meaning] =
    MEANINGS[name] ??
    (name.startsWith('ERR_CERT')
      ? [
          'certificate',
          `its TLS certificate is not trusted (${name}); --trust-any-certificate loads it all the same`,
        ]
      : ['load-failed', name]);
  return { code, message: `${url} could not be loaded: ${meaning}.` };
}
