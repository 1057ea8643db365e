import Table from 'cli-table3';
import colors from 'picocolors';

const NO_LINES = Object.fromEntries(
  [
    'top',
    'top-mid',
    'top-left',
    'top-right',
    'bottom',
    'bottom-mid',
    'bottom-left',
    'bottom-right',
    'left',
    'left-mid',
    'mid',
    'mid-mid',
    'right',
    'right-mid',
  ].map((name) => [name, '']),
);

/** A table without lines, numbers to the right. */
export function plainTable(
  head: readonly string[],
  rows: readonly (readonly (string | number)[])[],
  right: readonly string[],
): string {
  const table = new Table({
    head: head.map((text) => colors.bold(text)),
    style: { head: [], border: [], compact: true, 'padding-left': 0, 'padding-right': 0 },
    chars: { ...NO_LINES, middle: '   ' },
    colAligns: head.map((text) => (right.includes(text) ? 'right' : 'left')),
  });
  for (const row of rows) table.push([...row]);
  return table
    .toString()
    .split('\n')
    .map((line) => line.trimEnd())
    .join('\n');
}
