import { Option } from 'commander';
import { IsopticError } from '../core/errors.js';
import { NETWORKS, type Conditions } from '../core/profile/conditions.js';
import { conditionsShape } from '../core/profile/conditions-schema.js';

/** What `--scheme both` asks for: every device once in each. */
export type ConditionSet = readonly Conditions[];

/** The options that set conditions; each is also a key of a profile and of the configuration. */
export function conditionOptions(): Option[] {
  return [
    new Option('--scheme <scheme>', 'colour scheme: light, dark or both'),
    new Option('--reduced-motion', 'as for users who ask for less motion'),
    new Option('--contrast <level>', 'preferred contrast: more, less or custom'),
    new Option('--forced-colors', 'with colours forced by the system'),
    new Option('--media <type>', 'CSS media type: screen or print'),
    new Option('--zoom <factor>', 'page zoom, for instance 2'),
    new Option('--text-scale <factor>', 'text size as a user enlarges it, for instance 1.3'),
    new Option('--locale <tag>', 'language, for instance de-CH'),
    new Option('--timezone <zone>', 'time zone, for instance Europe/Zurich'),
    new Option(
      '--network <name>',
      `network: ${Object.keys(NETWORKS).join(', ')}, or one of the configuration`,
    ),
    new Option('--cpu-slowdown <factor>', 'how many times slower than this machine'),
  ];
}

const NUMBERS = ['zoom', 'textScale', 'cpuSlowdown'] as const;

/**
 * The conditions of the command line, one entry a colour scheme asked for.
 * @throws IsopticError `bad-option`
 */
export function conditionsOf(raw: Readonly<Record<string, string | boolean | undefined>>): ConditionSet {
  const conditions: Record<string, unknown> = {};
  for (const [key, schema] of Object.entries(conditionsShape)) {
    const written = raw[key];
    if (written === undefined || key === 'scheme') continue;
    const value = (NUMBERS as readonly string[]).includes(key) ? Number(written) : written;
    const result = schema.safeParse(value);
    if (!result.success) {
      const option = `--${key.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`;
      throw new IsopticError(
        'bad-option',
        `${option} ${String(written)}: ${result.error.issues[0]!.message}.`,
        'See `isoptic check --help`.',
      );
    }
    conditions[key] = result.data;
  }
  checkTimezone(conditions['timezone']);
  const scheme = raw['scheme'];
  if (scheme === undefined) return [conditions];
  if (scheme === 'light' || scheme === 'dark') return [{ ...conditions, scheme }];
  if (scheme === 'both')
    return [
      { ...conditions, scheme: 'light' },
      { ...conditions, scheme: 'dark' },
    ];
  throw new IsopticError(
    'bad-option',
    `--scheme ${String(scheme)}: there is no such scheme.`,
    'Use light, dark or both.',
  );
}

function checkTimezone(zone: unknown): void {
  if (typeof zone !== 'string') return;
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
  } catch {
    throw new IsopticError(
      'bad-option',
      `--timezone ${zone}: there is no such time zone.`,
      'Use an IANA name such as Europe/Zurich.',
    );
  }
}
