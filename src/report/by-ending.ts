import { extname } from 'node:path';
import { IsopticError } from '../core/errors.js';

/**
 * What a file is to be, by the ending of its name.
 * @param thing what is written, for the message: `sheet`
 * @throws IsopticError `bad-option`
 */
export function formatByEnding<Format extends string>(
  option: string,
  path: string,
  thing: string,
  formats: readonly Format[],
): Format {
  const ending = extname(path).toLowerCase();
  const format = formats.find((known) => known === ending);
  if (format !== undefined) return format;
  throw new IsopticError(
    'bad-option',
    `${option} ${path}: a ${thing} is no ${ending === '' ? 'file without an ending' : ending} file.`,
    `Let it end with ${formats.join(', ')}.`,
  );
}
