import type { RefObject } from 'preact';
import type { ProfileRecord } from '../view/lineup.js';
import { showAt } from './follow.js';
import { lit, open, view, type PaneMark } from './state.js';

interface Props {
  readonly marks: readonly PaneMark[];
  readonly profile: ProfileRecord;
  /** Px of the window. */
  readonly height: number;
  /** CSS px. */
  readonly pageHeight: number;
  /** What shows which part of the page the pane shows. */
  readonly here: RefObject<HTMLSpanElement>;
}

/** The whole page at a glance: where on it the findings are, and which part the pane shows. */
export function Strip({ marks, profile, height, pageHeight, here }: Props) {
  return (
    <div class="strip" style={{ height }} aria-hidden="true">
      <span
        ref={here}
        class="here"
        style={{ height: `${Math.min(100, (100 * profile.height) / pageHeight)}%` }}
      />
      {marks.map(({ listed: { finding }, seen }) => (
        <button
          key={finding.id}
          tabIndex={-1}
          class={`tick ${finding.severity}${view.value.finding === finding.id || lit.value === finding.id ? ' lit' : ''}`}
          style={{ top: `${Math.min(99, (100 * Math.max(0, seen.rect.y)) / pageHeight)}%` }}
          onClick={() => {
            open(finding);
            showAt(profile.name, seen.rect.y);
          }}
          onMouseEnter={() => (lit.value = finding.id)}
          onMouseLeave={() => (lit.value = null)}
        />
      ))}
    </div>
  );
}
