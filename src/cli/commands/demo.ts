import { Command } from 'commander';
import colors from 'picocolors';
import type { CheckRequest } from '../../api/run-check.js';
import { pickDevices } from '../../core/profile/pick.js';
import { NO_ACCESS } from '../../engine/access.js';
import { NO_ALTERATIONS } from '../../engine/job.js';
import { loadCatalogue } from '../../run/catalogue.js';
import { packageFile } from '../../package-file.js';
import { Secrets } from '../config/secrets.js';
import { columnsOf } from '../output/columns.js';
import { runCheck, summaryOf } from '../run-check.js';

const EXAMPLES = `
Example:
  isoptic demo --out demo-run   the shipped ferry site on the six default profiles

The site is checked twice: as found, with its planted faults, and repaired. The exit status is 0 when both ran.`;

export function demoCommand(): Command {
  return new Command('demo')
    .option('--out <folder>', 'where to write the two runs', 'isoptic-runs/demo')
    .option('--browser <program>', 'the Chromium or Chrome to use')
    .option('--verbose', 'print what is done, and stack traces')
    .addHelpText('after', EXAMPLES)
    .action(async (options: { out: string; browser?: string; verbose?: boolean }) => {
      const devices = pickDevices([{ lineup: 'default' }], await loadCatalogue());
      for (const [form, heading] of [
        ['as-found', 'Lantern Isles Ferries, as found'],
        ['repaired', 'The same site, repaired'],
      ] as const) {
        const request: CheckRequest = {
          targets: [packageFile(`demo/${form}`)],
          find: { all: true },
          devices,
          shots: { fold: true, full: true },
          evidence: 'classes',
          access: NO_ACCESS,
          signIn: null,
          signInAgain: false,
          preparations: [],
          alter: NO_ALTERATIONS,
          essentials: [],
          rules: {},
          waivers: [],
          secrets: new Secrets(process.cwd()),
          keepLayouts: true,
          timeoutMs: 30_000,
          fonts: 'platform',
          out: `${options.out}/${form}`,
          replace: true,
          browser: options.browser,
        };
        const result = await runCheck(request, {
          quiet: false,
          verbose: options.verbose ?? false,
        });
        const { manifest } = result;
        const shown = await summaryOf(result, {
          columns: columnsOf(process.stdout),
          notices: false,
        });
        process.stdout.write(`${colors.underline(heading)}\n\n${shown}\n\n`);
        if (manifest.interrupted) {
          process.exitCode = 130;
          return;
        }
        if (manifest.summary.failed > 0) process.exitCode = 3;
      }
    });
}
