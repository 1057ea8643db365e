import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import serveStatic from 'serve-static';
import { IsopticError, messageOf } from '../core/errors.js';

export interface LocalServer {
  /** `http://127.0.0.1:PORT`, without a slash at the end. */
  readonly origin: string;
  close(): Promise<void>;
}

/**
 * Serves a folder on the loopback address at a free port. Hidden files are not served, nothing is cached, and requests
 * that name another host are refused, so that no page elsewhere can read the folder by a name of its own.
 * @param fallback folder in which a path is looked for that the first one lacks
 */
export async function serveFolder(folder: string, fallback?: string): Promise<LocalServer> {
  const options = {
    index: ['index.html', 'index.htm'],
    extensions: ['html', 'htm'],
    cacheControl: false,
    etag: false,
    lastModified: false,
  };
  const first = serveStatic(folder, options);
  const second = fallback === undefined ? null : serveStatic(fallback, options);
  let host = '';
  const handle = (request: IncomingMessage, response: ServerResponse) => {
    const refuse = (status: number, text: string) => {
      response.writeHead(status, { 'content-type': 'text/plain; charset=utf-8' }).end(`${text}\n`);
    };
    if (request.headers.host !== host) {
      refuse(421, 'This server answers only for its own address.');
      return;
    }
    const notFound = () => refuse(404, 'Not found');
    const path = decodedPath(request.url ?? '/');
    if (path === null || /(^|\/)\.(?!well-known\/)/.test(path)) {
      notFound();
      return;
    }
    void first(request, response, second ? () => void second(request, response, notFound) : notFound);
  };
  const server = createServer(handle);
  await new Promise<void>((resolve, reject) => {
    server.once('error', (error) => {
      reject(new IsopticError('no-server', `No local server could be started: ${messageOf(error)}.`));
    });
    server.listen(0, '127.0.0.1', resolve);
  });
  host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    origin: `http://${host}`,
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
}

/** The path as the file system will see it; null for what can't be decoded. */
function decodedPath(url: string): string | null {
  try {
    return decodeURIComponent(url.split('?', 1)[0] ?? '/');
  } catch {
    return null;
  }
}
