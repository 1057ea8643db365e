import type { CDPSession, Protocol } from 'puppeteer-core';
import type { ScriptText } from '../driver.js';
import { shownAddress } from './shown-address.js';

/** Longer ones are not looked through, characters. */
const LONGEST = 3_000_000;

/** The scripts that a page runs in its own world. Asked for while the page runs on: it never stops at a `debugger` statement. */
export async function scriptTexts(session: CDPSession, origin: string): Promise<ScriptText[]> {
  const parsed: Protocol.Debugger.ScriptParsedEvent[] = [];
  const onParsed = (event: Protocol.Debugger.ScriptParsedEvent) => parsed.push(event);
  session.on('Debugger.scriptParsed', onParsed);
  try {
    await session.send('Debugger.enable');
    await session.send('Debugger.setSkipAllPauses', { skip: true });
    const own = parsed.filter(({ length, url, executionContextAuxData }) => {
      const { isDefault } = (executionContextAuxData ?? {}) as { isDefault?: boolean };
      return isDefault !== false && url !== '' && (length ?? 0) <= LONGEST;
    });
    const texts = await Promise.all(
      own.map(async ({ scriptId, url, startLine }): Promise<ScriptText[]> => {
        const answer = await session.send('Debugger.getScriptSource', { scriptId }).catch(() => null);
        const file = shownAddress(url, origin);
        return answer === null
          ? []
          : [{ text: answer.scriptSource, placeOf: (line) => `${file}:${startLine + line + 1}` }];
      }),
    );
    return texts.flat();
  } finally {
    session.off('Debugger.scriptParsed', onParsed);
    await session.send('Debugger.disable').catch(() => undefined);
  }
}
