import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Sharp } from 'sharp';
import { formatByEnding } from '../by-ending.js';

/** What a sheet can be, by the ending of its file. */
export const SHEET_FORMATS = ['.png', '.webp', '.pdf'] as const;
export type SheetFormat = (typeof SHEET_FORMATS)[number];

/** CSS px an inch. */
const PX_PER_INCH = 96;

/** @throws IsopticError `bad-option` */
export function sheetFormat(path: string): SheetFormat {
  return formatByEnding('--out', path, 'sheet', SHEET_FORMATS);
}

/** @param sheets one for each sheet of paper; of a picture the first */
export async function encoded(
  sheets: readonly Sharp[],
  format: SheetFormat,
  browser: string | undefined,
): Promise<Buffer> {
  const [first] = sheets as [Sharp];
  switch (format) {
    case '.png':
      return first.png({ compressionLevel: 2 }).toBuffer();
    case '.webp':
      return first.webp({ quality: 88, effort: 1 }).toBuffer();
    case '.pdf':
      return onPaper(sheets, browser);
  }
}

/** Each sheet on paper of its own size. */
async function onPaper(sheets: readonly Sharp[], browser: string | undefined): Promise<Buffer> {
  const folder = await mkdtemp(join(tmpdir(), 'isoptic-sheet-'));
  try {
    const pages: string[] = [];
    let style = 'html,body{margin:0}img{display:block}';
    for (const [i, sheet] of sheets.entries()) {
      const { data, info } = await sheet.png({ compressionLevel: 2 }).toBuffer({ resolveWithObject: true });
      await writeFile(join(folder, `${i}.png`), data);
      style += `@page p${i}{size:${info.width / PX_PER_INCH}in ${info.height / PX_PER_INCH}in;margin:0}.p${i}{page:p${i}}`;
      pages.push(`<img class="p${i}" src="${i}.png" width="${info.width}" height="${info.height}" alt="">`);
    }
    const file = join(folder, 'sheet.html');
    await writeFile(file, `<!doctype html><meta charset="utf-8"><style>${style}</style>${pages.join('')}`);
    const { printed } = await import('../printed.js');
    return await printed(file, { address: '', paper: null, browser });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
