/** The first element of a selector; `>>>` steps into an open shadow root or a frame's document. Null when there is none. */
export function findFirst(selector: string): Element | null {
  return findAll(selector)[0] ?? null;
}

/** All elements of a selector, in document order within each tree. @throws SyntaxError for a selector that is none */
export function findAll(selector: string): Element[] {
  const [first = '', ...inner] = selector.split('>>>');
  let found = [...document.querySelectorAll(first.trim())];
  for (const part of inner) {
    found = found.flatMap((element) => {
      const below = element.shadowRoot ?? frameDocument(element);
      return below ? [...below.querySelectorAll(part.trim())] : [];
    });
  }
  return found;
}

/** The elements of a selector; none for one that is no selector. */
export function findIn(document: Document, selector: string): Iterable<Element> {
  try {
    return document.querySelectorAll(selector);
  } catch {
    return [];
  }
}

/** The document of a frame; null for another element, and where it is of another origin. */
export function frameDocument(element: Element): Document | null {
  try {
    return (element as HTMLIFrameElement).contentDocument ?? null;
  } catch {
    return null;
  }
}
