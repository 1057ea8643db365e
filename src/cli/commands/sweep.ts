import type { RawOptions } from '../raw-options.js';
import { Command } from 'commander';
import type { Pick } from '../../core/profile/pick.js';
import { addRunOptions, addTargetOptions, requireTargets } from '../check-request.js';
import { summaryOf } from '../run-check.js';
import { runSweep } from '../run-sweep.js';

const EXAMPLES = `
Examples:
  isoptic sweep site/                                  every width from 280 to 1920 px, 800 px high
  isoptic sweep site/ --all --from 320 --to 1280
  isoptic sweep page.html --on ios-phone-390           touch, pixel ratio and user agent of a phone
  isoptic sweep page.html --at 844x390 --heights 200..390   every height: a keyboard opens

Exit status:
  0 nothing found   1 findings   2 wrong usage   3 a page failed to render   4 no browser   130 interrupted`;

export function sweepCommand(): Command {
  const picks: Pick[] = [];
  const command = addTargetOptions(new Command('sweep'), picks)
    .option('--from <px>', 'the narrowest width (default: 280)')
    .option('--to <px>', 'the widest (default: 1920)')
    .option('--height <px>', "the window's height (default: 800, or that of --on)")
    .option('--heights <A..B>', 'search over heights in place of widths')
    .option('--every', 'look at every width and not only at as many as it takes')
    .option(
      '--shots <kinds>',
      'pictures of the widths that show what is found: fold, full, full@dpr, or none; as png or webp (default: fold,full,png)',
    )
    .option('--evidence <which>', 'crops of what is found: classes, every or none (default: classes)');
  return addRunOptions(command)
    .addHelpText('after', EXAMPLES)
    .action(async (targets: string[], raw: RawOptions) => {
      requireTargets('sweep', targets, 'nothing to search');
      const { asked, result } = await runSweep(targets, raw, picks);
      await asked.finish(result, () => summaryOf(result, { ...asked.shown, onlySizes: true }));
    });
}
