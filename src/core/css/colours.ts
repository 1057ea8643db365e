import { parse as parseColour } from 'culori';
import generate from 'css-tree/generator';
import parse from 'css-tree/parser';
import walk from 'css-tree/walker';

/** The alpha of a computed colour, 0 to 1; of what is none, 1. */
export function alphaOf(colour: string): number {
  let alpha = alphas.get(colour);
  if (alpha === undefined) alphas.set(colour, (alpha = readAlpha(colour)));
  return alpha;
}

/** Pages have few colours. */
const alphas = new Map<string, number>();

function readAlpha(colour: string): number {
  if (colour === '') return 0;
  return parseColour(colour)?.alpha ?? 1;
}

/** The alphas of the colours that stand in a computed image, as of the stops of a gradient. */
export function alphasIn(image: string): readonly number[] {
  let found = images.get(image);
  if (!found) images.set(image, (found = readAlphas(image)));
  return found;
}

const images = new Map<string, readonly number[]>();

function readAlphas(image: string): number[] {
  const found: number[] = [];
  const take = (text: string) => {
    const colour = parseColour(text);
    if (colour) found.push(colour.alpha ?? 1);
  };
  try {
    walk(parse(image, { context: 'value' }), (node) => {
      if (node.type === 'Identifier' || node.type === 'Hash' || node.type === 'Function')
        take(generate(node));
    });
  } catch {
    return [];
  }
  return found;
}
