import { digest } from '../identity/digest.js';

/**
 * A digest of a document's structure: its tags with their ids and classes in order, digits aside. Tokens, counters and
 * texts that change from answer to answer do not count; another markup does.
 */
export function structureOf(html: string): string {
  const tags = html.matchAll(/<([a-z][\w-]*)((?:\s+[^<>]*)?)>/gi);
  const parts: string[] = [];
  for (const [, tag = '', attributes = ''] of tags) {
    const named = [...attributes.matchAll(/\b(?:id|class)\s*=\s*("[^"]*"|'[^']*'|[^\s>]+)/gi)].map(
      (match) => match[1],
    );
    parts.push([tag.toLowerCase(), ...named].join(' ').replace(/\d+/g, '0'));
  }
  return digest(parts.join('\n'));
}
