/** A condition that stands in the document and not in a style sheet. */
export interface MediaAttribute {
  readonly kind: 'link' | 'style' | 'source' | 'sizes';
  /** The attribute's text. */
  readonly text: string;
  /** The element, as it would be told: `link[href="print.css"]`. */
  readonly element: string;
}

/** Conditions in attributes: of style sheets, of sources of pictures, and of their sizes. Shadow trees included where they are open. */
export function mediaAttributes(): MediaAttribute[] {
  const found: MediaAttribute[] = [];
  const roots: (Document | ShadowRoot)[] = [document];
  for (const root of roots) {
    for (const element of root.querySelectorAll('*')) {
      if (element.shadowRoot) roots.push(element.shadowRoot);
      found.push(...attributesOf(element));
    }
  }
  return found;
}

function attributesOf(element: Element): MediaAttribute[] {
  const name = element.localName;
  const media = element.getAttribute('media')?.trim() ?? '';
  const sizes = element.getAttribute('sizes')?.trim() ?? '';
  const found: MediaAttribute[] = [];
  if (media !== '' && (name === 'link' || name === 'style' || name === 'source')) {
    const isSheet = name !== 'link' || /\bstylesheet\b/i.test(element.getAttribute('rel') ?? '');
    if (isSheet) found.push({ kind: name, text: media, element: shown(element) });
  }
  if (sizes !== '' && (name === 'img' || name === 'source') && sizes.includes('('))
    found.push({ kind: 'sizes', text: sizes, element: shown(element) });
  return found;
}

function shown(element: Element): string {
  for (const attribute of ['href', 'src', 'srcset']) {
    const value = element.getAttribute(attribute);
    if (value === null || value === '') continue;
    // Without a query, which may carry tokens, and of a set the first alone.
    const file = value.trim().split(/[\s,?#]/)[0]!;
    return `${element.localName}[${attribute}="${file.startsWith('data:') ? 'data:' : file}"]`;
  }
  return element.localName;
}
