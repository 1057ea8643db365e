import { readFile } from 'node:fs/promises';
import { dirname, resolve } from 'node:path';
import * as z from 'zod';
import { IsopticError, messageOf } from '../../core/errors.js';

/** A text as it stands, or where it is read from: an environment variable or a file. */
export const secretSchema = z.union(
  [z.string(), z.strictObject({ env: z.string().min(1) }), z.strictObject({ file: z.string().min(1) })],
  { error: 'must be a text, { env: NAME } or { file: PATH }' },
);
/** Where a text is read from that must not stand in a configuration. */
export const secretSourceSchema = z.union(
  [z.strictObject({ env: z.string().min(1) }), z.strictObject({ file: z.string().min(1) })],
  { error: 'must be { env: NAME } or { file: PATH }: a password does not belong into the configuration' },
);
export type Secret = z.output<typeof secretSchema>;

/** Short texts stand everywhere; taking them out of a run would only garble it. */
const MIN_LENGTH = 4;

/** Reads secrets from where they are kept, and knows every one that was read, to keep it out of what is written. */
export class Secrets {
  private readonly known = new Set<string>();

  /** @param folder what files are named from */
  constructor(private readonly folder: string) {}

  /**
   * @param where the key or option that asks for it, for messages
   * @throws IsopticError `secret-missing`
   */
  async read(secret: Secret, where: string): Promise<string> {
    if (typeof secret === 'string') return secret;
    if ('file' in secret) {
      const text = (await this.readFile(secret.file, where)).replace(/\r?\n$/, '');
      this.add(text);
      return text;
    }
    const value = process.env[secret.env];
    if (value === undefined || value === '') {
      throw new IsopticError(
        'secret-missing',
        `${where}: the environment variable ${secret.env} is not set.`,
        'Set it where Isoptic is started.',
      );
    }
    this.add(value);
    return value;
  }

  /** @throws IsopticError `secret-missing` */
  async readFile(file: string, where: string): Promise<string> {
    try {
      return await readFile(resolve(this.folder, file), 'utf8');
    } catch (error) {
      throw new IsopticError(
        'secret-missing',
        `${where}: ${file} can not be read (${messageOf(error)}).`,
        'Paths are meant from the folder of the configuration.',
      );
    }
  }

  add(...texts: readonly string[]): void {
    for (const text of texts) if (text.length >= MIN_LENGTH) this.known.add(text);
  }

  /**
   * A copy of plain data in which every known secret is dots, where it stands as a word of its own. Names by which a run holds
   * together (of profiles, pages, rules and files) are none of anybody's secrets and stay.
   */
  redact<T>(value: T): T {
    if (this.known.size === 0) return value;
    const longestFirst = [...this.known].sort((a, b) => b.length - a.length);
    const secret = new RegExp(`(?<!${WORD})(?:${longestFirst.map(escaped).join('|')})(?!${WORD})`, 'gu');
    const clean = (entry: unknown, key = ''): unknown => {
      if (typeof entry === 'string') return NAMES.has(key) ? entry : entry.replace(secret, '•••');
      if (Array.isArray(entry)) return entry.map((inner) => clean(inner, key));
      if (entry !== null && typeof entry === 'object') {
        const kept = Object.entries(entry).map(([name, inner]) => [
          name,
          clean(inner, key === 'shots' ? key : name),
        ]);
        return Object.fromEntries(kept);
      }
      return entry;
    };
    return clean(value) as T;
  }
}

/** A letter or digit on its other side makes a secret a part of another word. */
const WORD = '[\\p{L}\\p{N}_]';

/** Keys of a run whose texts are names. */
const NAMES = new Set([
  'id',
  'page',
  'pages',
  'of',
  'profile',
  'name',
  'rule',
  'family',
  'severity',
  'status',
  'code',
  'shots',
  'evidence',
]);

function escaped(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');
}

/** The folder that paths in a configuration are meant from. */
export function folderOf(configFile: string | null): string {
  return configFile === null ? process.cwd() : dirname(configFile);
}
