import { lit, open, view, type PaneMark } from './state.js';

/** Less can't be pointed at, px. */
const LEAST = 6;

interface Props {
  readonly marks: readonly PaneMark[];
  readonly factor: number;
  /** Of the picture, and where on the page it begins, CSS px. */
  readonly size: { readonly left: number; readonly width: number; readonly height: number };
}

/** What covers so much of the page is about all of it: a tint over everything would tell nothing. */
const WHOLE_SHARE = 0.8;

/** The findings on a picture: outlined, filled and numbered. The list is the way to them by keyboard. */
export function Marks({ marks, factor, size }: Props) {
  return (
    <div class="marks">
      {marks.map(({ listed: { finding, number }, seen }) => {
        const { x, y, width, height } = seen.rect;
        const isOpen = view.value.finding === finding.id;
        const isWhole = width * height > WHOLE_SHARE * size.width * size.height;
        const state = isOpen ? ' open' : lit.value === finding.id ? ' lit' : '';
        const by = seen.by ? `${Math.round(seen.by.px)} px` : '';
        const title = `${finding.rule} ${by}\n${finding.selector}\n${seen.message ?? finding.message}${finding.cause ? `\nWhy: ${finding.cause.message}` : ''}`;
        return (
          <button
            key={`${finding.id} ${seen.page}`}
            class={`mark ${finding.severity}${state}${isWhole ? ' whole-page' : ''}`}
            tabIndex={-1}
            title={title}
            aria-label={`Finding ${number}`}
            style={{
              left: (x - size.left) * factor,
              top: y * factor,
              width: Math.max(LEAST, width * factor),
              height: Math.max(LEAST, height * factor),
            }}
            onClick={() => open(isOpen ? null : finding)}
            onMouseEnter={() => (lit.value = finding.id)}
            onMouseLeave={() => (lit.value = null)}
          >
            <span class="mark-number">{number}</span>
          </button>
        );
      })}
    </div>
  );
}
