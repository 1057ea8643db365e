import { Dialog } from './dialog.js';
import { KEYS } from './keys.js';
import { manifest, sheet } from './state.js';

/** The keys, and what is said here in which shape and colour. */
export function HelpSheet() {
  return (
    <Dialog title="Keys" onClose={() => (sheet.value = null)}>
      <dl class="keys">
        {KEYS.map(({ keys, does }) => (
          <div key={does}>
            <dt>
              {keys.map((key) => (
                <kbd key={key}>{key}</kbd>
              ))}
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
        <div>
          <dt>
            <kbd>Ctrl</kbd> wheel
          </dt>
          <dd>zoom at the pointer</dd>
        </div>
      </dl>
      <p class="soft">
        Isoptic {manifest.tool.version}, {manifest.engine.name} {manifest.engine.version},{' '}
        {manifest.startedAt.slice(0, 16).replace('T', ' ')} UTC
      </p>
    </Dialog>
  );
}
