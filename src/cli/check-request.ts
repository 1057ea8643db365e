import type { RawOptions } from './raw-options.js';
import { dirname } from 'node:path';
import type { Command } from 'commander';
import type { CheckRequest } from '../api/run-check.js';
import { IsopticError } from '../core/errors.js';
import type { Pick } from '../core/profile/pick.js';
import type { Manifest } from '../run/manifest.js';
import { FORMATS, parseFormats } from '../report/formats.js';
import type { Judging } from '../run/judge-again.js';
import { onlyNew } from '../run/against.js';
import { conditionOptions, conditionsOf } from './condition-options.js';
import { accessOf } from './config/access.js';
import { loadSettings, type Settings } from './config/load.js';
import { essentialsOf, preparationsOf, signInOf } from './config/prepared.js';
import { loadWaivers, ruleSettingsOf } from './config/judging.js';
import { folderOf, Secrets } from './config/secrets.js';
import { exitStatusOf, FAIL_ON, type FailOn } from './exit-status.js';
import { rightFor } from './sweep-options.js';
import {
  accessOptions,
  checkOptionsSchema,
  parseEvidence,
  parseFailOn,
  parseFonts,
  parseShots,
  parseTimeout,
  pickOptions,
  targetOptions,
  type CheckOptions,
} from './options.js';
import type { SummaryOptions } from './output/summary.js';
import { columnsOf } from './output/columns.js';
import { devicesFor } from './pick-devices.js';
import type { ShownResult } from './run-check.js';
import { writeFormats } from './write-formats.js';

const TARGETS = 'URLs, HTML files, folders, lists of pages (.txt), sitemaps (.xml, .xml.gz)';

/** Adds what every command that renders pages understands: which pages, on which devices, reached how. */
export function addTargetOptions(command: Command, picks: Pick[], what: string = TARGETS): Command {
  command
    .argument('[targets...]', what)
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
  return command;
}

/** @throws IsopticError `no-target` where none was named. @param missing what there is nothing of, for the message: `nothing to check` */
export function requireTargets(command: string, targets: readonly string[], missing: string): void {
  if (targets.length > 0) return;
  throw new IsopticError(
    'no-target',
    `${command}: ${missing}.`,
    `Name a URL, an HTML file or a folder; \`isoptic ${command} --help\` has examples.`,
  );
}

/** Adds how a run is made and what is said of it. */
export function addRunOptions(command: Command): Command {
  return command
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
    .option('--waivers <file>', 'accepted findings (default: isoptic-waivers.yaml beside the configuration)')
    .option('--config <file>', 'the configuration (default: isoptic.yaml, here or above)')
    .option('--browser <program>', 'the Chromium or Chrome to use')
    .option('--quiet', 'print only errors')
    .option('--verbose', 'print what is done, and stack traces');
}

/** What a command that renders pages was called with, read and put together with the configuration. */
export interface Asked {
  readonly options: CheckOptions;
  readonly settings: Settings;
  readonly judging: Judging;
  readonly shown: SummaryOptions;
  /** The request for some targets. */
  requestFor(targets: readonly string[]): Promise<CheckRequest>;
  /** Prints a result, as a text or in its machine form, writes it in the formats asked for, and sets the exit status. */
  finish(
    result: ShownResult,
    text: () => string | Promise<string>,
    machine?: (manifest: Manifest) => unknown,
  ): Promise<void>;
}

/**
 * @param picksOf the devices that were named, none for the default lineup
 * @throws IsopticError for options and configuration that can't be used
 */
export async function askedOf(
  raw: RawOptions,
  picksOf: (settings: Settings) => readonly Pick[],
): Promise<Asked> {
  const options = checkOptionsSchema.parse(raw);
  const settings = await loadSettings(options.config);
  const { config } = settings;
  const failOn: FailOn = parseFailOn(options.failOn ?? config.failOn ?? 'error');
  const judging = {
    rules: ruleSettingsOf(settings),
    waivers: await loadWaivers(options.waivers ?? config.waivers, settings),
  };
  const formats = options.reportAs === undefined ? [] : parseFormats(options.reportAs, '--report-as');
  return {
    options,
    settings,
    judging,
    shown: { columns: columnsOf(process.stdout), notices: options.notices || failOn === 'notice' },
    async requestFor(targets) {
      const secrets = new Secrets(folderOf(settings.file));
      const access = await accessOf(config.access, options, secrets);
      const signedIn = options.signedIn ?? config.signedIn;
      return {
        targets,
        find: { ...targetOptions(options), access },
        devices: devicesFor(picksOf(settings), options.turn, conditionsOf(raw), settings),
        access,
        signIn: signedIn === undefined ? null : await signInOf(signedIn, settings, secrets),
        signInAgain: options.signInAgain,
        preparations: await preparationsOf(settings, secrets),
        alter: { hide: config.hide, mask: config.mask, remove: config.remove },
        essentials: essentialsOf(settings),
        ...judging,
        secrets,
        keepLayouts: options.layouts,
        shots: parseShots(options.shots, options.frame),
        evidence: parseEvidence(options.evidence),
        timeoutMs: parseTimeout(options.timeout ?? String(config.timeout ?? 30)),
        fonts: parseFonts(options.fonts ?? config.fonts ?? 'platform'),
        out: options.out,
        replace: options.replace,
        browser: options.browser ?? config.browser,
      };
    },
    async finish({ manifest, reportPath }, text, machine = (whole) => whole) {
      if (options.json) process.stdout.write(`${JSON.stringify(machine(manifest), null, 2)}\n`);
      else if (!options.quiet) process.stdout.write(`${await text()}\n`);
      process.exitCode = exitStatusOf(onlyNew(manifest), failOn, (page) => rightFor(config.sweep, page));
      await writeFormats(manifest, dirname(reportPath), formats, failOn, options.browser);
    },
  };
}
