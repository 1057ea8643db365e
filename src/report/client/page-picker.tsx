import * as combobox from '@zag-js/combobox';
import { normalizeProps, useMachine } from '@zag-js/preact';
import { useId, useMemo, useState } from 'preact/hooks';
import { MARKS } from '../marks.js';
import { Sign } from './sign.js';
import { goTo, manifest, markOf, page } from './state.js';

/** Every page and state with the gravest of what was found on it; typing narrows the list down. */
const entries = manifest.pages.map((entry) => {
  const marks = new Set(manifest.profiles.map(({ name }) => markOf(entry.id, name)));
  const state = entry.state === undefined ? '' : `: ${entry.state}`;
  return {
    value: entry.id,
    label: `${entry.source}${state}`,
    title: entry.title,
    worst: MARKS.find((mark) => marks.has(mark)) ?? 'clean',
  };
});

export function PagePicker() {
  const [found, setFound] = useState(entries);
  const collection = useMemo(
    () =>
      combobox.collection({
        items: found,
        itemToValue: (item) => item.value,
        itemToString: (item) => item.label,
      }),
    [found],
  );
  const service = useMachine(combobox.machine, {
    id: useId(),
    collection,
    value: [page.value.id],
    openOnClick: true,
    selectionBehavior: 'replace',
    onOpenChange: () => setFound(entries),
    onInputValueChange: ({ inputValue, reason }: combobox.InputValueChangeDetails) => {
      if (reason !== 'input-change') return;
      const words = inputValue.toLowerCase();
      setFound(entries.filter(({ label, title }) => `${label}\n${title}`.toLowerCase().includes(words)));
    },
    onValueChange: ({ value: [next] }: { value: string[] }) => {
      if (next !== undefined && next !== page.value.id) goTo({ page: next, finding: '' });
    },
  });
  const api = combobox.connect(service, normalizeProps);
  return (
    <div {...api.getRootProps()} class="picker">
      <label {...api.getLabelProps()} class="hidden">
        Page
      </label>
      <div {...api.getControlProps()} class="picker-control">
        <input {...api.getInputProps()} title={page.value.title} />
        <span class="of">
          {manifest.pages.indexOf(page.value) + 1}/{manifest.pages.length}
        </span>
      </div>
      <div {...api.getPositionerProps()} class="picker-list">
        {found.length > 0 && (
          <ul {...api.getContentProps()}>
            {found.map((item) => (
              <li key={item.value} {...api.getItemProps({ item })}>
                <Sign mark={item.worst} />
                <span class="item-label">{item.label}</span>
                <span class="item-title">{item.title}</span>
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}
