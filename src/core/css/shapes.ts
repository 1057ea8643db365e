import type { CssNode, FunctionNode } from 'css-tree';
import generate from 'css-tree/generator';
import parse from 'css-tree/parser';
import { remembered } from './remembered.js';

/** The basic shape of a computed `clip-path` (CSS Shapes 1, section 3), its arguments as they are written. */
export interface Shape {
  readonly kind: string;
  /** The values between commas, each a list: `inset(1px 2px)` has one of two, a polygon one for each point. */
  readonly groups: readonly (readonly string[])[];
}

/** The shape of a `clip-path`; null for `none`, for a reference, and for what is no CSS. */
export function shapeOf(value: string): Shape | null {
  if (!value.includes('(')) return null;
  return readShape(value);
}

const readShape = remembered((value): Shape | null => {
  const found = functionOf(value);
  if (!found) return null;
  const groups: string[][] = [[]];
  for (const node of found.children.toArray()) {
    if (node.type === 'Operator' && node.value === ',') groups.push([]);
    else groups.at(-1)!.push(generate(node));
  }
  return { kind: found.name.toLowerCase(), groups };
});

/** The values before a keyword such as `at`, and those after it. */
export function partedAt(
  keyword: string,
  values: readonly string[],
): [before: readonly string[], after: readonly string[]] {
  const at = values.indexOf(keyword);
  return at < 0 ? [values, []] : [values.slice(0, at), values.slice(at + 1)];
}

function functionOf(value: string): FunctionNode | null {
  let tree: CssNode;
  try {
    tree = parse(value, { context: 'value' });
  } catch {
    return null;
  }
  const nodes = tree.type === 'Value' ? tree.children.toArray() : [];
  return nodes.find((node) => node.type === 'Function') ?? null;
}
