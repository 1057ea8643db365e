import type { CssNode } from 'css-tree';
import generate from 'css-tree/generator';
import parse from 'css-tree/parser';
import walk from 'css-tree/walker';

/** A condition that a style sheet puts on rules or on a sheet that it imports. */
export interface SheetQuery {
  readonly kind: 'media' | 'container' | 'import';
  /** As it is written, with its white space folded; of a container query with the container's name. */
  readonly text: string;
  /** Where its at-rule begins, from 0. */
  readonly line: number;
  readonly column: number;
  /** The selectors of the rules that it is put on, as far as they are its own. */
  readonly selectors: readonly string[];
  /** The conditions around it, from the outside in. */
  readonly within: readonly string[];
}

/** Selectors that are kept of a query: enough to find its rules by. */
const MOST_SELECTORS = 50;
/** `@import url(a.css) layer(x) supports(…) (min-width: 40em)`: what stands before the condition (CSS Cascade 5, section 2). */
const BEFORE_MEDIA =
  /^\s*(?:url\((?:"[^"]*"|'[^']*'|[^)]*)\)|"[^"]*"|'[^']*')\s*(?:layer(?:\([^)]*\))?\s*)?(?:supports\((?:[^()]|\([^()]*\))*\)\s*)?/i;

/** The conditional rules of a style sheet, in their order. What can't be read is passed over, as browsers do. */
export function queriesIn(css: string): SheetQuery[] {
  const found: { query: SheetQuery; selectors: string[] }[] = [];
  const open: { node: CssNode; entry: (typeof found)[number] }[] = [];
  const ast = parse(css, {
    positions: true,
    parseValue: false,
    parseRulePrelude: false,
    parseAtrulePrelude: false,
    parseCustomProperty: false,
    onParseError: () => undefined,
  });
  walk(ast, {
    enter(node: CssNode) {
      if (node.type === 'Rule') {
        const at = open.at(-1);
        if (at && at.entry.selectors.length < MOST_SELECTORS)
          at.entry.selectors.push(folded(generate(node.prelude)));
        return;
      }
      if (node.type !== 'Atrule') return;
      const kind = kindOf(node.name);
      if (kind === null || !node.prelude) return;
      const prelude = folded(generate(node.prelude));
      const text = kind === 'import' ? prelude.replace(BEFORE_MEDIA, '') : prelude;
      if (text === '') return;
      const selectors: string[] = [];
      const { line, column } = node.loc!.start;
      const within = open.map(({ entry }) => entry.query.text);
      const entry = {
        query: { kind, text, line: line - 1, column: column - 1, selectors, within },
        selectors,
      };
      found.push(entry);
      if (node.block) open.push({ node, entry });
    },
    leave(node: CssNode) {
      if (open.at(-1)?.node === node) open.pop();
    },
  });
  return found.map(({ query }) => query);
}

function kindOf(name: string): SheetQuery['kind'] | null {
  const known = name.toLowerCase();
  return known === 'media' || known === 'container' || known === 'import' ? known : null;
}

function folded(text: string): string {
  return text.trim().replace(/\s+/g, ' ');
}
