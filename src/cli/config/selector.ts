import { parse } from 'css-what';
import * as z from 'zod';

/** A CSS selector; `>>>` steps into an open shadow root or a frame's document. */
export const selectorSchema = z.string().refine(isSelector, 'is not a valid CSS selector');

function isSelector(text: string): boolean {
  try {
    return text.split('>>>').every((part) => part.trim() !== '' && parse(part).length > 0);
  } catch {
    return false;
  }
}
