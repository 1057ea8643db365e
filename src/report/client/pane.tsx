import { useLayoutEffect, useRef } from 'preact/hooks';
import { otherSchemeOf, pictureSize, turnedOf } from '../view/lineup.js';
import { labelOf } from '../range-labels.js';
import { enter, scrolled } from './follow.js';
import { Marks } from './marks.js';
import { Picture } from './picture.js';
import type { PaneBox } from './room.js';
import { Sign } from './sign.js';
import { look, manifest, markOf, marksByProfile, page, renderOf, sheet, view } from './state.js';
import { Strip } from './strip.js';

/** One profile of the page: a window as large as its screen, onto the picture of the whole page. */
export function Pane({ box }: { box: PaneBox }) {
  const { profile, factor, width, height, left, outer } = box;
  const render = renderOf(page.value.id, profile.name);
  const onto = useRef<HTMLDivElement>(null);
  const here = useRef<HTMLSpanElement>(null);
  useLayoutEffect(() => {
    onto.current!.scrollLeft = -size.left * factor;
    return enter(profile.name, onto.current!);
  }, []);
  const size = render ? pictureSize(profile, render) : { left: 0, ...profile };
  const marks = marksByProfile.value.get(profile.name) ?? [];
  const onScroll = () => {
    scrolled(profile.name);
    const element = onto.current!;
    if (here.current) here.current.style.top = `${(100 * element.scrollTop) / element.scrollHeight}%`;
  };
  return (
    <section
      class="pane"
      data-profile={profile.name}
      aria-label={profile.name}
      style={{ left, width: outer }}
    >
      <Head box={box} />
      <div class="pane-body">
        <div
          ref={onto}
          class="window"
          // The picture of a page has one pixel a CSS px; on a denser screen it is not sharp, and can't be.
          data-isoptic-allow="picture-soft"
          tabIndex={0}
          role="group"
          aria-label={`${page.value.source} on ${profile.name}, scrolls`}
          style={{ width, height }}
          onScroll={onScroll}
        >
          <div class="whole" style={{ width: size.width * factor, height: size.height * factor }}>
            <Picture profile={profile} render={render} factor={factor} size={size} />
            {render?.shots.full !== undefined && size.height > profile.height && (
              <span
                class="fold-line"
                style={{ top: profile.height * factor }}
                title="End of the first screen"
              />
            )}
            <Marks marks={marks} factor={factor} size={size} />
          </div>
        </div>
        <Strip marks={marks} height={height} pageHeight={size.height} profile={profile} here={here} />
      </div>
    </section>
  );
}

function Head({ box: { profile } }: { box: PaneBox }) {
  const mark = markOf(page.value.id, profile.name);
  const turned = turnedOf(profile, manifest.profiles);
  const other = otherSchemeOf(profile, manifest.profiles);
  const { held, scheme } = view.value;
  const label = labelOf(manifest, page.value.id, profile.width);
  const size = `${profile.width} × ${profile.height}${profile.dpr === 1 ? '' : ` @${Math.round(profile.dpr * 100) / 100}`}`;
  return (
    <div class="pane-head">
      <h3>
        {mark && <Sign mark={mark} />} <span title={profile.name}>{profile.name}</span>
      </h3>
      <p>
        <span class="size">
          {size}
          {label !== null && ` · ${label}`}
        </span>
        {turned && held !== 'both' && (
          <button
            class="quiet"
            title={`Turn to ${turned.orientation} (t)`}
            onClick={() => look({ held: turned.orientation })}
          >
            Turn
          </button>
        )}
        {other && scheme !== 'both' && (
          <button
            class="quiet"
            title={`Show in ${other.scheme} (l)`}
            onClick={() => look({ scheme: other.scheme })}
          >
            {other.scheme === 'dark' ? 'Dark' : 'Light'}
          </button>
        )}
        <button
          class="quiet"
          title="Facts of the profile and of this render"
          aria-label={`Facts of ${profile.name}`}
          onClick={() => (sheet.value = { kind: 'facts', profile: profile.name })}
        >
          Facts
        </button>
      </p>
    </div>
  );
}
