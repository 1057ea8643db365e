export interface Progress {
  update(done: number, total: number, label: string): void;
  stop(): void;
}

/** One line on standard error that says how far the run is; nothing where that is not a terminal. */
export async function startProgress(quiet: boolean): Promise<Progress> {
  if (quiet || !process.stderr.isTTY) return { update: () => undefined, stop: () => undefined };
  const { default: ora } = await import('ora');
  const spinner = ora({ text: 'Starting the browser', stream: process.stderr, discardStdin: false }).start();
  return {
    update: (done, total, label) => {
      spinner.text = `${done} of ${total}  ${label}`;
    },
    stop: () => void spinner.stop(),
  };
}
