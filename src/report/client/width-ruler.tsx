import { room } from './room.js';
import { manifest, opened, lit, page, shownProfiles } from './state.js';

/** The ruler's ends, CSS px; widths double over even ways, as devices do. */
const FROM = 280;
const MARGIN = 24;
/** Room for a number, px. */
const LABEL = 44;

const to = Math.max(1920, ...manifest.profiles.map(({ width }) => width));
/** Share of the way from the ruler's one end to the other. */
const placeOf = (width: number) => Math.log(Math.max(FROM, width) / FROM) / Math.log(to / FROM);

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
  // Of two that are close, the first one's number is written.
  let written = -Infinity;
  const isWritten = (width: number) => {
    const at = placeOf(width) * room.value.width;
    if (at - written < LABEL) return false;
    written = at;
    return true;
  };
  const hit = sorted.flatMap(([width, isHit]) => (isHit ? [width] : []));
  const text = finding && hit.length > 0 ? `; the finding shows at ${hit.join(', ')} px` : '';
  return (
    <div
      class="width-ruler"
      role="img"
      aria-label={`Widths: ${sorted.map(([width]) => width).join(', ')} px${text}`}
    >
      {sorted.map(([width, isHit]) => (
        <span
          key={width}
          data-width={width}
          title={`${width} px`}
          class={isHit ? `width ${finding!.severity}` : 'width'}
          style={{ left: `calc(${MARGIN}px + (100% - ${2 * MARGIN}px) * ${placeOf(width)})` }}
        >
          {isWritten(width) ? width : ''}
        </span>
      ))}
    </div>
  );
}
