import { useMemo } from 'preact/hooks';
import { isDiffering } from '../view/differing.js';
import { Together } from './in-step.js';
import { PictureWindow } from './picture-window.js';
import { at, comparison, lit, pair as chosen, pairs } from './state.js';

/** All profiles of a page, as they are in the one and, below, in the other: scrolled in step, by what they show. */
export function Walls({ page }: { readonly page: string }) {
  const together = useMemo(() => new Together(), [page]);
  const shown = comparison.pairs.filter((pair) => pair.page === page);
  return (
    <div class="walls" tabIndex={0} role="group" aria-label={`${page} on all profiles, scrolls sideways`}>
      {shown.map((pair) => (
        <section key={`${pair.a} ${pair.b}`} class={pair === chosen.value ? 'wall-pair lit' : 'wall-pair'}>
          <h3>
            <button
              class="quiet"
              aria-current={pair === chosen.value}
              onClick={() => {
                at.value = pairs.indexOf(pair);
                lit.value = -1;
              }}
            >
              <bdi>{pair.a === pair.b ? pair.b : `${pair.a} and ${pair.b}`}</bdi>
            </button>{' '}
            <span class="soft">{isDiffering(pair) ? pair.differences.length || '' : 'same'}</span>
          </h3>
          {(['a', 'b'] as const).map((side) => (
            <PictureWindow
              key={side}
              pair={pair}
              side={side}
              together={together}
              caption={comparison[side].name}
            />
          ))}
        </section>
      ))}
    </div>
  );
}
