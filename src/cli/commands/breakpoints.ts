import type { RawOptions } from '../raw-options.js';
import { Command } from 'commander';
import type { Pick } from '../../core/profile/pick.js';
import { drawnRuler, rulerFormat } from '../../report/ruler/draw.js';
import { writeOut } from '../write-out.js';
import { addRunOptions, addTargetOptions, requireTargets } from '../check-request.js';
import { breakpointsText } from '../output/breakpoints-text.js';
import { runSweep } from '../run-sweep.js';

const EXAMPLES = `
Examples:
  isoptic breakpoints site/                    the media queries in force, from 280 to 1920 px
  isoptic breakpoints https://example.test/ --json
  isoptic breakpoints site/ --all --fail-on warning

Exit status:
  as of sweep: 0 nothing found   1 findings   2 wrong usage   3 a page failed to render   4 no browser   130 interrupted`;

export function breakpointsCommand(): Command {
  const picks: Pick[] = [];
  const command = addTargetOptions(new Command('breakpoints'), picks)
    .option('--from <px>', 'the narrowest width (default: 280)')
    .option('--to <px>', 'the widest (default: 1920)')
    .option('--height <px>', "the window's height (default: 800, or that of --on)")
    .option('--draw <file>', 'draw the ruler of the first page, too: .svg or .png');
  return addRunOptions(command)
    .addHelpText('after', EXAMPLES)
    .action(async (targets: string[], raw: RawOptions) => {
      requireTargets('breakpoints', targets, 'no page was named');
      const draw = typeof raw['draw'] === 'string' ? raw['draw'] : null;
      const format = draw === null ? null : rulerFormat(draw);
      const { asked, result } = await runSweep(targets, { ...raw, shots: 'none' }, picks);
      await asked.finish(
        result,
        () => breakpointsText(result.manifest, result.reportPath, asked.shown.columns),
        ({ sweep: pages = [] }) => ({
          pages: pages.map(({ page, queries, ranges, problems, error }) => ({
            page,
            queries: queries ?? [],
            ranges: ranges ?? [],
            problems: problems ?? [],
            error,
          })),
        }),
      );
      const [first] = result.manifest.sweep ?? [];
      if (draw !== null && format && first)
        await writeOut(draw, await drawnRuler(first, result.manifest, format), '--draw');
    });
}
