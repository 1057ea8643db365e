import { conditionOf, type MediaEnvironment } from '../../../src/core/css/media-query.js';
import { spansWhereHeld } from '../../../src/core/css/media-spans.js';
import { beginsOf } from '../../../src/core/geometry/span.js';
import { queriesInScript } from '../../../src/core/css/script-queries.js';
import { queriesIn } from '../../../src/core/css/sheet-queries.js';

const environment: MediaEnvironment = {
  height: 800,
  screen: { width: 1920, height: 1080 },
  dpr: 1,
  fontSize: 16,
  medium: 'screen',
  words: { hover: 'hover', 'prefers-color-scheme': 'light' },
};
const range = { min: 280, max: 1920 };
const held = (text: string, around = environment) => {
  const condition = conditionOf(text);
  return condition && spansWhereHeld(condition, around, range).map(({ min, max }) => [min, max]);
};

test.each([
  ['(min-width: 48em)', [[768, 1920]]],
  ['(max-width: 767.98px)', [[280, 767]]],
  ['(400px <= width < 800px)', [[400, 799]]],
  ['(width > 30rem) and (hover)', [[481, 1920]]],
  ['not (width < 600px)', [[600, 1920]]],
  ['not all and (orientation: landscape)', [[280, 800]]],
  ['(min-aspect-ratio: 16/9)', [[1423, 1920]]],
  ['(min-width: calc(30em + 20px))', [[500, 1920]]],
  [
    'screen and (max-width: 600px), (min-width: 1200px)',
    [
      [280, 600],
      [1200, 1920],
    ],
  ],
  ['print', []],
  ['only screen and (min-width: 0)', [[280, 1920]]],
  ['(prefers-color-scheme: dark) and (min-width: 600px)', []],
  ['(min-resolution: 2dppx), (-webkit-min-device-pixel-ratio: 2)', []],
  ['(min-width: 48em) and (max-width: 767.98px)', []],
  // What is not known counts as held where the width decides.
  ['(scripting: enabled) and (width < 500px)', [[280, 499]]],
])('%s holds at its widths', (text, spans) => {
  expect(held(text)).toEqual(spans);
});

test('what can not be read is none, and type as a user enlarges it moves what is written in em', () => {
  expect(held('(min-width 500px')).toBeNull();
  expect(held('(min-width: 48em)', { ...environment, fontSize: 20 })).toEqual([[960, 1920]]);
});

test('a bound says its side, its width with the fraction, and whether that is in it', () => {
  const bounds = (text: string) => conditionOf(text)!.bounds(environment);
  expect(bounds('(max-width: 47.99em) and (hover)')).toEqual([
    { side: 'max', width: 767.84, isIncluded: true },
  ]);
  expect(bounds('(600px < width)')).toEqual([{ side: 'min', width: 600, isIncluded: false }]);
});

test('it begins and ends at the first width of the next stretch', () => {
  expect(
    beginsOf(
      [
        { min: 280, max: 600 },
        { min: 1200, max: 1920 },
      ],
      range,
    ),
  ).toEqual([601, 1200]);
});

test('the conditional rules of a sheet with their places, selectors and what is around them', () => {
  const css = `@import url("print.css") layer(base) (min-width: 40em);
.a { color: red }
@media (min-width:
  720px) {
  .b, .c { color: blue }
  @media (hover) { .d { color: green } }
}
@container card (min-width: 300px) { .e { gap: 0 } }
@media ((( {`;
  const [imported, media, nested, container] = queriesIn(css);
  expect(imported).toMatchObject({ kind: 'import', text: '(min-width: 40em)', line: 0, column: 0 });
  expect(media).toMatchObject({
    kind: 'media',
    text: '(min-width: 720px)',
    line: 2,
    selectors: ['.b, .c'],
    within: [],
  });
  expect(nested).toMatchObject({ text: '(hover)', line: 5, column: 2, within: ['(min-width: 720px)'] });
  expect(container).toMatchObject({ kind: 'container', text: 'card (min-width: 300px)', line: 7 });
});

test('media queries that a script asks for as they are written, with their lines', () => {
  const script = `const wide = matchMedia("(min-width:
  40em)");
window.matchMedia( '(hover)' ).addListener(fit); matchMedia(\`(min-width: \${px}px)\`); matchMedia(query);`;
  expect(queriesInScript(script)).toEqual([{ text: '(hover)', line: 2 }]);
  expect(queriesInScript('x = matchMedia("(width < 600px)").matches')).toEqual([
    { text: '(width < 600px)', line: 0 },
  ]);
});
