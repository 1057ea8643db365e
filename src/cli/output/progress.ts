import { columnsOf } from './columns.js';

export interface Progress {
  update(line: string): void;
  stop(): void;
}

/** One line on standard error that says how far the run is; nothing where that is not a terminal. */
export async function startProgress(quiet: boolean): Promise<Progress> {
  // A terminal without a size, as some recorders give, has no line to write over.
  if (quiet || !process.stderr.isTTY || !process.stderr.columns)
    return { update: () => undefined, stop: () => undefined };
  const [{ default: ora }, { middleCut, plainText }] = await Promise.all([
    import('ora'),
    import('./wrapped.js'),
  ]);
  const spinner = ora({ text: 'Looking for the pages', stream: process.stderr, discardStdin: false }).start();
  return {
    update: (line) => {
      // A line that breaks can't be written over.
      spinner.text = middleCut(plainText(line), columnsOf(process.stderr) - 4);
    },
    stop: () => void spinner.stop(),
  };
}
