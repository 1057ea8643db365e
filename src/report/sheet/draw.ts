import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import pLimit from 'p-limit';
import type { Sharp } from 'sharp';
import type { Rect } from '../../core/geometry/rect.js';
import { IsopticError, messageOf } from '../../core/errors.js';
import { inMarkup, svgOf } from '../../run/svg.js';
import type { Piece } from './cells.js';
import { GROUNDS, type SheetOptions } from './options.js';
import { loadSharp } from '../../engine/load-sharp.js';

/** Something on a sheet, px of the sheet. */
export type Item =
  | { readonly kind: 'piece'; readonly piece: Piece; readonly at: Rect }
  | {
      readonly kind: 'text';
      readonly lines: readonly TextLine[];
      readonly at: Rect;
      readonly wraps?: boolean;
    };

export interface TextLine {
  readonly text: string;
  readonly tone: 'ink' | 'soft';
  readonly bold?: boolean;
}

export interface Drawing {
  readonly width: number;
  readonly height: number;
  /** Under the pictures and over them, as the inside of an SVG document. */
  readonly under: string;
  readonly over: string;
  readonly items: readonly Item[];
}

/** Pictures decoded at once: each may be large. */
const AT_ONCE = 4;
const TEXT_SIZE = 13;

/**
 * Draws a sheet. Each picture is read, cut and made smaller by itself, so that what is held is the sheet and not what it is
 * made of.
 */
export async function drawn(
  { width, height, under, over, items }: Drawing,
  run: string,
  { ground }: Pick<SheetOptions, 'ground'>,
): Promise<Sharp> {
  const sharp = await loadSharp();
  const limit = pLimit(AT_ONCE);
  const groups = new Map<string, PieceItem[]>();
  for (const item of items) {
    if (item.kind !== 'piece') continue;
    groups.set(item.piece.picture, [...(groups.get(item.piece.picture) ?? []), item]);
  }
  const texts = items.flatMap((item) => (item.kind === 'text' ? [limit(() => textOf(item, ground))] : []));
  const pieces = [...groups].map(([path, of]) => limit(() => piecesOf(join(run, path), of)));
  const tiles = (await Promise.all([...texts, ...pieces])).flat();
  const raw = { width, height, channels: 3 } as const;
  // The ground is part of the drawing: laid over it as a layer, the drawing would cost as much as all pictures together.
  const drawing = `<rect width="100%" height="100%" fill="${GROUNDS[ground].ground}"/>${under}`;
  const canvas = await sharp(svgOf(raw, drawing)).removeAlpha().raw().toBuffer();
  for (const tile of tiles) if (tile) put(tile, canvas, raw);
  const whole = sharp(canvas, { raw });
  return over === '' ? whole : whole.composite([{ input: svgOf(raw, over), left: 0, top: 0 }]);
}

/** Something without see-through parts, three bytes a pixel, and where it goes. */
interface Tile {
  readonly data: Buffer;
  readonly width: number;
  readonly height: number;
  readonly left: number;
  readonly top: number;
}

/** Copies a tile into a picture, row by row: laid over one another as layers, each of them would cost the whole sheet. */
function put(
  { data, left, top, ...tile }: Tile,
  canvas: Buffer,
  { width, height }: { width: number; height: number },
): void {
  const columns = Math.min(tile.width, width - left);
  for (let row = 0; row < tile.height && top + row < height && columns > 0; row++) {
    const from = row * tile.width * 3;
    data.copy(canvas, ((top + row) * width + left) * 3, from, from + columns * 3);
  }
}

type PieceItem = Extract<Item, { kind: 'piece' }>;

/** The pieces of one picture, which is read once for all of them. */
async function piecesOf(file: string, items: readonly PieceItem[]): Promise<Tile[]> {
  const sharp = await loadSharp();
  try {
    const open = () => sharp(file, { limitInputPixels: false }).removeAlpha();
    const [item] = items;
    // Read as far as it is wanted, and made smaller on the way.
    if (items.length === 1) return [await pieceOf(open, await open().metadata(), item!)];
    const { data, info } = await open().raw().toBuffer({ resolveWithObject: true });
    const raw = { width: info.width, height: info.height, channels: info.channels };
    return await Promise.all(items.map((each) => pieceOf(() => sharp(data, { raw }), raw, each)));
  } catch (error) {
    throw new IsopticError(
      'picture-gone',
      `${file}: the picture can not be read (${messageOf(error).split('\n', 1)[0]!}).`,
      'Make the run again, or leave this page out with --page.',
    );
  }
}

async function pieceOf(
  picture: () => Sharp,
  { width, height }: { readonly width: number; readonly height: number },
  { piece: { size, part }, at }: PieceItem,
): Promise<Tile> {
  const scale = { x: width / size.width, y: height / size.height };
  const left = Math.min(width - 1, Math.max(0, Math.round((part.x - size.left) * scale.x)));
  const top = Math.min(height - 1, Math.max(0, Math.round(part.y * scale.y)));
  const cut = {
    left,
    top,
    width: Math.max(1, Math.min(width - left, Math.round(part.width * scale.x))),
    height: Math.max(1, Math.min(height - top, Math.round(part.height * scale.y))),
  };
  const drawn = await picture()
    .extract(cut)
    .resize(Math.max(1, Math.round(at.width)), Math.max(1, Math.round(at.height)), { fit: 'fill' })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { width: w, height: h } = drawn.info;
  return { data: drawn.data, width: w, height: h, left: Math.round(at.x), top: Math.round(at.y) };
}

/** The package's own letters: a bare machine has none. */
const fontFile = () =>
  fileURLToPath(import.meta.resolve('@expo-google-fonts/inter/400Regular/Inter_400Regular.ttf'));

async function textOf(
  { lines, at, wraps = false }: Extract<Item, { kind: 'text' }>,
  ground: SheetOptions['ground'],
): Promise<Tile | null> {
  const sharp = await loadSharp();
  const text = lines
    .map(({ text: words, tone, bold }) => {
      const said = `<span foreground="${GROUNDS[ground][tone]}">${inMarkup(words)}</span>`;
      return bold === true ? `<b>${said}</b>` : said;
    })
    .join('\n');
  const { data, info } = await sharp({
    text: {
      text,
      font: `Inter ${TEXT_SIZE}px`,
      fontfile: fontFile(),
      rgba: true,
      dpi: 72,
      spacing: 4,
      ...(wraps && { width: Math.max(1, Math.floor(at.width)), wrap: 'word' as const }),
    },
  })
    .png()
    .toBuffer({ resolveWithObject: true });
  const width = Math.min(info.width, Math.floor(at.width));
  const height = Math.min(info.height, Math.floor(at.height));
  if (width < 1 || height < 1) return null;
  // What is too long for its cell ends there. Words stand on the sheet's ground, wherever they stand.
  const tile = await sharp(data)
    .extract({ left: 0, top: 0, width, height })
    .flatten({ background: GROUNDS[ground].ground })
    .raw()
    .toBuffer();
  return { data: tile, width, height, left: Math.round(at.x), top: Math.round(at.y) };
}
