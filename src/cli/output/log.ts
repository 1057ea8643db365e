import pino from 'pino';
import pretty from 'pino-pretty';
import type { EngineLog } from '../../engine/engine.js';

/** The diagnostic log, on standard error, only with `--verbose`. */
export function engineLog(verbose: boolean): EngineLog {
  if (!verbose) return () => undefined;
  const logger = pino(
    { level: 'debug', base: null },
    pretty({ destination: 2, sync: true, ignore: 'pid,hostname', translateTime: 'HH:MM:ss.l' }),
  );
  return (message, facts) => logger.debug(facts ?? {}, message);
}
