import type { RawOptions } from '../raw-options.js';
import { Command } from 'commander';
import { makeFilm, type Film, type FilmRequest } from '../../api/film.js';
import { IsopticError } from '../../core/errors.js';
import type { Pick } from '../../core/profile/pick.js';
import { USUAL_SWEEP } from '../../run/sweep/plan.js';
import { filmFormat } from '../../report/film/write.js';
import { addTargetOptions, askedOf, requireTargets } from '../check-request.js';
import { writeOut } from '../write-out.js';
import { showing } from '../run-check.js';
import { sweepDevicePicks, sweepRange, wishesOf } from '../sweep-options.js';

const EXAMPLES = `
Examples:
  isoptic film site/                                  film.webp: the width runs from 280 to 1920 px
  isoptic film site/ --from 1440 --to 280 --out narrow.gif
  isoptic film page.html --on ios-phone-390 --scroll  down the page, on a phone
  isoptic film page.html --on ios-phone-390 --turn    held upright and on its side
  isoptic film page.html --frames frames/             its pictures, as PNG files

Exit status:
  0 filmed   2 wrong usage   3 the page could not be rendered   4 no browser   130 interrupted`;

const PACE = 240;
const FRAMES_PER_SECOND = 12;
const STOP_MS = 700;
const MOST = 960;

export function filmCommand(): Command {
  const picks: Pick[] = [];
  return addTargetOptions(new Command('film'), picks)
    .option('--from <px>', 'the width it begins with (default: 280)')
    .option('--to <px>', 'the width it ends with; it may be the narrower one (default: 1920)')
    .option('--height <px>', "the window's height (default: 800, or that of --on)")
    .option('--scroll', 'scroll down the page in place of running through widths (--turn: turn the device)')
    .option('--pace <px>', `CSS px a second (default: ${PACE})`)
    .option('--largest <px>', `the widest that the film may be (default: ${MOST})`)
    .option('--out <file>', 'where to write it, .webp or .gif (default: film.webp)')
    .option('--frames <folder>', 'write its pictures as PNG files in place of a film')
    .option('--timeout <seconds>', 'time limit for each picture (default: 30)')
    .option('--fonts <which>', "platform: the device's own fonts; host: this machine's (default: platform)")
    .option('--config <file>', 'the configuration (default: isoptic.yaml, here or above)')
    .option('--browser <program>', 'the Chromium or Chrome to use')
    .option('--quiet', 'print only errors')
    .option('--verbose', 'print what is done, and stack traces')
    .addHelpText('after', EXAMPLES)
    .action(async (targets: string[], raw: RawOptions) => {
      const [from, to] = [whole(raw, 'from', USUAL_SWEEP.from), whole(raw, 'to', USUAL_SWEEP.to)];
      const sorted: RawOptions = { ...raw, from: String(Math.min(from, to)), to: String(Math.max(from, to)) };
      const isOfWidths = raw['scroll'] !== true && raw['turn'] !== true;
      const out = typeof raw['out'] === 'string' ? raw['out'] : 'film.webp';
      const frames = raw['frames'];
      const as: FilmRequest['as'] = typeof frames === 'string' ? { frames } : { format: filmFormat(out) };
      const asked = await askedOf({ ...raw, turn: false }, (settings) =>
        sweepDevicePicks(picks, wishesOf(sorted, settings.config)),
      );
      requireTargets('film', targets, 'no page was named');
      const check = await asked.requestFor(targets);
      const range = sweepRange(check.devices, asked.settings, wishesOf(sorted, asked.settings.config));
      const { width } = range.device;
      const film = await showing(asked.options, (tools) =>
        makeFilm(
          {
            check,
            range: isOfWidths ? range : { ...range, from: width, to: width },
            kind: raw['turn'] === true ? 'turn' : raw['scroll'] === true ? 'scroll' : 'widths',
            narrowing: from > to,
            pace: {
              pxPerSecond: whole(raw, 'pace', PACE),
              framesPerSecond: FRAMES_PER_SECOND,
              stopMs: STOP_MS,
            },
            most: whole(raw, 'largest', MOST),
            as,
          },
          tools,
        ),
      );
      if (film.file) await writeOut(out, film.file, '--out');
      if (!asked.options.quiet)
        process.stdout.write(`${saidOf(film, typeof frames === 'string' ? frames : out)}\n`);
    });
}

function saidOf({ file, frames, ms, width, height }: Film, where: string): string {
  const size = file ? `, ${(file.length / 1e6).toFixed(1)} MB` : '';
  return `${where}: ${frames} pictures, ${(ms / 1000).toFixed(1)} s, ${width} × ${height} px${size}`;
}

/** @throws IsopticError `bad-option` */
function whole(raw: RawOptions, name: string, otherwise: number): number {
  const text = raw[name];
  if (text === undefined) return otherwise;
  const value = Number(text);
  if (Number.isInteger(value) && value >= 20 && value <= 8192) return value;
  throw new IsopticError(
    'bad-option',
    `--${name} ${String(text)}: not a number of that kind.`,
    'Give a whole number, 20 to 8192.',
  );
}
