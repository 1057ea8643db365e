import { selectAll } from 'css-select';
import { parseDocument } from 'htmlparser2';

/** Compares selectors by the elements they match in a document. */
export function matcherOf(html) {
  const document = parseDocument(html);
  return (reported, wanted) => {
    try {
      const [found] = selectAll(reported, document);
      return found !== undefined && selectAll(wanted, document).includes(found);
    } catch {
      return reported === wanted;
    }
  };
}
