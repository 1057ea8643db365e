import { parse as parseColour, wcagContrast } from 'culori';
import generate from 'css-tree/generator';
import parse from 'css-tree/parser';
import walk from 'css-tree/walker';
import { remembered } from './remembered.js';

/** The alpha of a computed colour, 0 to 1; of what is none, 1. */
export const alphaOf = remembered((colour): number => {
  if (colour === '') return 0;
  return parseColour(colour)?.alpha ?? 1;
});

/** Words that stand out from their ground by less can't be seen, and by more can be read (WCAG 2.2, contrast ratio). */
export const UNSEEN = 1.2;
export const READ = 2.5;

/** How far two colours stand out from one another, 1 to 21 (WCAG 2.2, contrast ratio); NaN where one is none. */
export function contrastOf(a: string, b: string): number {
  return contrastsOf(a)(b);
}

const contrastsOf = remembered((a) => {
  const one = parseColour(a);
  return remembered((b): number => {
    const other = parseColour(b);
    return one && other ? wcagContrast(one, other) : NaN;
  });
});

/** The colours that stand in a computed image, as of the stops of a gradient. */
export const coloursIn = remembered((image): readonly string[] => {
  const found: string[] = [];
  const take = (text: string) => {
    if (parseColour(text)) found.push(text);
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
});

/** The alphas of these. */
export const alphasIn = remembered((image): readonly number[] => coloursIn(image).map(alphaOf));
