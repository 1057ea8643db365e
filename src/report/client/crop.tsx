import type { Rect } from '../../core/geometry/rect.js';
import type { FindingRecord } from '../../run/manifest.js';
import { cropArea } from '../../core/findings/crop-area.js';
import { pictureSize, type ProfileRecord } from '../view/lineup.js';
import { manifest, pictureUrl, renderOf } from './state.js';

export interface CropOf {
  readonly page: string;
  readonly profile: string;
  readonly rect: Rect;
  readonly by?: FindingRecord['seen'][number]['by'];
  readonly message?: string | undefined;
  readonly lost?: readonly Rect[] | undefined;
  readonly fault?: Rect | undefined;
  readonly suffers?: readonly Rect[] | undefined;
  readonly evidence?: string | undefined;
  readonly scrolled?: number | undefined;
}

/** The place of a finding on one profile, cut out of its picture, with what is at fault, what suffers and what is lost. */
export function Crop({ of, scale, isRight = false }: { of: CropOf; scale: number; isRight?: boolean }) {
  const profile = manifest.profiles.find(({ name }) => name === of.profile);
  const render = renderOf(of.page, of.profile);
  if (!profile || !render) return null;
  return (
    <figure class={isRight ? 'crop right' : 'crop'} title={of.message}>
      <Cut of={of} scale={scale} profile={profile} isRight={isRight} />
      <figcaption>
        {isRight && <strong>Right: </strong>}
        {profile.name}
        {of.by && <span class="px"> {Math.round(of.by.px)} px</span>}
        {(of.scrolled ?? 0) > 0 && of.evidence !== undefined && (
          <span class="soft"> scrolled to {of.scrolled} px</span>
        )}
      </figcaption>
    </figure>
  );
}

function Cut({
  of,
  scale,
  profile,
  isRight,
}: {
  of: CropOf;
  scale: number;
  profile: ProfileRecord;
  isRight: boolean;
}) {
  const render = renderOf(of.page, of.profile)!;
  const { full, fold } = render.shots;
  // What shows only where the page is scrolled to stands in a picture of its own.
  if (of.scrolled !== undefined && of.evidence !== undefined)
    return (
      <img
        class="evidence"
        src={pictureUrl(of.evidence)}
        alt={`The defect on ${profile.name}`}
        loading="lazy"
      />
    );
  // What stays on the screen is where it belongs in the picture of the first one only.
  const isOnFirst = of.scrolled === 0 && fold !== undefined;
  const source = isOnFirst ? fold : (full ?? fold);
  if (source === undefined) return <p class="no-picture">No picture.</p>;
  const size = isOnFirst ? { ...profile, left: 0 } : pictureSize(profile, render);
  const area = cropArea({ rect: of.rect, by: of.by ?? null, lost: of.lost, fault: of.fault }, size);
  // A page that is read from the right goes on to the left of the screen.
  const edge = size.left < 0 ? 0 : profile.width;
  const place = ({ x, y, width, height }: Rect) => ({
    left: (x - area.x) * scale,
    top: (y - area.y) * scale,
    width: width * scale,
    height: height * scale,
  });
  return (
    <div class="cut" style={{ width: area.width * scale, height: area.height * scale }}>
      <img
        src={pictureUrl(source)}
        alt={`The place on ${profile.name}`}
        loading="lazy"
        decoding="async"
        style={{ left: (size.left - area.x) * scale, top: -area.y * scale }}
        width={size.width * scale}
        height={size.height * scale}
      />
      {size.width > profile.width && area.x < edge && area.x + area.width > edge && (
        <span
          class="outline screen-edge"
          style={{ left: (edge - area.x) * scale }}
          title="Edge of the screen"
        />
      )}
      {!isRight && (
        <>
          {(of.suffers ?? []).map((rect, i) => (
            <span key={i} class="outline suffers" style={place(rect)} />
          ))}
          {(of.lost ?? []).map((rect, i) => (
            <span key={i} class="outline lost" style={place(rect)} />
          ))}
          <span class="outline fault" style={place(of.fault ?? of.rect)} />
        </>
      )}
    </div>
  );
}
