import { useSignal } from '@preact/signals';
import { Copy } from '../client/copy.js';
import { Sign } from '../client/sign.js';
import { isDiffering } from '../view/differing.js';
import { comparison, differences, keyOf, lit, meant, pair, pairs, places } from './state.js';

/** What differs in the pair that is shown, and what was found newly. */
export function List() {
  const shown = pair.value;
  const { findings, notes } = comparison;
  const isFolded = useSignal(false);
  const isHere = ({ pages }: { readonly pages: readonly string[] }) => !shown || pages.includes(shown.page);
  return (
    <aside class="compare-list" aria-label="Differences">
      {shown && (
        <section>
          <h2>
            {shown.page}{' '}
            <span class="soft">{shown.a === shown.b ? shown.b : `${shown.a} and ${shown.b}`}</span>
          </h2>
          {shown.unlike !== null && <p class="soft">Unlike by {shown.unlike.toFixed(2)} of 1</p>}
          {shown.variant !== null && <p>{shown.variant}</p>}
          {!isDiffering(shown) && <p>Nothing differs.</p>}
          <ol class="differences">
            {differences.value.map(({ difference }, i) => (
              <li key={`${difference.kind} ${difference.message}`} class={lit.value === i ? 'lit' : ''}>
                <button
                  aria-current={lit.value === i}
                  onClick={() => (lit.value = i)}
                  onMouseEnter={() => (lit.value = i)}
                  onFocus={() => (lit.value = i)}
                >
                  <span class="tag">{difference.kind}</span> <bdi>{difference.message}</bdi>
                  {difference.follows.map((text) => (
                    <span key={text} class="soft follow">
                      {text}
                    </span>
                  ))}
                </button>
              </li>
            ))}
          </ol>
          {places.value.length > 0 && (
            <ul class="looks">
              {places.value.map(({ selector, px }) => (
                <li key={selector}>
                  <span class="tag">looks</span> <bdi>{selector}</bdi> looks otherwise over {px}
                </li>
              ))}
            </ul>
          )}
          {shown.notes.map((note) => (
            <p key={note} class="soft">
              {note}
            </p>
          ))}
          {isDiffering(shown) && <Meant />}
        </section>
      )}
      <section>
        <h2>
          <button
            class="quiet"
            aria-expanded={!isFolded.value}
            onClick={() => (isFolded.value = !isFolded.value)}
          >
            Findings
          </button>{' '}
          <span class="soft">
            {findings.new.length} new, {findings.gone.length} gone, {findings.same.length} in both
          </span>
        </h2>
        {!isFolded.value && (
          <ul class="looks">
            {findings.new.filter(isHere).map((finding) => (
              <li key={finding.id}>
                <Sign mark={finding.severity} /> <span class="tag">new</span> {finding.rule}{' '}
                <bdi>{finding.selector}</bdi>
                <span class="soft follow">{finding.message}</span>
              </li>
            ))}
            {findings.gone.filter(isHere).map((finding) => (
              <li key={finding.id} class="gone">
                <Sign mark={finding.severity} /> <span class="tag">gone</span> {finding.rule}{' '}
                <bdi>{finding.selector}</bdi>
              </li>
            ))}
          </ul>
        )}
        {notes.map((note) => (
          <p key={note} class="soft">
            {note}
          </p>
        ))}
      </section>
    </aside>
  );
}

/** Marks what is meant, and gives the list that a baseline takes over. */
function Meant() {
  const shown = pair.value!;
  const key = keyOf(shown);
  const all = pairs.filter(isDiffering).map(keyOf);
  return (
    <p class="meant">
      <label>
        <input
          type="checkbox"
          checked={meant.value.has(key)}
          onChange={(event) => {
            const next = new Set(meant.value);
            if (event.currentTarget.checked) next.add(key);
            else next.delete(key);
            meant.value = next;
          }}
        />{' '}
        This is meant
      </label>{' '}
      <button class="quiet" onClick={() => (meant.value = new Set(all))}>
        All are
      </button>
      {meant.value.size > 0 && (
        <>
          {' '}
          <Copy what={`list of ${meant.value.size}`} text={`${[...meant.value].join('\n')}\n`} />
        </>
      )}
    </p>
  );
}
