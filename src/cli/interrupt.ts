/**
 * Ctrl-C and a polite kill end the run, not the program: what is finished is kept and written. A second Ctrl-C ends at once.
 */
export function interruptSignal(): { readonly signal: AbortSignal; dispose(): void } {
  const controller = new AbortController();
  const onSignal = () => {
    if (controller.signal.aborted) process.exit(130);
    controller.abort();
  };
  process.on('SIGINT', onSignal);
  process.on('SIGTERM', onSignal);
  process.on('SIGHUP', onSignal);
  return {
    signal: controller.signal,
    dispose: () => {
      for (const name of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.off(name, onSignal);
    },
  };
}
