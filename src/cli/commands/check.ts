import { dirname } from 'node:path';
import { Command } from 'commander';
import type { CheckRequest } from '../../api/run-check.js';
import { IsopticError } from '../../core/errors.js';
import type { Pick } from '../../core/profile/pick.js';
import { conditionOptions, conditionsOf } from '../condition-options.js';
import { accessOf } from '../config/access.js';
import { loadSettings } from '../config/load.js';
import { essentialsOf, preparationsOf, signInOf } from '../config/prepared.js';
import { loadWaivers, ruleSettingsOf } from '../config/judging.js';
import { folderOf, Secrets } from '../config/secrets.js';
import { exitStatusOf, FAIL_ON } from '../exit-status.js';
import {
  accessOptions,
  checkOptionsSchema,
  parseEvidence,
  parseFailOn,
  parseFonts,
  parseShots,
  parseTimeout,
  targetOptions,
  pickOptions,
} from '../options.js';
import { FORMATS, parseFormats } from '../../report/formats.js';
import { writeFormats } from '../write-formats.js';
import { summaryText } from '../output/summary.js';
import { columnsOf } from '../output/wrapped.js';
import { devicesFor } from '../pick-devices.js';
import { runAgain } from '../run-again.js';
import { runCheck, type ShownResult } from '../run-check.js';

const EXAMPLES = `
Examples:
  isoptic check site/                                    index.html of a folder, on the six default profiles
  isoptic check site/ --all                              every HTML file of the folder
  isoptic check https://example.test/ --on ios-phone-390,ios-phone-390:landscape
  isoptic check page.html --at 390x844@3+mobile --at 1024x768
  isoptic check site/ --json --shots none > result.json  flag only, for scripts

Exit status:
  0 nothing found   1 findings   2 wrong usage   3 a page failed to render   4 no browser   130 interrupted`;

export function checkCommand(): Command {
  const picks: Pick[] = [];
  const command = new Command('check')
    .argument('[targets...]', 'URLs, HTML files, folders, lists of pages (.txt), sitemaps (.xml, .xml.gz)')
    .option('--all', 'every HTML file of a folder, not only its index.html')
    .option('--recursive', 'the same, in the folders below it as well')
    .option('--root <folder>', 'serve a single HTML file from this folder, the top of its site')
    .option('--follow <depth>', 'follow links inside the site, so many links away')
    .option('--max-pages <count>', 'follow to at most so many pages (default: 200)')
    .option('--ignore-robots', 'follow links that robots.txt asks to leave alone')
    .option('--base-url <url>', 'take the pages from this address: one list against staging and live');
  for (const option of [...pickOptions(picks), ...conditionOptions(), ...accessOptions()]) {
    command.addOption(option);
  }
  return command
    .option(
      '--shots <kinds>',
      'pictures to take: fold, full, full@dpr (at device pixels), or none; as png or webp (default: fold,full,png)',
    )
    .option('--frame', 'write each first screen with a plain device round it, too')
    .option(
      '--evidence <which>',
      `crops of what is found: classes, every or none (default: classes: of errors and warnings, one a class of widths)`,
    )
    .option('--out <folder>', 'where to write the run (default: a new folder in isoptic-runs/)')
    .option('--replace', 'put the run in place of one that is already in the folder')
    .option('--notices', 'list every notice; else they are counted by rule')
    .option('--json', 'print the result as JSON and nothing else')
    .option(
      '--fail-on <severity>',
      `exit with 1 from this severity on: ${FAIL_ON.join(', ')} (default: error)`,
    )
    .option(
      '--report-as <formats>',
      `write the run in other formats, too: ${Object.keys(FORMATS).join(', ')}`,
    )
    .option('--timeout <seconds>', 'time limit for each page and profile (default: 30)')
    .option('--fonts <which>', "platform: each device's own fonts; host: this machine's (default: platform)")
    .option('--keep-layouts', 'write the layout snapshots to the run, so that it can be judged again')
    .option('--again <run>', 'judge a run again that kept its layouts, without a browser')
    .option('--waivers <file>', 'accepted findings (default: isoptic-waivers.yaml beside the configuration)')
    .option('--config <file>', 'the configuration (default: isoptic.yaml, here or above)')
    .option('--browser <program>', 'the Chromium or Chrome to use')
    .option('--quiet', 'print only errors')
    .option('--verbose', 'print what is done, and stack traces')
    .addHelpText('after', EXAMPLES)
    .action(async (targets: string[], raw: Record<string, string | boolean | undefined>) => {
      const options = checkOptionsSchema.parse(raw);
      const settings = await loadSettings(options.config);
      const { config } = settings;
      const failOn = parseFailOn(options.failOn ?? config.failOn ?? 'error');
      const judging = {
        rules: ruleSettingsOf(settings),
        waivers: await loadWaivers(options.waivers ?? config.waivers, settings),
      };
      const shown = {
        columns: columnsOf(process.stdout),
        notices: options.notices || failOn === 'notice',
      };
      const formats = options.reportAs === undefined ? [] : parseFormats(options.reportAs, '--report-as');
      const finish = async ({ manifest, reportPath }: ShownResult) => {
        if (options.json) process.stdout.write(`${JSON.stringify(manifest, null, 2)}\n`);
        else if (!options.quiet) process.stdout.write(`${summaryText(manifest, reportPath, shown)}\n`);
        process.exitCode = exitStatusOf(manifest, failOn);
        await writeFormats(manifest, dirname(reportPath), formats, failOn, options.browser);
      };
      if (options.again !== undefined) {
        await finish(await runAgain(options.again, targets, judging));
        return;
      }
      if (targets.length === 0) {
        throw new IsopticError(
          'no-target',
          'check: nothing to check.',
          'Name a URL, an HTML file or a folder; `isoptic check --help` has examples.',
        );
      }
      const secrets = new Secrets(folderOf(settings.file));
      const access = await accessOf(config.access, options, secrets);
      const signedIn = options.signedIn ?? config.signedIn;
      const devices = devicesFor(picks, options.turn, conditionsOf(raw), settings);
      const request: CheckRequest = {
        targets,
        find: { ...targetOptions(options), access },
        devices,
        access,
        signIn: signedIn === undefined ? null : await signInOf(signedIn, settings, secrets),
        signInAgain: options.signInAgain,
        preparations: await preparationsOf(settings, secrets),
        alter: { hide: config.hide, mask: config.mask, remove: config.remove },
        essentials: essentialsOf(settings),
        ...judging,
        secrets,
        keepLayouts: options.keepLayouts,
        shots: parseShots(options.shots, options.frame),
        evidence: parseEvidence(options.evidence),
        timeoutMs: parseTimeout(options.timeout ?? String(config.timeout ?? 30)),
        fonts: parseFonts(options.fonts ?? config.fonts ?? 'platform'),
        out: options.out,
        replace: options.replace,
        browser: options.browser ?? config.browser,
      };
      await finish(
        await runCheck(request, { quiet: options.quiet || options.json, verbose: options.verbose }),
      );
    });
}
