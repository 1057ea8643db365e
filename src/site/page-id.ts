/**
 * Names pages for folders and findings: short, stable from run to run, unique in a run, safe as a folder name.
 * `index.html` and `/` are `home`, `sub/index.html` is `sub`, `fares.html` is `fares`.
 */
export class PageIds {
  private readonly taken = new Set<string>();

  /** @param path a file's path or a URL's path with query, `/` between its parts */
  idFor(path: string): string {
    const base = slug(path.replace(/\.html?(?=$|[?#])/i, '').replace(/(^|\/)index(?=$|[?#])/i, '$1'));
    let id = base;
    for (let n = 2; this.taken.has(id); n++) id = `${base}-${n}`;
    this.taken.add(id);
    return id;
  }
}

const MAX_LENGTH = 80;

function slug(path: string): string {
  const text = path
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, MAX_LENGTH);
  return text === '' ? 'home' : text;
}
