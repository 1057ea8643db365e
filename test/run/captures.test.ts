import type { StepAction } from '../../src/engine/steps.js';
import { loadsOf } from '../../src/run/captures.js';

const marks = (...states: string[]) => ({
  name: 'menu',
  pages: null,
  steps: states.map((state, i) => {
    const action: StepAction = { kind: 'mark', state };
    return { action, where: 'isoptic.yaml:1', number: i + 1 };
  }),
});

test('states whose names differ only in case and spaces have files of their own', () => {
  const page = { id: 'home', source: 'index.html', url: 'http://127.0.0.1/' };
  const ids = loadsOf(page, [marks('Menu open', 'menu  OPEN'), marks('menu-open', 'closed')])
    .flatMap(({ captured }) => captured)
    .map(({ id }) => id);
  expect(ids).toEqual(['home', 'home--menu-open', 'home--menu-open-2', 'home--menu-open-3', 'home--closed']);
});
