import { stripVTControlCharacters } from 'node:util';
import colors from 'picocolors';

const GAP = '   ';

/** Of names, numbers and signs, none of which takes two columns. */
const widthOf = (cell: string) => stripVTControlCharacters(cell).trimStart().length;

/** A table without lines. @param right heads of the columns whose cells stand at their right */
export function plainTable(
  head: readonly string[],
  rows: readonly (readonly (string | number)[])[],
  right: readonly string[],
): string {
  const all = [head.map((text) => colors.bold(text)), ...rows.map((row) => row.map(String))];
  // A cell may begin with an empty line, which parts groups of rows.
  const widths = head.map((_, column) => Math.max(...all.map((row) => widthOf(row[column] ?? ''))));
  return all
    .map((row) =>
      row
        .map((cell, column) => {
          const room = ' '.repeat(widths[column]! - widthOf(cell));
          return right.includes(head[column]!) ? room + cell : cell + room;
        })
        .join(GAP)
        .trimEnd(),
    )
    .join('\n');
}
