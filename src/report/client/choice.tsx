import { normalizeProps, useMachine } from '@zag-js/preact';
import * as toggles from '@zag-js/toggle-group';
import { useId } from 'preact/hooks';

interface Props<Value extends string> {
  readonly label: string;
  readonly options: readonly { readonly value: Value; readonly text: string; readonly title: string }[];
  readonly value: Value;
  readonly onChange: (value: Value) => void;
}

/** One of a few, side by side; arrow keys go between them. */
export function Choice<Value extends string>({ label, options, value, onChange }: Props<Value>) {
  const service = useMachine(toggles.machine, {
    id: useId(),
    value: [value],
    deselectable: false,
    onValueChange: ({ value: [next] }: { value: string[] }) => {
      if (next !== undefined) onChange(next as Value);
    },
  });
  const api = toggles.connect(service, normalizeProps);
  return (
    <div {...api.getRootProps()} class="choice" aria-label={label}>
      {options.map((option) => (
        <button key={option.value} {...api.getItemProps({ value: option.value })} title={option.title}>
          {option.text}
        </button>
      ))}
    </div>
  );
}
