import type * as z from 'zod';
import type { Parsed } from './explain.js';

/**
 * Reads YAML and holds it against a schema that knows the rules by their names. Rules, and what reads YAML, are much to load, and the browser
 * waits for what is loaded before it: who has nothing to read loads neither.
 * @param shown the file's name for messages
 * @throws IsopticError `bad-config`
 */
export async function parseWithRules<S extends z.ZodType>(
  text: string,
  shown: string,
  schemaFor: (rules: readonly string[]) => S,
): Promise<Parsed<z.output<S>>> {
  const [{ parseConfig }, { RULES }] = await Promise.all([
    import('./explain.js'),
    import('../../core/rules/index.js'),
  ]);
  return parseConfig(text, shown, schemaFor(RULES.map(({ meta }) => meta.name)));
}
