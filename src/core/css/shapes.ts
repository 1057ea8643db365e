import type { CssNode, FunctionNode } from 'css-tree';
import generate from 'css-tree/generator';
import parse from 'css-tree/parser';

/** The basic shape of a computed `clip-path` (CSS Shapes 1, section 3), its arguments as they are written. */
export interface Shape {
  readonly kind: string;
  /** The values between commas, each a list: `inset(1px 2px)` has one of two, a polygon one for each point. */
  readonly groups: readonly (readonly string[])[];
}

/** The shape of a `clip-path`; null for `none`, for a reference, and for what is no CSS. */
export function shapeOf(value: string): Shape | null {
  if (!value.includes('(')) return null;
  let shape = shapes.get(value);
  if (shape === undefined) shapes.set(value, (shape = readShape(value)));
  return shape;
}

/** Pages have few shapes. */
const shapes = new Map<string, Shape | null>();

function readShape(value: string): Shape | null {
  const found = functionOf(value);
  if (!found) return null;
  const groups: string[][] = [[]];
  for (const node of found.children.toArray()) {
    if (node.type === 'Operator' && node.value === ',') groups.push([]);
    else groups.at(-1)!.push(generate(node));
  }
  return { kind: found.name.toLowerCase(), groups };
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
