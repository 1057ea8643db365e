import * as dialog from '@zag-js/dialog';
import { normalizeProps, useMachine } from '@zag-js/preact';
import type { ComponentChildren } from 'preact';
import { useId } from 'preact/hooks';

interface Props {
  readonly title: string;
  readonly onClose: () => void;
  readonly children: ComponentChildren;
}

/** A sheet over everything: keeps the focus in it, gives it back when it closes, closes by Escape. */
export function Dialog({ title, onClose, children }: Props) {
  const service = useMachine(dialog.machine, {
    id: useId(),
    open: true,
    onOpenChange: ({ open }: { open: boolean }) => {
      if (!open) onClose();
    },
  });
  const api = dialog.connect(service, normalizeProps);
  return (
    <>
      <div {...api.getBackdropProps()} class="backdrop" />
      <div {...api.getPositionerProps()} class="positioner">
        <div {...api.getContentProps()} class="dialog">
          <div class="dialog-head">
            <h2 {...api.getTitleProps()}>{title}</h2>
            <button {...api.getCloseTriggerProps()} class="quiet">
              Close
            </button>
          </div>
          <div class="dialog-body">{children}</div>
        </div>
      </div>
    </>
  );
}
