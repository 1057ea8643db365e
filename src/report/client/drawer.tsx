import { count } from '../../core/geometry/format.js';
import { SEVERITIES } from '../../core/sightings/sighting.js';
import { Filters } from './filters.js';
import { FindingRow } from './finding-row.js';
import { Sign } from './sign.js';
import { clearFilters, isFiltered, list, look, manifest, page, view } from './state.js';

/** The findings of the page, or those that are searched for; folded, a strip of their counts. */
export function Drawer() {
  const { drawer } = view.value;
  return (
    <aside class={drawer ? 'drawer' : 'drawer folded'} aria-label="Findings">
      <Counts />
      {drawer && <Filters />}
      {drawer && <List />}
    </aside>
  );
}

function Counts() {
  const { drawer, without } = view.value;
  const ofPage = manifest.findings.filter(
    (finding) => !finding.waived && finding.seen.some((seen) => seen.page === page.value.id),
  );
  return (
    <div class="counts">
      {SEVERITIES.map((severity) => {
        const number = ofPage.filter((finding) => finding.severity === severity).length;
        const isShown = !without.includes(severity);
        return (
          <button
            key={severity}
            aria-pressed={isShown}
            title={`${isShown ? 'Leave out' : 'Show'} ${severity}s`}
            onClick={() =>
              look({ without: isShown ? [...without, severity] : without.filter((one) => one !== severity) })
            }
          >
            <Sign mark={severity} /> {number}
          </button>
        );
      })}
      <button
        class="quiet fold-drawer"
        aria-expanded={drawer}
        title="Fold or unfold the findings (d)"
        onClick={() => look({ drawer: !drawer })}
      >
        {drawer ? 'Fold' : 'Findings'}
      </button>
    </div>
  );
}

function List() {
  const { search } = view.value;
  const isSearch = search.trim() !== '';
  const listed = list.value;
  return (
    <div class="list">
      {isSearch && (
        <p class="list-note">
          {count(listed.length, 'finding')} on all pages for “{search.trim()}”
        </p>
      )}
      {listed.length === 0 && (
        <p class="list-note">
          {isSearch || isFiltered.value ? (
            <>
              Nothing fits.{' '}
              <button class="quiet" onClick={clearFilters}>
                Show everything
              </button>
            </>
          ) : (
            'Nothing was found on this page.'
          )}
        </p>
      )}
      <ol>
        {listed.map((entry) => (
          <FindingRow key={entry.finding.id} entry={entry} withPage={isSearch} />
        ))}
      </ol>
    </div>
  );
}
