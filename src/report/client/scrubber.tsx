import { useRef } from 'preact/hooks';
import { spanText } from '../view/listing.js';
import { atWidth, nextChange, nextShot, type AtWidth } from '../view/scrub.js';
import type { RulerScale } from '../view/ruler-scale.js';
import { room } from './room.js';
import { look, manifest, open, page, pictureUrl, sweep, view } from './state.js';
import { Sign } from './sign.js';

/** Of the wall's height, what the picture may take at most. */
const MOST_HEIGHT = 0.62;
/** Around the picture, px. */
const AROUND = 24;
/** More findings than these have no room. */
const MOST_FAILING = 3;

const KEYS = 'Arrow keys go from change to change, with Shift from picture to picture';

/** A handle on the ruler that goes through the pictures of the widths on the way, and the picture over it. */
export function Scrubber({ scale, margin }: { readonly scale: RulerScale; readonly margin: number }) {
  const area = useRef<HTMLDivElement>(null);
  const found = sweep.value!;
  const isOpen = view.value.width > 0;
  const clamped = (width: number) => Math.min(found.to, Math.max(found.from, width));
  const width = clamped(isOpen ? view.value.width : found.to);
  const here = atWidth(found, manifest.findings, width);
  const go = (to: number) => look({ width: clamped(to) });
  const toPointer = ({ clientX }: PointerEvent) => {
    const { left, width: length } = area.current!.getBoundingClientRect();
    go(scale.widthAt((clientX - left - margin) / (length - 2 * margin)));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const to = target(event);
    if (to === null) return;
    event.preventDefault();
    event.stopPropagation();
    if (to === 0) look({ width: 0 });
    else go(to);
  };
  const target = ({ key, shiftKey }: KeyboardEvent): number | null => {
    const step = shiftKey ? nextShot : nextChange;
    switch (key) {
      case 'ArrowRight':
      case 'ArrowUp':
        return step(found, width, 1);
      case 'ArrowLeft':
      case 'ArrowDown':
        return step(found, width, -1);
      case 'Home':
        return found.from;
      case 'End':
        return found.to;
      case 'Escape':
        return isOpen ? 0 : null;
      default:
        return null;
    }
  };
  return (
    <>
      {isOpen && <AtHandle here={here} place={scale.placeOf(width)} margin={margin} />}
      <div
        ref={area}
        class="scrub-area"
        onPointerDown={(event) => {
          if (event.button !== 0) return;
          area.current!.setPointerCapture(event.pointerId);
          toPointer(event);
          area.current!.querySelector<HTMLElement>('.scrub-handle')?.focus();
          event.preventDefault();
        }}
        onPointerMove={(event) => {
          if (area.current!.hasPointerCapture(event.pointerId)) toPointer(event);
        }}
      >
        <div
          class={isOpen ? 'scrub-handle open' : 'scrub-handle'}
          role="slider"
          tabIndex={0}
          aria-label="Width"
          aria-valuemin={found.from}
          aria-valuemax={found.to}
          aria-valuenow={width}
          aria-valuetext={spokenOf(here)}
          title={KEYS}
          style={{ left: `calc(${margin}px + (100% - ${2 * margin}px) * ${scale.placeOf(width)})` }}
          onKeyDown={onKeyDown}
        />
      </div>
    </>
  );
}

function spokenOf({ width, stretch, change, failing }: AtWidth): string {
  return [
    `${width} px`,
    `layout ${spanText(stretch)}`,
    ...(change === '' ? [] : [change]),
    ...failing.map(({ rule, selector }) => `${rule} ${selector}`),
  ].join('; ');
}

function AtHandle({
  here,
  place,
  margin,
}: {
  readonly here: AtWidth;
  readonly place: number;
  readonly margin: number;
}) {
  const { width, shot, stretch, label, change, failing } = here;
  const found = sweep.value!;
  // One factor for all, so that what is wider is drawn wider.
  const factor = Math.min(
    0.4,
    (room.value.height * MOST_HEIGHT) / found.across,
    (room.value.width - AROUND) / found.to,
  );
  const left = failing.length - MOST_FAILING;
  return (
    <figure class="scrub" style={{ '--place': place, '--margin': `${margin}px` }}>
      {shot && (
        <img
          src={pictureUrl(shot.file)}
          width={Math.round(shot.width * factor)}
          height={Math.round(found.across * factor)}
          alt={`${page.value.source} at ${shot.width} px`}
        />
      )}
      <figcaption>
        <span class="scrub-head">
          <span>
            <b>{width} px</b> {label !== null && <span class="tag">{label}</span>}{' '}
            <span class="soft">
              layout {spanText(stretch)}
              {shot && shot.width !== width && `, pictured at ${shot.width}`}
            </span>
          </span>
          <button class="quiet" title="Close (Escape)" onClick={() => look({ width: 0 })}>
            Close
          </button>
        </span>
        {change !== '' && (
          <span class="scrub-change">
            From {stretch[0]}: {change}
          </span>
        )}
        {failing.slice(0, MOST_FAILING).map((finding) => (
          <button key={finding.id} class="quiet scrub-finding" onClick={() => open(finding)}>
            <Sign mark={finding.severity} /> {finding.rule} <bdi>{finding.selector}</bdi>
          </button>
        ))}
        {left > 0 && <span class="soft">and {left} more</span>}
      </figcaption>
    </figure>
  );
}
