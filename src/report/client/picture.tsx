import { useState } from 'preact/hooks';
import type { RenderRecord } from '../../run/manifest.js';
import type { ProfileRecord } from '../view/lineup.js';
import { previewScale } from '../../run/preview-scale.js';
import { page, pictureUrl } from './state.js';

interface Props {
  readonly profile: ProfileRecord;
  readonly render: RenderRecord | undefined;
  readonly factor: number;
  readonly size: { readonly width: number; readonly height: number };
}

/** Drawn larger than so much of its own size, a preview is not sharp. */
const LARGER = 1.2;

/** The smallest picture that is sharp at this size; the first screen at device pixels over it where it is drawn larger than life. */
export function Picture({ profile, render, factor, size }: Props) {
  const [gone, setGone] = useState<string | null>(null);
  if (!render) return <p class="no-picture">Not rendered: the run was ended before.</p>;
  const { shots, error } = render;
  if (render.status === 'failed') {
    return (
      <div class="no-picture">
        <p>Not rendered. {error?.message}</p>
        {shots.failed !== undefined && (
          <img src={pictureUrl(shots.failed)} alt="What the screen showed when a step failed" />
        )}
      </div>
    );
  }
  const whole = shots.full ?? shots.fold;
  if (whole === undefined) return <p class="no-picture">No picture was taken.</p>;
  if (gone !== null) return <p class="no-picture">The picture is gone: {gone}</p>;
  const isSmall =
    shots.preview !== undefined && factor * devicePixelRatio <= LARGER * previewScale(size.width);
  const shown = isSmall ? shots.preview! : whole;
  const sharp = factor * devicePixelRatio > LARGER && shots.full !== undefined ? shots.fold : undefined;
  return (
    <>
      <img
        src={pictureUrl(shown)}
        alt={`${page.value.title || page.value.source} on ${profile.name}`}
        decoding="async"
        draggable={false}
        width={size.width * factor}
        height={size.height * factor}
        onError={() => setGone(shown)}
      />
      {sharp !== undefined && (
        <img
          class="sharp"
          src={pictureUrl(sharp)}
          alt=""
          decoding="async"
          width={profile.width * factor}
          height={profile.height * factor}
        />
      )}
    </>
  );
}
