import { GAP, paneBoxes } from './room.js';
import { SCALES } from '../view/scale.js';
import { goTo, look, open, opened, sheet, step, stepPage, view } from './state.js';
import { scaleTo, zoomBy, zoomTo } from './zooming.js';

interface Key {
  readonly keys: readonly string[];
  readonly does: string;
  readonly run: () => void;
}

const next = <T>(all: readonly T[], now: T): T => all[(all.indexOf(now) + 1) % all.length]!;

/** To the next pane of the row, with the keyboard's focus on its window. */
function stepPane(by: 1 | -1): void {
  const current = document.activeElement?.closest<HTMLElement>('.pane')?.dataset['profile'];
  const boxes = paneBoxes.value;
  const at = boxes.findIndex(({ profile }) => profile.name === current);
  const box = boxes[at < 0 ? 0 : at + by];
  const wall = document.getElementById('wall');
  if (!box || !wall) return;
  wall.scrollLeft = box.left - GAP;
  // A pane that was out of sight comes with the next frame.
  requestAnimationFrame(() =>
    requestAnimationFrame(() =>
      wall
        .querySelector<HTMLElement>(`[data-profile="${CSS.escape(box.profile.name)}"] .window`)
        ?.focus({ preventScroll: true }),
    ),
  );
}

/** What keys do, as the help sheet lists them. */
export const KEYS: readonly Key[] = [
  { keys: ['j'], does: 'next finding', run: () => step(1) },
  { keys: ['k'], does: 'finding before', run: () => step(-1) },
  { keys: [']'], does: 'next page', run: () => stepPage(1) },
  { keys: ['['], does: 'page before', run: () => stepPage(-1) },
  { keys: ['.'], does: 'next pane', run: () => stepPane(1) },
  { keys: [','], does: 'pane before', run: () => stepPane(-1) },
  ...SCALES.map((scale, i) => ({
    keys: [String(i + 1)],
    does: [
      'fit each to the height',
      'true size, to each other',
      'the same CSS px everywhere',
      'device pixels',
    ][i]!,
    run: () => scaleTo(scale),
  })),
  { keys: ['+', '='], does: 'larger', run: () => zoomBy(1.2) },
  { keys: ['-'], does: 'smaller', run: () => zoomBy(1 / 1.2) },
  { keys: ['0'], does: 'zoom back to 100 %', run: () => zoomTo(1) },
  {
    keys: ['s'],
    does: 'panes in step, or each for itself',
    run: () => look({ together: !view.value.together }),
  },
  {
    keys: ['t'],
    does: 'turn: both ways, upright, sideways',
    run: () => look({ held: next(['both', 'portrait', 'landscape'], view.value.held) }),
  },
  {
    keys: ['l'],
    does: 'both schemes, light, dark',
    run: () => look({ scheme: next(['both', 'light', 'dark'], view.value.scheme) }),
  },
  { keys: ['d'], does: 'fold or unfold the findings', run: () => look({ drawer: !view.value.drawer }) },
  { keys: ['/'], does: 'search', run: () => document.getElementById('search')?.focus() },
  { keys: ['p'], does: 'all pages one after another, to print', run: () => goTo({ as: 'print' }) },
  {
    keys: ['Escape'],
    does: 'close the finding',
    run: () => (opened.value ? open(null) : goTo({ as: 'wall' })),
  },
  { keys: ['?'], does: 'this help', run: () => (sheet.value = { kind: 'help' }) },
];

/** Keys work wherever nothing is typed and no sheet is open. */
export function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented || sheet.value) return;
  const target = event.target instanceof HTMLElement ? event.target : null;
  const isTyping = target?.matches('input:not([type="checkbox"]), select, textarea') ?? false;
  if (isTyping && event.key !== 'Escape') return;
  if (isTyping) target?.blur();
  const key = KEYS.find(({ keys }) => keys.includes(event.key));
  if (!key) return;
  event.preventDefault();
  key.run();
}
