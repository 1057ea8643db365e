import { useEffect, useMemo, useRef } from 'preact/hooks';
import type { PairRecord } from '../../run/compare/record.js';
import { groupedDifferences, isDiffering, type GroupedDifference } from '../view/differing.js';
import type { Side, Together } from './in-step.js';
import { lit, nameOf, pair as chosen } from './state.js';

/** What is pointed at stands so far below the top of its window, of its height. */
const EYE = 1 / 3;

/** A window onto one side of a pair that scrolls with others; it shows the difference that is pointed at. */
export function PictureWindow({
  pair,
  side,
  together,
  caption,
}: {
  readonly pair: PairRecord;
  readonly side: Side;
  readonly together: Together;
  readonly caption: string;
}) {
  const window = useRef<HTMLDivElement>(null);
  useEffect(() => together.add({ pair, side, element: window.current! }), [pair, side]);
  const isChosen = pair === chosen.value;
  const found = useMemo(() => groupedDifferences([pair]), [pair]);
  const target = isChosen ? found[lit.value]?.difference.places[0]?.[side] : null;
  useEffect(() => {
    const element = window.current;
    const width = pair.sizes[side]?.width;
    const picture = element?.querySelector('img');
    if (!element || !target || !width || !picture) return;
    element.scrollTop = (target.y * picture.clientWidth) / width - element.clientHeight * EYE;
  }, [lit.value, isChosen]);
  return (
    <figure>
      <figcaption>
        <bdi>{caption}</bdi>
      </figcaption>
      <div
        ref={window}
        class="compare-window"
        tabIndex={0}
        role="group"
        aria-label={`${nameOf(pair, side)}, ${pair[side]}, scrolls with the others`}
        onScroll={(event) => together.scrolled(event.currentTarget)}
      >
        <Shown pair={pair} side={side} found={found} />
      </div>
    </figure>
  );
}

/** A picture with its differences outlined. */
function Shown({
  pair,
  side,
  found,
}: {
  readonly pair: PairRecord;
  readonly side: Side;
  readonly found: readonly GroupedDifference[];
}) {
  const file = pair.pictures[side];
  const size = pair.sizes[side];
  if (file === null || !size)
    return <p class="list-note">{isDiffering(pair) ? 'There is no picture.' : 'Nothing differs.'}</p>;
  const isChosen = pair === chosen.value;
  return (
    <div class="compare-page">
      <img
        src={file}
        loading="lazy"
        width={size.width}
        height={size.height}
        alt={`${pair.page}, ${nameOf(pair, side)}`}
      />
      {found.map(({ difference }, i) =>
        difference.places.map((place, nth) => {
          const rect = place[side];
          return (
            rect && (
              <span
                key={`${i} ${nth}`}
                class={isChosen && lit.value === i ? 'place lit' : 'place'}
                title={difference.message}
                style={{
                  left: `${(100 * rect.x) / size.width}%`,
                  top: `${(100 * rect.y) / size.height}%`,
                  width: `${(100 * rect.width) / size.width}%`,
                  height: `${(100 * rect.height) / size.height}%`,
                }}
              />
            )
          );
        }),
      )}
      {side === 'b' &&
        (pair.pixels?.boxes ?? [])
          .filter(({ explained }) => !explained)
          .map((box) => (
            <span
              key={`${box.x} ${box.y}`}
              class="place looks-otherwise"
              title={box.selector ?? ''}
              style={{
                left: `${(100 * box.x) / size.width}%`,
                top: `${(100 * box.y) / size.height}%`,
                width: `${(100 * box.width) / size.width}%`,
                height: `${(100 * box.height) / size.height}%`,
              }}
            />
          ))}
    </div>
  );
}
