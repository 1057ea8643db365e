import { isMap, isNode, LineCounter, parseDocument, type Document } from 'yaml';
import * as z from 'zod';
import { IsopticError } from '../../core/errors.js';
import { nearestNames } from '../../core/profile/pick.js';

export interface Parsed<T> {
  readonly data: T;
  /** Where a key or an entry was written, `file:line`. */
  readonly whereOf: (...path: (string | number)[]) => string;
}

/**
 * Reads YAML (or JSON, which is YAML) and holds it against a schema. Every mistake is told with its line, its key and
 * what is allowed there.
 * @param shown the file's name for messages
 * @throws IsopticError `bad-config`
 */
export function parseConfig<S extends z.ZodType>(
  text: string,
  shown: string,
  schema: S,
): Parsed<z.output<S>> {
  const lines = new LineCounter();
  const document = parseDocument(text, { lineCounter: lines });
  const [syntax] = document.errors;
  if (syntax) {
    const { line } = lines.linePos(syntax.pos[0]);
    throw new IsopticError(
      'bad-config',
      `${shown}:${line}: ${syntax.message.split('\n')[0]}`,
      'Mend the line and try again.',
    );
  }
  const result = schema.safeParse(document.toJS() ?? {});
  if (result.success) {
    const whereOf = (...path: (string | number)[]) => {
      const node = keyOrValue(document, path);
      const line = isNode(node) && node.range ? lines.linePos(node.range[0]).line : 1;
      return `${shown}:${line}`;
    };
    return { data: result.data, whereOf };
  }
  const told = result.error.issues
    .map((issue) => ({ line: lineOf(document, lines, issue), text: explain(issue, schema) }))
    .sort((a, b) => a.line - b.line)
    .map(({ line, text: message }) => `${shown}:${line}: ${message}`);
  throw new IsopticError('bad-config', told.join('\n'), 'docs/configuration.md lists every key.');
}

function lineOf(document: Document, lines: LineCounter, issue: z.core.$ZodIssue): number {
  const path = issue.path.map((part) => (typeof part === 'symbol' ? String(part) : part));
  if (issue.code === 'unrecognized_keys') path.push(issue.keys[0]!);
  for (let length = path.length; length >= 0; length--) {
    const node = keyOrValue(document, path.slice(0, length));
    if (isNode(node) && node.range) return lines.linePos(node.range[0]).line;
  }
  return 1;
}

/** The key where the path ends in one: a map's own place is its first entry, a line further down. */
function keyOrValue(document: Document, path: readonly (string | number)[]): unknown {
  const parent: unknown = path.length > 1 ? document.getIn(path.slice(0, -1), true) : document.contents;
  const last = path.at(-1);
  if (isMap(parent) && last !== undefined) {
    const pair = parent.items.find((item) => isNode(item.key) && String(item.key) === String(last));
    if (pair) return pair.key;
  }
  return document.getIn(path, true);
}

function explain(issue: z.core.$ZodIssue, schema: z.ZodType): string {
  const at = issue.path.map(String).join('.');
  if (issue.code === 'unrecognized_keys') {
    const known = keysAt(schema, issue.path);
    return issue.keys
      .map((key) => {
        const nearest = nearestNames(key, known, 1).join('');
        return `there is no key "${[at, key].filter(Boolean).join('.')}"; the nearest known one is "${nearest}"`;
      })
      .join('; ');
  }
  if (issue.code === 'invalid_value') {
    return `${at}: must be one of ${issue.values.map(String).join(', ')}`;
  }
  return `${at === '' ? '' : `${at}: `}${issue.message}`;
}

/** The keys that a schema knows at a path. */
function keysAt(schema: z.ZodType, path: readonly PropertyKey[]): string[] {
  let at: unknown = schema;
  for (const part of path) {
    at = unwrapped(at);
    if (at instanceof z.ZodObject) at = (at.shape as Record<PropertyKey, unknown>)[part];
    else if (at instanceof z.ZodRecord) at = at.valueType;
    else if (at instanceof z.ZodArray) at = at.element;
    else return [];
  }
  at = unwrapped(at);
  return at instanceof z.ZodObject ? Object.keys(at.shape) : [];
}

function unwrapped(schema: unknown): unknown {
  let at = schema;
  while (at instanceof z.ZodOptional || at instanceof z.ZodDefault || at instanceof z.ZodNullable)
    at = at.unwrap();
  return at;
}
