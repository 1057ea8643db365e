import { count } from '../../core/geometry/format.js';
import type { Mark, PaneModel } from './model.js';

/** Room to zoom: pictures are drawn at this share of a CSS px until the reader changes it. */
export const FIRST_SCALE = 0.35;

/** One profile of one page: the picture with its outlines, and the facts of the profile under it. */
export function Pane({ pane }: { pane: PaneModel }) {
  const { profile, render, marks } = pane;
  return (
    <figure class={`pane ${pane.worst ?? ''}`} id={pane.anchor} tabIndex={-1}>
      <h4>{profile.name}</h4>
      <Picture pane={pane} />
      <figcaption>
        <p>
          {profile.width} × {profile.height} px, ratio {profile.dpr}, {profile.orientation}
        </p>
        <p>
          {profile.platform}, {profile.touch ? 'touch' : 'no touch'}
          {profile.mobile ? ', mobile viewport' : ''}
        </p>
        <p class="state">{state(pane, marks)}</p>
        {render.notes.map((note) => (
          <p class="note" key={note}>
            Note: {note}
          </p>
        ))}
        {render.shots.fold !== undefined && (
          <p>
            <a href={render.shots.fold}>First screen at device pixels</a>
          </p>
        )}
        <details>
          <summary>User agent</summary>
          <p class="agent">{profile.userAgent}</p>
        </details>
      </figcaption>
    </figure>
  );
}

function state({ render }: PaneModel, marks: readonly Mark[]): string {
  if (render.status === 'failed') return `Not rendered: ${render.error?.message ?? ''}`;
  if (marks.length === 0) return 'Clean';
  return `${count(marks.length, 'finding')}: ${marks.map((mark) => mark.number).join(', ')}`;
}

function Picture({ pane }: { pane: PaneModel }) {
  const { profile, render, marks } = pane;
  if (render.status === 'failed' && render.shots.failed !== undefined) {
    return (
      <p class="missing">
        <a href={render.shots.failed}>What the screen showed when the step failed</a>
      </p>
    );
  }
  if (render.status === 'failed') {
    return <p class="missing">No picture: {render.error?.code}</p>;
  }
  const source = render.shots.full ?? render.shots.fold;
  if (source === undefined || !render.document) return <p class="missing">No picture was taken.</p>;
  const whole = render.shots.full !== undefined;
  const width = whole ? Math.max(render.document.width, profile.width) : profile.width;
  const height = whole ? Math.max(render.document.height, profile.height) : profile.height;
  return (
    <div class="picture">
      <img
        src={source}
        alt={`${render.page} on ${profile.name}`}
        loading="lazy"
        width={Math.round(width * FIRST_SCALE)}
        height={Math.round(height * FIRST_SCALE)}
        data-width={width}
        data-height={height}
      />
      <svg viewBox={`0 0 ${width} ${height}`} preserveAspectRatio="none" aria-hidden="true">
        {whole && width > profile.width && (
          <line class="edge" x1={profile.width} y1={0} x2={profile.width} y2={height} />
        )}
        {whole && height > profile.height && (
          <line class="fold" x1={0} y1={profile.height} x2={width} y2={profile.height} />
        )}
        {marks.map((mark) => (
          <Outline key={mark.anchor} mark={mark} />
        ))}
      </svg>
    </div>
  );
}

function Outline({ mark }: { mark: Mark }) {
  const { rect } = mark.seen;
  return (
    <g id={mark.anchor} class={`mark ${mark.finding.severity}`} data-finding={mark.finding.id}>
      <title>{mark.finding.message}</title>
      <rect x={rect.x} y={rect.y} width={Math.max(2, rect.width)} height={Math.max(2, rect.height)} />
    </g>
  );
}
