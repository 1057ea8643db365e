import type { RawOptions } from '../raw-options.js';
import { Command } from 'commander';
import type { Pick } from '../../core/profile/pick.js';
import { addRunOptions, addTargetOptions, askedOf, requireTargets } from '../check-request.js';
import { runCheck, summaryOf } from '../run-check.js';
import { sweepAsked } from '../sweep-options.js';

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
  const command = addTargetOptions(new Command('check'), picks)
    .option(
      '--shots <kinds>',
      'pictures to take: fold, full, full@dpr (at device pixels), or none; as png or webp (default: fold,full,png)',
    )
    .option('--frame', 'write each first screen with a plain device round it, too')
    .option(
      '--evidence <which>',
      `crops of what is found: classes, every or none (default: classes: of errors and warnings, one a class of widths)`,
    )
    .option('--sweep [range]', 'search every width, too, or those of a range: 320..1280 (default: 280..1920)')
    .option('--no-layouts', 'keep no layouts: a smaller run, which can not be compared or judged again')
    .option('--against <what>', 'fail on what is new only: `baseline`, or a run that was made before')
    .option('--again <run>', 'judge a run again that kept its layouts, without a browser');
  return addRunOptions(command)
    .addHelpText('after', EXAMPLES)
    .action(async (targets: string[], raw: RawOptions) => {
      const asked = await askedOf(raw, () => picks);
      const { options, judging, shown } = asked;
      if (options.again === undefined) requireTargets('check', targets, 'nothing to check');
      const against = raw['against'];
      const known =
        typeof against === 'string'
          ? await (await import('../known.js')).knownIn(against, asked.settings.config)
          : undefined;
      const result =
        options.again === undefined
          ? await runCheck(
              {
                ...(await asked.requestFor(targets)),
                sweep: sweepAsked(raw, asked.settings),
                against: known,
              },
              {
                quiet: options.quiet || options.json,
                verbose: options.verbose,
              },
            )
          : await (await import('../run-again.js')).runAgain(options.again, targets, judging, known);
      await asked.finish(result, () => summaryOf(result, shown));
    });
}
