import { normalizeProps, useMachine } from '@zag-js/preact';
import * as slider from '@zag-js/slider';
import { useId } from 'preact/hooks';
import { view } from './state.js';
import { zoomTo } from './zooming.js';

/** Even steps of the slider are even factors: 25 % to 400 %. */
const STEPS = 20;
const toFactor = (step: number) => 2 ** (step / (STEPS / 2));
const toStep = (factor: number) => Math.round(Math.log2(factor) * (STEPS / 2));

export function Zoom() {
  const { zoom } = view.value;
  const percent = `${Math.round(zoom * 100)} %`;
  const service = useMachine(slider.machine, {
    id: useId(),
    min: -STEPS,
    max: STEPS,
    step: 1,
    value: [toStep(zoom)],
    'aria-label': ['Zoom'],
    getAriaValueText: () => percent,
    onValueChange: ({ value: [step = 0] }: { value: number[] }) => {
      if (step !== toStep(view.value.zoom)) zoomTo(toFactor(step));
    },
  });
  const api = slider.connect(service, normalizeProps);
  return (
    <div {...api.getRootProps()} class="zoom" title="Zoom (+ and −, or Ctrl and the wheel; 0 sets it back)">
      <div {...api.getControlProps()} class="zoom-control">
        <div {...api.getTrackProps()} class="zoom-track" />
        <div {...api.getThumbProps({ index: 0 })} class="zoom-thumb">
          <input {...api.getHiddenInputProps({ index: 0 })} />
        </div>
      </div>
      <button
        class="quiet percent"
        onClick={() => zoomTo(1)}
        aria-label={`Zoom ${percent}, set back to 100 %`}
      >
        {percent}
      </button>
    </div>
  );
}
