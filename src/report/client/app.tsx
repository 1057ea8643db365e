import { useSignal } from '@preact/signals';
import { useEffect } from 'preact/hooks';
import { Drawer } from './drawer.js';
import { Facts } from './facts.js';
import { HelpSheet } from './help-sheet.js';
import { onKey } from './keys.js';
import { PrintSheet } from './print.js';
import { opened, said, sheet, view, sweep } from './state.js';
import { TopBar } from './top-bar.js';
import { Tray } from './tray.js';
import { Wall } from './wall.js';

export function App() {
  const isPrinting = useSignal(false);
  useEffect(() => {
    const before = () => (isPrinting.value = true);
    const after = () => (isPrinting.value = false);
    addEventListener('keydown', onKey);
    addEventListener('beforeprint', before);
    addEventListener('afterprint', after);
    return () => {
      removeEventListener('keydown', onKey);
      removeEventListener('beforeprint', before);
      removeEventListener('afterprint', after);
    };
  }, []);
  if (view.value.as === 'print') return <PrintSheet isWhole />;
  const finding = opened.value;
  return (
    <>
      <div class="report">
        <TopBar />
        <div class="desk">
          <Drawer />
          <div class={sweep.value ? 'stage swept-stage' : 'stage'}>
            <Wall />
            {finding && <Tray finding={finding} />}
          </div>
        </div>
        <p class="hidden" role="status" aria-live="polite">
          {said.value}
        </p>
      </div>
      {sheet.value?.kind === 'help' && <HelpSheet />}
      {sheet.value?.kind === 'facts' && <Facts profile={sheet.value.profile} />}
      {isPrinting.value && <PrintSheet isWhole={false} />}
    </>
  );
}
