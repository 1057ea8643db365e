import { count } from '../../core/geometry/format.js';
import type { Manifest } from '../../run/manifest.js';
import { FindingList } from './finding-list.js';
import { pageAnchor, pageModels, type PageModel } from './model.js';
import { FIRST_SCALE, Pane } from './pane.js';

export interface ReportParts {
  readonly manifest: Manifest;
  readonly style: string;
  readonly script: string;
  /** Content security policy that lets in just this style and script, and pictures from beside the file. */
  readonly policy: string;
}

/** The whole report. All text goes through the renderer's escaping; nothing from a page is ever markup. */
export function ReportDocument({ manifest, style, script, policy }: ReportParts) {
  const pages = pageModels(manifest);
  const titleText =
    `Isoptic: ${[...new Set(manifest.pages.map((page) => page.title || page.source))].join(', ')}`.slice(
      0,
      120,
    );
  let first = 1;
  return (
    <html lang="en">
      <head>
        <meta charset="utf-8" />
        <meta http-equiv="Content-Security-Policy" content={policy} />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <meta name="color-scheme" content="light dark" />
        <title>{titleText}</title>
        <style dangerouslySetInnerHTML={{ __html: style }} />
      </head>
      <body>
        <a class="skip" href="#main">
          Skip to the findings
        </a>
        <header>
          <h1>Isoptic</h1>
          <p class="verdict">{verdict(manifest)}</p>
          <p class="facts">
            {count(manifest.pages.length, 'page')} on {count(manifest.profiles.length, 'profile')},{' '}
            {manifest.engine.name} {manifest.engine.version},{' '}
            <time dateTime={manifest.startedAt}>{readable(manifest.startedAt)}</time>
          </p>
          {pages.length > 1 && <PageNav pages={pages} />}
          <p class="scale">
            <label for="scale">Picture scale</label>{' '}
            <input id="scale" type="range" min="0.1" max="1" step="0.05" value={FIRST_SCALE} />{' '}
            <output for="scale">{Math.round(FIRST_SCALE * 100)} %</output>
          </p>
        </header>
        <main id="main" tabIndex={-1}>
          {pages.map((page) => {
            const start = first;
            first += page.findings.length;
            return <PageSection key={page.id} page={page} first={start} />;
          })}
        </main>
        <script type="module" dangerouslySetInnerHTML={{ __html: script }} />
      </body>
    </html>
  );
}

function PageNav({ pages }: { pages: readonly PageModel[] }) {
  return (
    <nav aria-label="Pages">
      <ul>
        {pages.map((page) => (
          <li key={page.id}>
            <a href={`#${pageAnchor(page.id)}`}>
              {page.source}
              {page.state !== undefined && `: ${page.state}`}{' '}
              <span class={page.findings.length > 0 ? 'badge has' : 'badge'}>{page.findings.length}</span>
            </a>
          </li>
        ))}
      </ul>
    </nav>
  );
}

function PageSection({ page, first }: { page: PageModel; first: number }) {
  return (
    <section class="page" id={pageAnchor(page.id)} aria-labelledby={`${pageAnchor(page.id)}-title`}>
      <h2 id={`${pageAnchor(page.id)}-title`}>
        {page.title || page.source}
        {page.state !== undefined && `: ${page.state}`}
      </h2>
      <p class="source">{page.source}</p>
      <h3>Findings</h3>
      <FindingList findings={page.findings} first={first} />
      <h3>Pictures</h3>
      <div class="panes" role="region" aria-label={`${page.source} on every profile`} tabIndex={0}>
        {page.panes.map((pane) => (
          <Pane key={pane.anchor} pane={pane} />
        ))}
      </div>
    </section>
  );
}

function verdict({ summary, interrupted }: Manifest): string {
  const parts = [
    summary.errors > 0 && count(summary.errors, 'error'),
    summary.warnings > 0 && count(summary.warnings, 'warning'),
    summary.notices > 0 && count(summary.notices, 'notice'),
    summary.failed > 0 && `${count(summary.failed, 'render')} failed`,
  ].filter((part) => part !== false);
  const text = parts.length === 0 ? 'Nothing found.' : `${parts.join(', ')}.`;
  return interrupted ? `Interrupted. ${text}` : text;
}

/** `2026-11-23 09:32 UTC` */
function readable(iso: string): string {
  return `${iso.slice(0, 10)} ${iso.slice(11, 16)} UTC`;
}
