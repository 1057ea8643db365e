import { useSignal } from '@preact/signals';
import { useEffect, useRef } from 'preact/hooks';
import type { PairRecord } from '../../run/compare/record.js';
import { comparison, differences, lit, way } from './state.js';

type Side = 'a' | 'b';
const BLINK_MS = 700;

/** Two pictures of one page, held against each other. */
export function Pictures({ pair }: { readonly pair: PairRecord }) {
  switch (way.value) {
    case 'beside':
      return <Beside pair={pair} />;
    case 'slider':
      return <Slider pair={pair} />;
    case 'blink':
      return <Blink pair={pair} />;
    case 'heat':
      return <Heat pair={pair} />;
  }
}

const nameOf = (pair: PairRecord, side: Side) => (pair.a === pair.b ? comparison[side].name : pair[side]);

/** Both, scrolled in step: by the share of the page. */
function Beside({ pair }: { readonly pair: PairRecord }) {
  const a = useRef<HTMLDivElement>(null);
  const b = useRef<HTMLDivElement>(null);
  const leading = useRef<Side | null>(null);
  const follow = (side: Side) => {
    const [from, to] = side === 'a' ? [a.current!, b.current!] : [b.current!, a.current!];
    if (leading.current !== null && leading.current !== side) return;
    leading.current = side;
    const most = from.scrollHeight - from.clientHeight;
    to.scrollTop = most > 0 ? (from.scrollTop / most) * (to.scrollHeight - to.clientHeight) : 0;
    requestAnimationFrame(() => requestAnimationFrame(() => (leading.current = null)));
  };
  const target = differences.value[lit.value]?.difference.places[0];
  useEffect(() => {
    for (const [element, rect, side] of [
      [a.current, target?.a, 'a'],
      [b.current, target?.b, 'b'],
    ] as const) {
      if (!element || !rect) continue;
      leading.current = side;
      const scale = element.scrollWidth / (pair.sizes[side]?.width ?? element.scrollWidth);
      element.scrollTop = rect.y * scale - element.clientHeight / 3;
    }
  }, [lit.value]);
  return (
    <div class="beside">
      {(['a', 'b'] as const).map((side) => (
        <figure key={side}>
          <figcaption>
            <bdi>{nameOf(pair, side)}</bdi>
          </figcaption>
          <div
            ref={side === 'a' ? a : b}
            class="compare-window"
            tabIndex={0}
            role="group"
            aria-label={`${nameOf(pair, side)}, scrolls with the other`}
            onScroll={() => follow(side)}
          >
            <Shown pair={pair} side={side} />
          </div>
        </figure>
      ))}
    </div>
  );
}

/** A picture with its differences outlined. */
function Shown({ pair, side }: { readonly pair: PairRecord; readonly side: Side }) {
  const file = pair.pictures[side];
  const size = pair.sizes[side];
  if (file === null || !size) return <p class="list-note">There is no picture.</p>;
  return (
    <div class="compare-page">
      <img src={file} alt={`${pair.page}, ${nameOf(pair, side)}`} />
      {differences.value.map(({ difference }, i) =>
        difference.places.map((place, nth) => {
          const rect = place[side];
          return (
            rect && (
              <span
                key={`${i} ${nth}`}
                class={lit.value === i ? 'place lit' : 'place'}
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

/** One over the other, cut where the slider stands. */
function Slider({ pair }: { readonly pair: PairRecord }) {
  const cut = useSignal(50);
  return (
    <div class="over">
      <p class="over-head">
        <bdi>{nameOf(pair, 'a')}</bdi>
        <input
          type="range"
          min="0"
          max="100"
          aria-label="How much of the first is shown, per cent"
          value={cut.value}
          onInput={(event) => (cut.value = Number(event.currentTarget.value))}
        />
        <bdi>{nameOf(pair, 'b')}</bdi>
      </p>
      <div class="compare-window" tabIndex={0} role="group" aria-label="The second under the first, scrolls">
        <div class="stack" style={{ width: widest(pair) }}>
          <Picture pair={pair} side="b" />
          <div class="top-picture" style={{ clipPath: `inset(0 ${100 - cut.value}% 0 0)` }}>
            <Picture pair={pair} side="a" />
          </div>
          <span class="cut" style={{ left: `${cut.value}%` }} />
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
