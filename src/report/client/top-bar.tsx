import { SCALES, type ScaleName } from '../view/scale.js';
import { otherSchemeOf, turnedOf } from '../view/lineup.js';
import { Choice } from './choice.js';
import { PagePicker } from './page-picker.js';
import { look, manifest, sheet, view } from './state.js';
import { Zoom } from './zoom.js';
import { scaleTo } from './zooming.js';

const SCALE_TEXTS: Readonly<Record<ScaleName, { readonly text: string; readonly title: string }>> = {
  fit: { text: 'Fit', title: 'Each as high as there is room (1)' },
  true: { text: 'True', title: 'As large as in the hand, to each other (2)' },
  css: { text: 'CSS', title: 'One CSS px is the same everywhere (3)' },
  device: { text: '1:1', title: 'One device pixel is one of this screen (4)' },
};

const hasTurned = manifest.profiles.some((profile) => turnedOf(profile, manifest.profiles));
const hasSchemes = manifest.profiles.some((profile) => otherSchemeOf(profile, manifest.profiles));

/** Everything that says how the wall is shown. */
export function TopBar() {
  const { scale, held, scheme, search, together } = view.value;
  return (
    <header class="bar">
      <h1>Isoptic</h1>
      <PagePicker />
      <input
        id="search"
        type="search"
        placeholder="Search all findings"
        aria-label="Search all findings"
        value={search}
        onInput={(event) => look({ search: event.currentTarget.value, drawer: true })}
      />
      <Choice
        label="Scale"
        options={SCALES.map((value) => ({ value, ...SCALE_TEXTS[value] }))}
        value={scale}
        onChange={scaleTo}
      />
      <Zoom />
      {hasTurned && (
        <Choice
          label="Orientation"
          options={[
            { value: 'both', text: 'Both', title: 'Held both ways (t goes on)' },
            { value: 'portrait', text: 'Portrait', title: 'Held upright (t goes on)' },
            { value: 'landscape', text: 'Landscape', title: 'Held sideways (t goes on)' },
          ]}
          value={held}
          onChange={(next) => look({ held: next })}
        />
      )}
      {hasSchemes && (
        <Choice
          label="Colour scheme"
          options={[
            { value: 'both', text: 'Both', title: 'Light and dark (l goes on)' },
            { value: 'light', text: 'Light', title: 'Light only (l goes on)' },
            { value: 'dark', text: 'Dark', title: 'Dark only (l goes on)' },
          ]}
          value={scheme}
          onChange={(next) => look({ scheme: next })}
        />
      )}
      <button
        class="quiet together"
        aria-pressed={together}
        title="Scrolling one pane brings the others to the same place (s)"
        onClick={() => look({ together: !together })}
      >
        In step
      </button>
      <button class="quiet" onClick={() => (sheet.value = { kind: 'help' })} aria-label="Help: keys (?)">
        ?
      </button>
    </header>
  );
}
