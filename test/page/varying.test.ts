import { varyingProperties } from '../../src/page/varying.js';

/** A rule's declarations as a browser lists them. */
function declarations(values: Readonly<Record<string, string>>): CSSStyleDeclaration {
  const names = Object.keys(values);
  return {
    cssText: names.map((name) => `${name}: ${values[name]!};`).join(' '),
    getPropertyValue: (name: string) => values[name] ?? '',
    [Symbol.iterator]: () => names.values(),
  } as unknown as CSSStyleDeclaration;
}

const varying = (
  rules: readonly Readonly<Record<string, string>>[],
  {
    otherRules = [] as string[],
    inline = [] as Readonly<Record<string, string>>[],
    others = [] as CSSStyleDeclaration[],
  } = {},
) => {
  const index = {
    rules: [...rules.map(declarations), ...others].map((style) => ({ style })),
    bound: [],
    otherRules: new Set(otherRules),
  } as unknown as Parameters<typeof varyingProperties>[0];
  const found = varyingProperties(index, inline.map(declarations));
  return found && [...found].sort();
};

test.each([
  ['a share of the window', { width: '50vw', color: 'red' }, ['width']],
  ['its smaller side, of the dynamic viewport', { 'max-height': 'calc(100dvmin - 2px)' }, ['max-height']],
  ['a container', { 'min-width': '10cqi' }, ['min-width']],
  ['an inset of the screen', { 'padding-left': 'env(safe-area-inset-left)' }, ['padding-left']],
  ['nothing: px, shares and multiples of a font', { width: '50%', height: '3em', left: '2px' }, []],
  ['nothing: a word that looks like a unit', { 'font-family': '"Arial 3vwx"' }, []],
  ['its box, for a padding', { 'padding-top': '5%', 'margin-top': '5%' }, ['padding-top']],
])('what goes by %s', (_, rule, expected) => {
  expect(varying([rule])).toEqual(expected);
});

test('what takes a variable varies once some variable does, a shorthand of one too', () => {
  const user = { 'padding-left': 'var(--room)', 'border-top-width': '' };
  expect(varying([{ '--room': '2px' }, user])).toEqual([]);
  const shorthand = {
    cssText: 'border: var(--room) solid;',
    getPropertyValue: () => '',
    [Symbol.iterator]: () => ['border-top-width'].values(),
  } as unknown as CSSStyleDeclaration;
  expect(varying([{ '--room': '2vw' }, user], { others: [shorthand] })).toEqual([
    'border-top-width',
    'padding-left',
  ]);
});

test('of a shorthand that takes variables, its parts vary with those that it takes, not with the rest of its rule', () => {
  const rule = {
    cssText: 'font-size: 3vw; background: var(--ground); border: var(--line) solid;',
    getPropertyValue: (name: string) => (name === 'font-size' ? '3vw' : ''),
    [Symbol.iterator]: () => ['font-size', 'background-image', 'border-top-width'].values(),
  } as unknown as CSSStyleDeclaration;
  const variables = (values: Readonly<Record<string, string>>) =>
    varying([values], { others: [rule] })!.filter((property) => !/^(font-size|line-height)$/.test(property));
  expect(variables({ '--ground': 'red', '--line': '2px' })).toEqual([]);
  expect(variables({ '--ground': 'red', '--step': '1vw', '--line': 'calc(var(--step) + 1px)' })).toEqual([
    'background-image',
    'border-top-width',
  ]);
});

test('what takes another variable than the one that varies stays', () => {
  const rules = [
    { '--room': '2vw', '--gap': 'calc(var( --room ) * 2)', '--ground': 'red' },
    { color: 'var(--ground)', width: 'var(--gap)', 'font-family': 'var(--face, var(--room))' },
  ];
  expect(varying(rules)).toEqual(['font-family', 'width']);
});

test('a padding that takes a variable may be a share of its room', () => {
  expect(varying([{ '--room': '5%' }, { 'padding-top': 'var(--room)', width: 'var(--room)' }])).toEqual([
    'padding-top',
  ]);
});

test('of type that goes by the window, all that is in multiples of it does', () => {
  const rules = [
    { 'font-size': 'clamp(1rem, 2vw, 3rem)' },
    { width: '12em', height: '12px' },
    { left: '1rem' },
  ];
  expect(varying(rules)).toEqual(['font-size', 'left', 'line-height', 'width']);
});

test('style attributes count like rules', () => {
  expect(varying([], { inline: [{ top: '10vh' }] })).toEqual(['top']);
});

test('a rule whose condition is not known to hold makes everything vary', () => {
  expect(varying([{ color: 'red' }], { otherRules: ['CSSContainerRule'] })).toBeNull();
  expect(varying([{ color: 'red' }], { otherRules: ['CSSLayerBlockRule', 'CSSSupportsRule'] })).toEqual([]);
});
