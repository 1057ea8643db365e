import { useEffect, useState } from 'preact/hooks';
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

/** A pane that is there for so long is looked at. */
const STAYS_MS = 300;
/** Drawn larger than so much of its own size, a preview is not sharp. */
const LARGER = 1.2;

/** The smallest picture that is sharp at this size; the first screen at device pixels over it where it is drawn larger than life. */
export function Picture({ profile, render, factor, size }: Props) {
  const [gone, setGone] = useState<string | null>(null);
  const [stays, setStays] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setStays(true), STAYS_MS);
    return () => clearTimeout(timer);
  }, []);
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
  // Where there are small pictures there are many large ones: those that only pass by are not worth being read.
  const isLarge = !isSmall && (stays || shots.preview === undefined);
  const shown = [shots.preview ?? [], isLarge ? whole : []].flat();
  const sharp =
    isLarge && factor * devicePixelRatio > LARGER && shots.full !== undefined ? shots.fold : undefined;
  return (
    <>
      {shown.map((path, i) => (
        <img
          key={path}
          class={i > 0 ? 'over' : ''}
          src={pictureUrl(path)}
          alt={i > 0 ? '' : `${page.value.title || page.value.source} on ${profile.name}`}
          decoding="async"
          draggable={false}
          width={size.width * factor}
          height={size.height * factor}
          onError={() => setGone(path)}
        />
      ))}
      {sharp !== undefined && (
        <img
          class="over"
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
