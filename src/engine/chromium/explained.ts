import { messageOf } from '../../core/errors.js';
import { BrowserGone } from '../failures.js';

/** What an error of a call means: `BrowserGone` where the browser or its tab is not there any more. */
export function explained(error: unknown): Error {
  if (error instanceof BrowserGone) return error;
  if (/Target closed|Session closed|Connection closed|disconnected/i.test(messageOf(error)))
    return new BrowserGone('the browser or its tab went away');
  return error instanceof Error ? error : new Error(messageOf(error));
}
