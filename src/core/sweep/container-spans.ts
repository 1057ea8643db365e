import type { Span } from '../geometry/span.js';

/** A container at one width of the page. */
export interface ContainerSize {
  /** Of the viewport, CSS px. */
  readonly width: number;
  /** Inline size of its content box and its type, CSS px; null where it is not laid out. */
  readonly size: { readonly inline: number; readonly fontSize: number } | null;
}

/**
 * The widths of the page at which a condition holds in a container. Between two widths that were looked at the container's size is a
 * linear function of the page's, as all boxes of one layout are.
 * @param sizes by width, rising
 */
export function containerSpans(
  holds: (inlineSize: number, fontSize: number) => boolean | null,
  sizes: readonly ContainerSize[],
): Span[] {
  const spans: { min: number; max: number }[] = [];
  const add = (min: number, max: number) => {
    const last = spans.at(-1);
    if (last && min <= last.max + 1) last.max = Math.max(last.max, max);
    else spans.push({ min, max });
  };
  const held = sizes.map(({ size }) => size !== null && holds(size.inline, size.fontSize) === true);
  sizes.forEach(({ width }, i) => {
    if (held[i]) add(width, width);
    const next = sizes[i + 1];
    if (!next) return;
    if (held[i] && held[i + 1]) add(width, next.width);
    else if (held[i] !== held[i + 1]) {
      const turn = turnBetween(holds, sizes[i]!, next, held[i]!);
      if (held[i]) add(width, turn - 1);
      else add(turn, next.width);
    }
  });
  return spans;
}

/** Widths to look at, so that each turn of a condition lies between two that were looked at: none where all do. */
export function openTurns(
  holds: (inlineSize: number, fontSize: number) => boolean | null,
  sizes: readonly ContainerSize[],
): number[] {
  const isHeld = ({ size }: ContainerSize) => size !== null && holds(size.inline, size.fontSize) === true;
  return sizes.slice(1).flatMap((next, i) => {
    const before = sizes[i]!;
    if (next.width - before.width <= 1 || isHeld(before) === isHeld(next)) return [];
    const turn = turnBetween(holds, before, next, isHeld(before));
    return [turn - 1, turn].filter((width) => width > before.width && width < next.width);
  });
}

/** The first width between two at which it is not any more as it was at the first. */
function turnBetween(
  holds: (inlineSize: number, fontSize: number) => boolean | null,
  a: ContainerSize,
  b: ContainerSize,
  before: boolean,
): number {
  for (let width = a.width + 1; width < b.width; width++) {
    // Where it comes or goes, it is as it was as long as it is there.
    if (!a.size || !b.size) continue;
    const share = (width - a.width) / (b.width - a.width);
    const inline = a.size.inline + share * (b.size.inline - a.size.inline);
    if ((holds(inline, a.size.fontSize) === true) !== before) return width;
  }
  return b.width;
}
