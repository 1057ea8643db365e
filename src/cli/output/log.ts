import type { EngineLog } from '../../engine/engine.js';

/** The diagnostic log, on standard error, only with `--verbose`. */
export async function engineLog(verbose: boolean): Promise<EngineLog> {
  if (!verbose) return () => undefined;
  const [{ default: pino }, { default: pretty }] = await Promise.all([import('pino'), import('pino-pretty')]);
  const logger = pino(
    { level: 'debug', base: null },
    pretty({ destination: 2, sync: true, ignore: 'pid,hostname', translateTime: 'HH:MM:ss.l' }),
  );
  return (message, facts) => logger.debug(facts ?? {}, message);
}
