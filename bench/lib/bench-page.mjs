/** The sizes that every page of the collection is rendered at. */
export const BENCH_DEVICES = {
  narrow: '360x720+mobile',
  medium: '600x900+mobile',
  wide: '900x1000+mobile',
  desktop: '1440x900',
};

const SHELL = `body { margin: 0; font: 16px/1.5 Arial, sans-serif; color: #222; background: #fff; }
.page-head { background: #0b3a46; color: #fff; padding: 12px 16px; display: flex; gap: 16px; flex-wrap: wrap; }
.page-head a { color: #fff; }
.shell { max-width: 1100px; margin: 0 auto; padding: 16px; }
.page-end { background: #eef3f4; padding: 24px 16px; margin-top: 32px; }`;

/** A case as a document: the construct stands in a page like others, unless it asks for none around it. */
export function pageOf({ name, html, css = '', fault = '', repair = '', form, wrap }) {
  const last = form === 'fault' ? fault : form === 'twin' ? repair : '';
  const body =
    wrap === 'none'
      ? html
      : `<header class="page-head"><strong>Lantern Isles</strong> <a href="/times">Times</a> <a href="/fares">Fares</a></header>
<main class="shell"><h1>Crossings</h1>
${html}
<p>Tickets are sold at the quay, on board, and at the post office of each island.</p></main>
<footer class="page-end"><p>Lantern Isles Ferries, Wickham Quay</p></footer>`;
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${name}</title><style>${SHELL}
${css}
${last}</style></head><body>
${body}
</body></html>`;
}
