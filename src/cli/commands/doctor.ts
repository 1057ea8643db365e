import { Command } from 'commander';
import colors from 'picocolors';
import { IsopticError } from '../../core/errors.js';
import { DEFAULT_ENGINE } from '../../engine/engines.js';
import { userCache } from '../../engine/user-cache.js';
import { loadCatalogue } from '../../run/catalogue.js';
import { VERSION } from '../../version.js';

const EXAMPLES = `
Examples:
  isoptic doctor                                what is installed and whether it works
  isoptic doctor --browser /usr/bin/chromium    try one browser`;

export function doctorCommand(): Command {
  return new Command('doctor')
    .option('--browser <program>', 'the Chromium or Chrome to try')
    .addHelpText('after', EXAMPLES)
    .action(async (options: { browser?: string }) => {
      const line = (label: string, ok: boolean, text: string) => {
        process.stdout.write(
          `${ok ? colors.green('ok     ') : colors.red('missing')}  ${label.padEnd(9)}${text}\n`,
        );
      };
      line('isoptic', true, VERSION);
      line('node', true, `${process.versions.node} on ${process.platform} ${process.arch}`);
      const { profiles, agents } = await loadCatalogue();
      line('profiles', true, `${profiles.length}, user agents of ${agents.date}`);
      try {
        const cache = await userCache();
        line('cache', cache.note === null, cache.note ?? cache.folder);
        const found = await DEFAULT_ENGINE.find(options.browser);
        const session = await DEFAULT_ENGINE.launch({
          executable: options.browser,
          fonts: 'linux',
          textScale: 1,
          log: () => undefined,
        });
        await session.close();
        line('browser', true, `${session.version}, ${found.origin}, ${found.executable}`);
        process.stdout.write('Ready: try `isoptic demo`.\n');
      } catch (error) {
        if (!(error instanceof IsopticError)) throw error;
        line('browser', false, `${error.message}\n${' '.repeat(18)}${error.hint}`);
        process.exitCode = error.exitStatus;
      }
    });
}
