import type { RawOptions } from '../raw-options.js';
import { relative } from 'node:path';
import { Command } from 'commander';
import { runCompare } from '../../api/compare.js';
import { IsopticError } from '../../core/errors.js';
import type { Rect } from '../../core/geometry/rect.js';
import type { Pick } from '../../core/profile/pick.js';
import { addTargetOptions, askedOf } from '../check-request.js';
import { CHANGE_FAIL_ON, changeStatusOf, type ChangeFailOn } from '../change-status.js';
import { comparedOf, scopesOf } from '../compare-inputs.js';
import { compareText } from '../output/compare-text.js';
import { showing } from '../run-check.js';

const EXAMPLES = `
Examples:
  isoptic compare isoptic-runs/before isoptic-runs/after       two runs, profile by profile
  isoptic compare isoptic-runs/demo:ios-phone-390 isoptic-runs/demo:ios-tablet-820
                                                               two profiles of one run
  isoptic compare https://staging.example.test/ https://example.test/ --lineup release
                                                               rendered now, on the same lineup
  isoptic compare baseline isoptic-runs/after                  against what was kept
  isoptic compare before/ after/ --all --leave-out .clock      two folders, without what moves

Exit status:
  0 nothing new   1 something at or above --fail-on   2 wrong usage   3 a page failed to render   4 no browser   130 interrupted`;

const collected = (value: string, before: string[] | undefined) => [...(before ?? []), value];

export function compareCommand(): Command {
  const picks: Pick[] = [];
  const command = addTargetOptions(
    new Command('compare'),
    picks,
    'two of them: a run, RUN:PROFILE, `baseline`, or a URL, file or folder that is rendered now',
  );
  return command
    .usage('<a> <b> [options]')
    .option(
      '--leave-out <selector>',
      'compare without these elements and all that is in them (repeatable)',
      collected,
    )
    .option(
      '--leave-out-area <x,y,width,height>',
      'compare without this part of each page, CSS px from its top left (repeatable)',
      collected,
    )
    .option('--tolerance <px>', 'lengths that differ by no more are equal, CSS px (default: 1)')
    .option('--no-pixels', 'compare structure and findings only')
    .option('--baseline <folder>', 'where the baseline lies (default: isoptic-baseline)')
    .option(
      '--shots <kinds>',
      'of what is rendered now: fold, full, full@dpr or none (default: fold,full,png)',
    )
    .option('--out <folder>', 'where to write the comparison (default: a new folder in isoptic-runs/)')
    .option('--replace', 'put it in place of one that is already in the folder')
    .option('--json', 'print the result as JSON and nothing else')
    .option('--fail-on <what>', `exit with 1 from this on: ${CHANGE_FAIL_ON.join(', ')} (default: new-error)`)
    .option('--timeout <seconds>', 'time limit for each page and profile (default: 30)')
    .option('--fonts <which>', "platform: each device's own fonts; host: this machine's (default: platform)")
    .option('--config <file>', 'the configuration (default: isoptic.yaml, here or above)')
    .option('--browser <program>', 'the Chromium or Chrome to use')
    .option('--quiet', 'print only errors')
    .option('--verbose', 'print what is done, and stack traces')
    .addHelpText('after', EXAMPLES)
    .action(async (texts: string[], raw: RawOptions & { leaveOut?: string[]; leaveOutArea?: string[] }) => {
      const [a, b] = texts;
      if (a === undefined || b === undefined || texts.length > 2) {
        throw new IsopticError(
          'bad-usage',
          `compare: two things are compared, and ${texts.length === 0 ? 'none was' : `${texts.length} were`} named.`,
          'Name two runs, two URLs or folders, or `baseline` and a run.',
        );
      }
      const failOn = changeFailOn(raw['failOn']);
      const { leaveOut = [], leaveOutArea = [], ...rest } = raw;
      const regions = leaveOutArea.map(areaOf);
      const asked = await askedOf({ ...rest, failOn: undefined }, () => picks);
      const { options, settings, shown } = asked;
      const named = typeof raw['baseline'] === 'string' ? raw['baseline'] : undefined;
      const result = await showing({ ...options, quiet: options.quiet || options.json }, async (tools) =>
        runCompare(
          {
            ...(await comparedOf([a, b], asked, named)),
            scopes: scopesOf(settings.config, { leaveOut, regions, px: toleranceOf(raw['tolerance']) }),
            pixels: raw['pixels'] !== false,
            out: options.out,
            replace: options.replace,
          },
          tools,
        ),
      );
      const { comparison, report } = result;
      if (options.json) process.stdout.write(`${JSON.stringify(comparison, null, 2)}\n`);
      else if (!options.quiet)
        process.stdout.write(`${compareText(comparison, relative(process.cwd(), report), shown.columns)}\n`);
      process.exitCode = changeStatusOf(comparison, failOn);
    });
}

/** @throws IsopticError `bad-option` */
function changeFailOn(text: RawOptions[string]): ChangeFailOn {
  if (text === undefined) return 'new-error';
  const found = CHANGE_FAIL_ON.find((each) => each === text);
  if (found) return found;
  throw new IsopticError(
    'bad-option',
    `--fail-on ${String(text)}: not one of those.`,
    `Write ${CHANGE_FAIL_ON.join(', ')}.`,
  );
}

/** @throws IsopticError `bad-option` */
function toleranceOf(text: RawOptions[string]): number | undefined {
  if (text === undefined) return undefined;
  const px = Number(text);
  if (Number.isFinite(px) && px >= 0 && px <= 1000) return px;
  throw new IsopticError(
    'bad-option',
    `--tolerance ${String(text)}: not a length.`,
    'Give CSS px, 0 to 1000.',
  );
}

/** @throws IsopticError `bad-option` */
function areaOf(text: string): Rect {
  const [x, y, width, height, ...more] = text
    .split(',')
    .map((part) => (part.trim() === '' ? NaN : Number(part)));
  const isArea = [x, y, width, height].every((px) => Number.isFinite(px)) && more.length === 0;
  if (isArea && width! > 0 && height! > 0) return { x: x!, y: y!, width: width!, height: height! };
  throw new IsopticError(
    'bad-option',
    `--leave-out-area ${text}: not a part of a page.`,
    'Give x,y,width,height in CSS px from the top left, as 0,0,1920,80.',
  );
}
