import type { FindingRecord } from '../../run/manifest.js';
import type { Listed } from '../view/listing.js';
import { lit, open, view } from './state.js';

export interface PaneMark {
  readonly listed: Listed;
  readonly seen: FindingRecord['seen'][number];
}

/** Less can't be pointed at, px. */
const LEAST = 6;

/** The findings on a picture: outlined, filled and numbered. The list is the way to them by keyboard. */
export function Marks({ marks, factor }: { marks: readonly PaneMark[]; factor: number }) {
  return (
    <div class="marks">
      {marks.map(({ listed: { finding, number }, seen }) => {
        const { x, y, width, height } = seen.rect;
        const isOpen = view.value.finding === finding.id;
        const state = isOpen ? ' open' : lit.value === finding.id ? ' lit' : '';
        const by = seen.by ? `${Math.round(seen.by.px)} px` : '';
        const title = `${finding.rule} ${by}\n${finding.selector}\n${finding.message}${finding.cause ? `\nWhy: ${finding.cause.message}` : ''}`;
        return (
          <button
            key={`${finding.id} ${seen.page}`}
            class={`mark ${finding.severity}${state}`}
            tabIndex={-1}
            title={title}
            aria-label={`Finding ${number}`}
            style={{
              left: x * factor,
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
