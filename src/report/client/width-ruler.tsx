import { queryBegins } from '../../run/sweep/query-begins.js';
import { room } from './room.js';
import type { Manifest } from '../../run/manifest.js';
import { rulerScale } from '../view/ruler-scale.js';
import { Scrubber } from './scrubber.js';
import { manifest, opened, lit, page, shownProfiles, sweep } from './state.js';

type Sweep = NonNullable<Manifest['sweep']>[number];

/** At the ruler's ends, px. */
const MARGIN = 24;
/** Room for a number, px. */
const LABEL = 44;

const scale = rulerScale(Math.max(1920, ...manifest.profiles.map(({ width }) => width)));
const placeOf = (width: number) => scale.placeOf(width);

/** Along the bottom: the widths that are shown, and at which of them the finding that is opened or pointed at occurs. */
export function WidthRuler() {
  const finding = opened.value ?? manifest.findings.find(({ id }) => id === lit.value);
  const showing = new Set(
    (finding?.seen ?? []).filter((seen) => seen.page === page.value.id).map(({ profile }) => profile),
  );
  const widths = new Map<number, boolean>();
  for (const { name, width } of shownProfiles.value)
    widths.set(width, (widths.get(width) ?? false) || showing.has(name));
  const sorted = [...widths].sort(([a], [b]) => a - b);
  const isAtEnd = (width: number) => (1 - placeOf(width)) * room.value.width < LABEL - MARGIN;
  // Of two that are close, the first one's number is written.
  let written = -Infinity;
  const isWritten = (width: number) => {
    const at = placeOf(width) * room.value.width;
    if (at - written < (isAtEnd(width) ? 2 : 1) * LABEL) return false;
    written = at;
    return true;
  };
  const hit = sorted.flatMap(([width, isHit]) => (isHit ? [width] : []));
  const text = finding && hit.length > 0 ? `; the finding shows at ${hit.join(', ')} px` : '';
  const found = sweep.value;
  return (
    <div class="ruler-area">
      <div
        class={found ? 'width-ruler swept' : 'width-ruler'}
        role="img"
        aria-label={`Widths: ${sorted.map(([width]) => width).join(', ')} px${text}`}
      >
        {sorted.map(([width, isHit]) => (
          <span
            key={width}
            data-width={width}
            title={`${width} px`}
            class={['width', isHit && finding!.severity, isAtEnd(width) && 'at-end']
              .filter(Boolean)
              .join(' ')}
            style={{ left: `calc(${MARGIN}px + (100% - ${2 * MARGIN}px) * ${placeOf(width)})` }}
          >
            {isWritten(width) ? width : ''}
          </span>
        ))}
        {found && <Layouts found={found} />}
      </div>
      {found?.shots && <Scrubber scale={scale} margin={MARGIN} />}
    </div>
  );
}

/** Findings that have room under the layouts. */
const MOST_BARS = 5;

/** From a width to the next wider one, as places on the ruler. */
const across = (from: number, end: number) => ({
  left: `calc(${MARGIN}px + (100% - ${2 * MARGIN}px) * ${placeOf(from)})`,
  width: `max(2px, calc((100% - ${2 * MARGIN}px) * ${placeOf(end) - placeOf(from)}))`,
});

/** What a search over the widths found: layouts as bands, media queries as ticks, and where something fails as bars. */
function Layouts({ found }: { found: Sweep }) {
  const starts = [{ width: found.from, message: '' }, ...found.edges];
  const failing = manifest.findings
    .filter(
      ({ severity, waived, spans }) => severity !== 'notice' && !waived && spans?.[found.page] !== undefined,
    )
    .slice(0, MOST_BARS);
  return (
    <>
      {starts.map(({ width, message }, i) => {
        const end = starts[i + 1]?.width ?? found.to + 1;
        return (
          <span
            key={width}
            class="layout-band"
            data-from={width}
            title={`${width} to ${end - 1} px${message === '' ? '' : `: ${message}`}`}
            style={across(width, end)}
          />
        );
      })}
      {queryBegins(found).map((width) => (
        <span
          key={width}
          class="query-tick"
          title={`A media query begins at ${width} px`}
          style={across(width, width)}
        />
      ))}
      {failing.flatMap((finding, row) =>
        finding.spans![found.page]!.map(([from, last]) => (
          <span
            key={`${finding.id} ${from}`}
            class={
              lit.value === finding.id || opened.value?.id === finding.id
                ? `failing lit ${finding.severity}`
                : `failing ${finding.severity}`
            }
            title={`${finding.rule} ${finding.selector}: ${from} to ${last} px`}
            style={{ ...across(from, last + 1), top: `${38 + 4 * row}px` }}
          />
        )),
      )}
    </>
  );
}
