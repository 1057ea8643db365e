import { Option } from 'commander';
import * as z from 'zod';
import { IsopticError } from '../core/errors.js';
import { nearestNames, type Pick } from '../core/profile/pick.js';
import type { ShotKinds } from '../engine/shot.js';
import { EVIDENCE, type EvidenceChoice } from '../run/evidence.js';
import { parseUrl, type TargetOptions } from '../site/targets.js';
import { FAIL_ON } from './exit-status.js';

/** Collects `--on` and `--at` into one list, in the order in which they were written. */
export function pickOptions(picks: Pick[]): Option[] {
  return [
    new Option(
      '--on <names>',
      'profiles by name, comma-separated; name:landscape turns one (repeatable)',
    ).argParser((value: string, before: string[] | undefined) => {
      for (const name of value.split(',')) if (name.trim() !== '') picks.push({ on: name.trim() });
      return [...(before ?? []), value];
    }),
    new Option('--at <size>', 'an ad-hoc viewport, WIDTHxHEIGHT[@RATIO][+mobile] (repeatable)').argParser(
      (value: string, before: string[] | undefined) => {
        picks.push({ at: value.trim() });
        return [...(before ?? []), value];
      },
    ),
    new Option('--lineup <name>', 'a named list of profiles from the configuration (repeatable)').argParser(
      (value: string, before: string[] | undefined) => {
        picks.push({ lineup: value.trim() });
        return [...(before ?? []), value];
      },
    ),
    new Option('--turn', 'add the other orientation of every picked profile'),
  ];
}

const collected = (value: string, before: string[] | undefined) => [...(before ?? []), value];

/** How pages that are not open to everybody are reached. */
export function accessOptions(): Option[] {
  return [
    new Option('--header <line>', "NAME: VALUE, sent to the pages' own origins (repeatable)").argParser(
      collected,
    ),
    new Option('--cookie <pair>', 'NAME=VALUE for the pages (repeatable)').argParser(collected),
    new Option('--credentials <source>', 'user:password for HTTP authentication: env:NAME or a file'),
    new Option('--signed-in <name>', 'with a sign-in of the configuration'),
    new Option('--sign-in-again', 'do not use the signed-in state that was kept'),
    new Option('--trust-any-certificate', 'accept TLS certificates that nobody vouches for'),
  ];
}

export const checkOptionsSchema = z.object({
  all: z.boolean().default(false),
  out: z.string().optional(),
  replace: z.boolean().default(false),
  json: z.boolean().default(false),
  notices: z.boolean().default(false),
  reportAs: z.string().optional(),
  recursive: z.boolean().default(false),
  root: z.string().optional(),
  follow: z.string().optional(),
  maxPages: z.string().optional(),
  ignoreRobots: z.boolean().default(false),
  baseUrl: z.string().optional(),
  turn: z.boolean().default(false),
  config: z.string().optional(),
  waivers: z.string().optional(),
  layouts: z.boolean().default(true),
  again: z.string().optional(),
  header: z.array(z.string()).default([]),
  cookie: z.array(z.string()).default([]),
  credentials: z.string().optional(),
  signedIn: z.string().optional(),
  signInAgain: z.boolean().default(false),
  trustAnyCertificate: z.boolean().default(false),
  fonts: z.string().optional(),
  failOn: z.string().optional(),
  shots: z.string().default('fold,full'),
  frame: z.boolean().default(false),
  evidence: z.string().default('classes'),
  timeout: z.string().optional(),
  browser: z.string().optional(),
  quiet: z.boolean().default(false),
  verbose: z.boolean().default(false),
});
export type CheckOptions = z.infer<typeof checkOptionsSchema>;

/** How the pages of the targets are found. @throws IsopticError `bad-option`, `bad-url` */
export function targetOptions(options: CheckOptions): TargetOptions {
  const whole = (name: string, text: string, max: number) => {
    const value = Number(text);
    if (!Number.isInteger(value) || value < 0 || value > max || text.trim() === '') {
      throw new IsopticError(
        'bad-option',
        `--${name} ${text}: not a number of that kind.`,
        `Give a whole number, 0 to ${max}.`,
      );
    }
    return value;
  };
  return {
    all: options.all,
    recursive: options.recursive,
    robots: !options.ignoreRobots,
    root: options.root,
    baseUrl: options.baseUrl === undefined ? undefined : parseUrl(options.baseUrl).href,
    ...(options.follow !== undefined && { follow: whole('follow', options.follow, 20) }),
    ...(options.maxPages !== undefined && { maxPages: whole('max-pages', options.maxPages, 10_000) }),
  };
}

const SHOTS = ['fold', 'full', 'full@dpr', 'png', 'webp', 'none'];

/** @throws IsopticError `bad-option` */
export function parseShots(text: string, framed: boolean): ShotKinds {
  const words = text.split(',').map((word) => word.trim());
  const bad = (what: string) =>
    new IsopticError(
      'bad-option',
      `--shots ${text}: ${what}.`,
      `Use ${SHOTS.join(', ')}; several with commas.`,
    );
  const unknown = words.find((word) => !SHOTS.includes(word));
  if (unknown !== undefined) throw bad(`there is no shot "${unknown}"`);
  const has = (word: string) => words.includes(word);
  if (has('none') && words.length > 1) throw bad('"none" stands alone');
  if (has('full') && has('full@dpr'))
    throw bad('the full picture has the pixels of the device or it has not');
  if (has('png') && has('webp')) throw bad('pictures are png or webp');
  const full = has('full') || has('full@dpr');
  // A format alone is one for the pictures that there are anyway.
  const isAll = !has('none') && !has('fold') && !full;
  if (framed && !isAll && !has('fold')) throw bad('--frame is drawn round the first screen');
  return {
    fold: isAll || has('fold'),
    full: isAll || full,
    fullPixels: has('full@dpr') ? 'device' : 'css',
    format: has('webp') ? 'webp' : 'png',
    framed,
  };
}

/** @throws IsopticError `bad-option` */
export function parseEvidence(text: string): EvidenceChoice {
  const known = EVIDENCE.find((choice) => choice === text);
  if (known === undefined) {
    throw new IsopticError(
      'bad-option',
      `--evidence ${text}: there is no such choice.`,
      `Use ${EVIDENCE.join(', ')}.`,
    );
  }
  return known;
}

/** Seconds as written to milliseconds. @throws IsopticError `bad-option` */
export function parseTimeout(text: string): number {
  const seconds = Number(text);
  if (text.trim() === '' || !Number.isFinite(seconds) || seconds < 0.1 || seconds > 3600) {
    throw new IsopticError(
      'bad-option',
      `--timeout ${text}: not a time limit.`,
      'Give seconds, from 0.1 to 3600.',
    );
  }
  return seconds * 1000;
}

/** @throws IsopticError `bad-option` with the nearest value */
export function parseFailOn(text: string): (typeof FAIL_ON)[number] {
  const known = FAIL_ON.find((value) => value === text);
  if (known === undefined) {
    throw new IsopticError(
      'bad-option',
      `--fail-on ${text}: there is no such threshold.`,
      `Use ${FAIL_ON.join(', ')}; nearest: ${nearestNames(text, FAIL_ON, 1).join('')}.`,
    );
  }
  return known;
}

/** @throws IsopticError `bad-option` */
export function parseFonts(text: string): 'platform' | 'host' {
  if (text === 'platform' || text === 'host') return text;
  throw new IsopticError('bad-option', `--fonts ${text}: there is no such choice.`, 'Use platform or host.');
}
