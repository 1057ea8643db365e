import { useSignal, type Signal } from '@preact/signals';
import type { ComponentChildren, CSSProperties } from 'preact';
import { useEffect, useMemo } from 'preact/hooks';
import type { PairRecord } from '../../run/compare/record.js';
import { Together, type Side } from './in-step.js';
import { PictureWindow } from './picture-window.js';
import { nameOf, way } from './state.js';
import { Walls } from './walls.js';

const BLINK_MS = 700;

/** Two pictures of one page, held against each other. */
export function Pictures({ pair }: { readonly pair: PairRecord }) {
  switch (way.value) {
    case 'beside':
      return <Beside pair={pair} />;
    case 'slider':
      return <Slider pair={pair} />;
    case 'overlay':
      return <Overlay pair={pair} />;
    case 'blink':
      return <Blink pair={pair} />;
    case 'heat':
      return <Heat pair={pair} />;
    case 'walls':
      return <Walls page={pair.page} />;
  }
}

/** Both, scrolled in step. */
function Beside({ pair }: { readonly pair: PairRecord }) {
  const together = useMemo(() => new Together(), []);
  return (
    <div class="beside">
      {(['a', 'b'] as const).map((side) => (
        <PictureWindow key={side} pair={pair} side={side} together={together} caption={nameOf(pair, side)} />
      ))}
    </div>
  );
}

/** One over the other, cut where the slider stands. */
function Slider({ pair }: { readonly pair: PairRecord }) {
  const cut = useSignal(50);
  return (
    <Over
      pair={pair}
      share={cut}
      does="How much of the first is shown, per cent"
      style={{ clipPath: `inset(0 ${100 - cut.value}% 0 0)` }}
    >
      <span class="cut" style={{ left: `${cut.value}%` }} />
    </Over>
  );
}

/** One through the other: what is the same is one picture, what moved is seen twice. */
function Overlay({ pair }: { readonly pair: PairRecord }) {
  const strength = useSignal(50);
  return (
    <Over
      pair={pair}
      share={strength}
      does="How strongly the first is shown over the second, per cent"
      style={{ opacity: strength.value / 100 }}
    />
  );
}

/** The first over the second, and how much of it is seen. */
function Over({
  pair,
  share,
  does,
  style,
  children,
}: {
  readonly pair: PairRecord;
  readonly share: Signal<number>;
  readonly does: string;
  readonly style: CSSProperties;
  readonly children?: ComponentChildren;
}) {
  return (
    <div class="over">
      <p class="over-head">
        <bdi>{nameOf(pair, 'a')}</bdi>
        <input
          type="range"
          min="0"
          max="100"
          aria-label={does}
          value={share.value}
          onInput={(event) => (share.value = Number(event.currentTarget.value))}
        />
        <bdi>{nameOf(pair, 'b')}</bdi>
      </p>
      <div class="compare-window" tabIndex={0} role="group" aria-label="The second under the first, scrolls">
        <div class="stack" style={{ width: widest(pair) }}>
          <Picture pair={pair} side="b" />
          <div class="top-picture" style={style}>
            <Picture pair={pair} side="a" />
          </div>
          {children}
        </div>
      </div>
    </div>
  );
}

function Blink({ pair }: { readonly pair: PairRecord }) {
  const side = useSignal<Side>('a');
  const runs = useSignal(!matchMedia('(prefers-reduced-motion: reduce)').matches);
  useEffect(() => {
    if (!runs.value) return;
    const timer = setInterval(() => (side.value = side.value === 'a' ? 'b' : 'a'), BLINK_MS);
    return () => clearInterval(timer);
  }, [runs.value]);
  return (
    <div class="over">
      <p class="over-head">
        <button aria-pressed={runs.value} onClick={() => (runs.value = !runs.value)}>
          {runs.value ? 'Stop' : 'Blink'}
        </button>
        <button onClick={() => (side.value = side.value === 'a' ? 'b' : 'a')}>The other</button>
        <bdi>{nameOf(pair, side.value)}</bdi>
      </p>
      <div class="compare-window" tabIndex={0} role="group" aria-label="One after the other, scrolls">
        <div class="stack" style={{ width: widest(pair) }}>
          <Picture pair={pair} side="b" />
          <div class="top-picture" style={{ visibility: side.value === 'a' ? 'visible' : 'hidden' }}>
            <Picture pair={pair} side="a" />
          </div>
        </div>
      </div>
    </div>
  );
}

function Heat({ pair }: { readonly pair: PairRecord }) {
  const heat = pair.pixels?.heat ?? null;
  return (
    <div class="over">
      <p class="over-head">
        {pair.pixels
          ? `${(100 * pair.pixels.score).toFixed(2)} % of what both show looks otherwise`
          : 'Pictures of windows of different sizes are not compared px by px'}
      </p>
      <div
        class="compare-window"
        tabIndex={0}
        role="group"
        aria-label="What looks otherwise, in red; scrolls"
      >
        {heat === null ? (
          <p class="list-note">Nothing looks otherwise.</p>
        ) : (
          <img class="heat" src={heat} alt="What looks otherwise, in red" />
        )}
      </div>
    </div>
  );
}

function Picture({ pair, side }: { readonly pair: PairRecord; readonly side: Side }) {
  const file = pair.pictures[side];
  return file === null ? (
    <p class="list-note">There is no picture.</p>
  ) : (
    <img
      src={file}
      alt={`${pair.page}, ${nameOf(pair, side)}`}
      style={{ width: `${(100 * widthOf(pair, side)) / widest(pair)}%` }}
    />
  );
}

/** Of the whole page, CSS px. */
const widthOf = (pair: PairRecord, side: Side) => pair.sizes[side]?.width ?? 1;
/** One px of both is drawn as large. */
const widest = (pair: PairRecord) => Math.max(widthOf(pair, 'a'), widthOf(pair, 'b'));
