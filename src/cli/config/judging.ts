import { readFile } from 'node:fs/promises';
import { join, relative, resolve } from 'node:path';
import * as z from 'zod';
import { IsopticError, messageOf } from '../../core/errors.js';
import type { RuleSettings } from '../../core/findings/settings.js';
import type { Waiver } from '../../core/findings/waivers.js';
import type { Settings } from './load.js';
import { parseWithRules } from './parse-with-rules.js';
import type { RuleConfig } from './schema.js';
import { folderOf } from './secrets.js';

const WAIVERS_FILE = 'isoptic-waivers.yaml';

/** How the configuration wants each rule taken. */
export function ruleSettingsOf({ config }: Settings): RuleSettings {
  const entries = Object.entries(config.rules as Record<string, RuleConfig | undefined>);
  return Object.fromEntries(
    entries.flatMap(([name, setting]) => {
      if (setting === undefined) return [];
      return [[name, typeof setting === 'string' ? { severity: setting, elements: [] } : setting]];
    }),
  );
}

const waiversSchema = (rules: readonly string[]) =>
  z.array(
    z
      .strictObject({
        finding: z.string().optional(),
        rule: z.enum(rules).optional(),
        selector: z.string().optional(),
        page: z.string().optional(),
        reason: z.string().min(1),
        who: z.string().min(1),
        until: z.iso.date('must be a day such as 2027-03-31'),
      })
      .refine(
        ({ finding, rule }) => finding !== undefined || rule !== undefined,
        'must name a finding or a rule',
      ),
  );

/**
 * The accepted findings: of the file that is named, or of the usual one beside the configuration, if it is there.
 * @throws IsopticError `bad-waivers`, `bad-config` with the line
 */
export async function loadWaivers(named: string | undefined, settings: Settings): Promise<Waiver[]> {
  const folder = folderOf(settings.file);
  const file = named === undefined ? join(folder, WAIVERS_FILE) : resolve(folder, named);
  let text: string;
  try {
    text = await readFile(file, 'utf8');
  } catch (error) {
    if (named === undefined && /ENOENT/.test(messageOf(error))) return [];
    throw new IsopticError(
      'bad-waivers',
      `${named ?? WAIVERS_FILE}: can not be read (${messageOf(error)}).`,
      'Name another file with --waivers.',
    );
  }
  const shown = relative(process.cwd(), file);
  return (await parseWithRules(text === '' ? '[]' : text, shown, waiversSchema)).data;
}
