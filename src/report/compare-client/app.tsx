import { useEffect } from 'preact/hooks';
import { count } from '../../core/geometry/format.js';
import { said } from '../client/said.js';
import { List } from './list.js';
import { Pictures } from './pictures.js';
import { at, comparison, pair, pairs, step, stepDifference, WAYS, way, type Way } from './state.js';

const NAMES: Readonly<Record<Way, string>> = {
  beside: 'Side by side',
  slider: 'Slider',
  overlay: 'Overlay',
  blink: 'Blink',
  heat: 'Heat',
  walls: 'All profiles',
};

function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
  if (event.target instanceof HTMLElement && event.target.matches('select, input:not([type="checkbox"])'))
    return;
  const chosen = WAYS[Number(event.key) - 1];
  if (chosen) way.value = chosen;
  else if (event.key === 'j') stepDifference(1);
  else if (event.key === 'k') stepDifference(-1);
  else if (event.key === ']') step(1);
  else if (event.key === '[') step(-1);
  else return;
  event.preventDefault();
}

export function App() {
  useEffect(() => {
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
  const shown = pair.value;
  return (
    <div class="report comparing">
      <header class="compare-bar">
        <h1>
          <bdi>{comparison.a.name}</bdi> <span class="soft">and</span> <bdi>{comparison.b.name}</bdi>
        </h1>
        {pairs.length > 0 && (
          <label>
            <span class="hidden">Page and profile</span>
            <select
              id="pair"
              value={at.value}
              onChange={(event) => (at.value = Number(event.currentTarget.value))}
            >
              {pairs.map((each, i) => (
                <option key={`${each.page} ${each.b}`} value={i}>
                  {each.page} on {each.a === each.b ? each.b : `${each.a} and ${each.b}`}
                  {each.differences.length > 0 ? ` (${each.differences.length})` : ''}
                </option>
              ))}
            </select>
          </label>
        )}
        <div class="ways" role="group" aria-label="How they are held against each other">
          {WAYS.map((each, i) => (
            <button
              key={each}
              aria-pressed={way.value === each}
              title={`${NAMES[each]} (${i + 1})`}
              onClick={() => (way.value = each)}
            >
              {NAMES[each]}
            </button>
          ))}
        </div>
      </header>
      <div class="compare-desk">
        <List />
        <main class="compare-stage" aria-label="The pictures">
          {shown ? (
            <Pictures
              // On the walls another pair is only pointed at.
              key={way.value === 'walls' ? shown.page : `${shown.page} ${shown.a} ${shown.b}`}
              pair={shown}
            />
          ) : (
            <p class="list-note">There was nothing to compare.</p>
          )}
        </main>
      </div>
      <p class="hidden" role="status" aria-live="polite">
        {said.value ||
          (shown ? `${shown.page} on ${shown.b}: ${count(shown.differences.length, 'difference')}` : '')}
      </p>
    </div>
  );
}
