import { selectAll } from 'css-select';
import { parseDocument } from 'htmlparser2';

/** Compares selectors by the elements they match in a document. */
export function matcherOf(html) {
  const document = parseDocument(html);
  // Names in drawings are told apart by case, as a browser does.
  const all = (selector) => selectAll(selector, document, { xmlMode: true });
  return (reported, wanted) => {
    try {
      const [found] = all(reported);
      return found !== undefined && all(wanted).includes(found);
    } catch {
      return reported === wanted;
    }
  };
}
