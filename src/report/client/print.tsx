import { count } from '../../core/geometry/format.js';
import type { Manifest } from '../../run/manifest.js';
import { pictureSize } from '../view/lineup.js';
import { Sign } from './sign.js';
import { all, goTo, manifest, page, pictureUrl, renderOf, view } from './state.js';
import { Quoted } from './text.js';

/** Of a long page, so much is printed, as a share of the picture's width: the rest is in the report. */
const MOST_RATIO = 2.4;

/** One page of the site after another, as it is printed. */
export function PrintSheet({ isWhole }: { isWhole: boolean }) {
  const pages = isWhole ? manifest.pages : [page.value];
  return (
    <div class={isWhole ? 'print whole' : 'print'}>
      {isWhole && (
        <div class="print-tools">
          <button onClick={() => goTo({ as: 'wall' })}>Back to the wall</button>
          <button onClick={() => print()}>Print</button>
        </div>
      )}
      {pages.map((each) => (
        <PrintedPage key={each.id} of={each} />
      ))}
    </div>
  );
}

function PrintedPage({ of }: { of: Manifest['pages'][number] }) {
  const findings = all.filter(
    ({ finding }) =>
      !finding.waived &&
      finding.seen.some((seen) => seen.page === of.id) &&
      !view.value.without.includes(finding.severity),
  );
  return (
    <article>
      <h2>
        {of.title || of.source}
        {of.state !== undefined && `: ${of.state}`}
      </h2>
      <p class="soft">
        {of.source}, {count(findings.length, 'finding')}, {count(manifest.profiles.length, 'profile')},{' '}
        {manifest.startedAt.slice(0, 10)}
      </p>
      <div class="print-panes">
        {manifest.profiles.map((profile) => {
          const render = renderOf(of.id, profile.name);
          const path = render?.shots.preview ?? render?.shots.full ?? render?.shots.fold;
          if (!render || path === undefined) return null;
          const size = pictureSize(profile, render);
          const marks = findings.flatMap(({ finding, number }) =>
            finding.seen
              .filter((seen) => seen.page === of.id && seen.profile === profile.name)
              .map((seen) => ({ finding, number, seen })),
          );
          const height = Math.min(size.height, size.width * MOST_RATIO);
          return (
            <figure
              key={profile.name}
              style={{ flexGrow: size.width / height, flexBasis: size.width > 700 ? '34%' : '18%' }}
            >
              <div class="print-picture" style={{ aspectRatio: `${size.width} / ${height}` }}>
                <img src={pictureUrl(path)} alt={`${of.source} on ${profile.name}`} />
                {marks
                  .filter(({ seen }) => seen.rect.y < height)
                  .map(({ finding, number, seen: { rect } }) => (
                    <span
                      key={finding.id}
                      class={`mark ${finding.severity}`}
                      style={{
                        left: `${(100 * (rect.x - size.left)) / size.width}%`,
                        top: `${(100 * rect.y) / height}%`,
                        width: `${(100 * rect.width) / size.width}%`,
                        height: `${(100 * rect.height) / height}%`,
                      }}
                    >
                      <span class="mark-number">{number}</span>
                    </span>
                  ))}
              </div>
              <figcaption>
                {profile.name}, {profile.width} × {profile.height}
              </figcaption>
            </figure>
          );
        })}
      </div>
      <ol>
        {findings.map(({ finding, number }) => (
          <li key={finding.id}>
            <Sign mark={finding.severity} /> <span class="number">{number}</span>{' '}
            <strong>{finding.rule}</strong>{' '}
            <code>
              <bdi>{finding.selector}</bdi>
            </code>
            <p>{finding.message}</p>
            {finding.cause && (
              <p class="soft">
                Why: <Quoted text={finding.cause.message} /> {finding.cause.declaration?.source}
              </p>
            )}
          </li>
        ))}
      </ol>
    </article>
  );
}
