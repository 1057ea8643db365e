import { containerQueryOf } from '../../../src/core/css/container-query.js';
import { containerSpans, openTurns } from '../../../src/core/sweep/container-spans.js';
import { scrubWidths } from '../../../src/core/sweep/scrub-widths.js';
import type { FoundQuery } from '../../../src/core/css/found-query.js';
import { conditionsOfSizes, knownBegins } from '../../../src/core/sweep/begins.js';
import { conditionFor, queryStyleOf } from '../../../src/core/sweep/containing-condition.js';
import { environmentOf } from '../../../src/core/sweep/environment.js';
import { filmShots } from '../../../src/core/sweep/film-shots.js';
import { reportQueries, shortStretches, unguarded } from '../../../src/core/sweep/query-report.js';
import { labelAt, labelsAcross, rangesBetween } from '../../../src/core/sweep/ranges.js';
import { deviceOf } from '../../support/device.js';

const environment = environmentOf(deviceOf(1280));
const range = { min: 280, max: 1920 };
const query = (text: string, source = 'site.css:1', kind: FoundQuery['kind'] = 'media'): FoundQuery => ({
  kind,
  text,
  source,
  selectors: [],
  within: [],
});
const report = (queries: FoundQuery[], changesAt: [number, string][] = []) =>
  reportQueries({
    queries,
    environment,
    range,
    changesAt: new Map(changesAt),
    devices: [],
    containersOf: () => [],
    edges: [],
  });

test('one entry a query, with all its places, in the order in which they begin', () => {
  const found = report(
    [
      query('(min-width: 900px)'),
      query('(min-width: 600px)', 'a.css:3'),
      query('(MIN-WIDTH: 600px)', 'b.css:9'),
    ],
    [
      [600, 'the menu appears'],
      [900, 'ul goes from 2 to 3 columns'],
    ],
  );
  expect(found.map(({ text, sources, changes }) => [text, sources, changes])).toEqual([
    ['(min-width: 600px)', ['a.css:3', 'b.css:9'], [{ width: 600, message: 'the menu appears' }]],
    ['(min-width: 900px)', ['site.css:1'], [{ width: 900, message: 'ul goes from 2 to 3 columns' }]],
  ]);
});

test.each([
  ['(max-width: 768px)', '(min-width: 768px)', 'at 768 px it holds together with “(min-width: 768px)”'],
  [
    '(max-width: 767px)',
    '(min-width: 769px)',
    'between 767 and 769 px neither it nor “(min-width: 769px)” holds',
  ],
  [
    '(max-width: 770px)',
    '(min-width: 769px)',
    'from 769 to 770 px it holds together with “(min-width: 769px)”',
  ],
  [
    '(max-width: 767px)',
    '(min-width: 768px)',
    'between 767 and 768 px neither it nor “(min-width: 768px)” holds',
  ],
])('%s beside %s', (end, begin, problem) => {
  const found = report(
    [query(end), query(begin)],
    [
      [768, 'x'],
      [769, 'x'],
      [771, 'x'],
    ],
  );
  expect(found.find(({ text }) => text === end)!.problems).toEqual([problem]);
});

test('ends that leave nothing a screen shows are no problem, nor are those far from each other', () => {
  const seen: [number, string][] = [
    [768, 'x'],
    [900, 'x'],
  ];
  expect(
    report([query('(max-width: 767.98px)'), query('(min-width: 768px)')], seen).flatMap(
      ({ problems }) => problems,
    ),
  ).toEqual([]);
  expect(
    report([query('(width < 768px)'), query('(width >= 768px)')], seen).flatMap(({ problems }) => problems),
  ).toEqual([]);
  expect(
    report([query('(max-width: 767px)'), query('(min-width: 900px)')], seen).flatMap(
      ({ problems }) => problems,
    ),
  ).toEqual([]);
});

test('a query whose edges nobody sees, one that nothing answers, and one that can not be read', () => {
  const problems = (text: string) => report([query(text)])[0]!.problems;
  expect(problems('(min-width: 700px)')).toEqual(['nothing changes at 700 px']);
  expect(problems('(min-width: 900px) and (max-width: 800px)')).toEqual([
    'it holds at no width from 280 to 1920 px, and no profile of the catalogue is what it asks for',
  ]);
  expect(problems('print')).toEqual([]);
  expect(problems('(min-width 900px')).toEqual(['it can not be read, so browsers pass over it']);
  const phone = { width: 700, environment: environmentOf({ ...deviceOf(700, true), height: 360 }) };
  const [answered] = reportQueries({
    queries: [query('(orientation: landscape) and (max-height: 400px)')],
    environment,
    range,
    changesAt: new Map(),
    devices: [phone],
    containersOf: () => [],
    edges: [],
  });
  expect(answered!.problems).toEqual([]);
});

test('a search begins at media queries and sizes, not at containers', () => {
  const sizes = '(max-width: 600px) 100vw, (min-width: 70em) calc(50vw - 2em), 50vw';
  expect(conditionsOfSizes(sizes)).toEqual(['(max-width: 600px)', '(min-width: 70em)']);
  const all = [
    query('(min-width: 48em)'),
    query(sizes, 'img', 'sizes'),
    query('(min-width: 300px)', 'x', 'container'),
  ];
  expect(knownBegins(all, environment, range)).toEqual([601, 768, 1120]);
});

test('the condition that contains a span is written as the page writes its own', () => {
  const style = (...texts: string[]) => queryStyleOf(texts.map((text) => query(text)));
  const span = { min: 480, max: 719 };
  expect(conditionFor(span, range, style(), 16)).toBe('(min-width: 480px) and (max-width: 719px)');
  expect(conditionFor(span, range, style('(min-width: 40em)'), 16)).toBe(
    '(min-width: 30em) and (max-width: 44.9375em)',
  );
  expect(conditionFor(span, range, style('(width >= 600px)'), 16)).toBe('(480px <= width <= 719px)');
  expect(conditionFor({ min: 280, max: 719 }, range, style('(max-width: 599.98px)'), 16)).toBe(
    '(max-width: 719.98px)',
  );
  expect(conditionFor({ min: 800, max: 1920 }, range, style(), 16)).toBe('(min-width: 800px)');
});

test('short layouts, and breaks that no query contains', () => {
  const stretches = [
    { min: 280, max: 498 },
    { min: 499, max: 508 },
    { min: 509, max: 509 },
    { min: 510, max: 1920 },
  ];
  expect(shortStretches(stretches)).toEqual([
    'the layout from 499 to 508 px lives for 10 px',
    'the layout at 509 px lives for 1 px',
  ]);
  expect(unguarded({ min: 696, max: 734 }, [768, 1024])).toBe('the nearest query begins at 768 px');
  expect(unguarded({ min: 696, max: 767 }, [768])).toBeNull();
  expect(unguarded({ min: 696, max: 700 }, [])).toBe('no query is about a width');
});

test('ranges take their names from what cuts them', () => {
  const ranges = rangesBetween([720, 1024], range);
  expect(ranges.map(({ label, span }) => [label, span.min, span.max])).toEqual([
    ['below 720', 280, 719],
    ['720 to 1023', 720, 1023],
    ['from 1024', 1024, 1920],
  ]);
  expect([labelAt(ranges, 719), labelAt(ranges, 720), labelAt(ranges, 3000)]).toEqual([
    'below 720',
    '720 to 1023',
    null,
  ]);
  expect(rangesBetween([], range)[0]!.label).toBe('every width');
});

test('a film stops on both sides of a change, either way, and never stands still between', () => {
  const pace = { pxPerSecond: 240, framesPerSecond: 12, stopMs: 600 };
  const wider = filmShots(300, 500, [400], pace);
  expect(wider.filter(({ ms }) => ms >= 300)).toEqual([
    { at: 300, ms: 600 },
    { at: 399, ms: 300 },
    { at: 400, ms: 600 },
    { at: 500, ms: 600 },
  ]);
  const widths = wider.map(({ at }) => at);
  expect(widths).toEqual([...new Set(widths)].sort((a, b) => a - b));
  const narrower = filmShots(500, 300, [400], pace).map(({ at }) => at);
  expect([narrower[0], narrower.at(-1)]).toEqual([500, 300]);
  expect(narrower).toEqual([...new Set(narrower)].sort((a, b) => b - a));
  expect(narrower.indexOf(399) - narrower.indexOf(400)).toBe(1);
});

test('a container query holds at the widths of the page at which its containers are as it asks', () => {
  // Half of the page less 20 px up to 700; from there on a third.
  const sizes = [280, 500, 699, 700, 1200, 1920].map((width) => ({
    width,
    size: { inline: width < 700 ? width / 2 - 20 : width / 3, fontSize: 20 },
  }));
  const spansFor = (text: string) => containerSpans(containerQueryOf(text).holds!, sizes);
  expect(spansFor('(min-width: 300px)')).toEqual([
    { min: 640, max: 699 },
    { min: 900, max: 1920 },
  ]);
  // Where it turns is looked at on both sides.
  expect(openTurns(containerQueryOf('(min-width: 300px)').holds!, sizes)).toEqual([639, 640, 899, 900]);
  // An em is that of the container.
  expect(spansFor('deck (width < 15em)')).toEqual([
    { min: 280, max: 639 },
    { min: 700, max: 899 },
  ]);
  const unseen = [
    { width: 280, size: null },
    { width: 281, size: { inline: 400, fontSize: 16 } },
  ];
  expect(containerSpans(containerQueryOf('(min-width: 300px)').holds!, unseen)).toEqual([
    { min: 281, max: 281 },
  ]);
});

test.each([
  ['deck (min-width: 20em)', 'deck', true],
  ['not (min-width: 20em)', null, true],
  ['(height > 200px)', null, false],
  ['deck style(--mode: dark)', 'deck', false],
  ['style(--mode: dark)', null, false],
  ['(min-width: 20', null, false],
])('the container and the condition of %s', (text, name, isRead) => {
  const query = containerQueryOf(text);
  expect(query.name).toBe(name);
  expect(query.holds !== null && query.holds(400, 16) !== null).toBe(isRead);
});

test('ranges that spans reach into, unless they reach into all or many', () => {
  const ranges = rangesBetween([600, 900, 1200], range);
  expect(labelsAcross(ranges, [{ min: 280, max: 599 }])).toEqual(['below 600']);
  expect(labelsAcross(ranges, [{ min: 500, max: 600 }])).toEqual(['below 600', '600 to 899']);
  expect(labelsAcross(ranges, [{ min: 500, max: 900 }])).toEqual([]);
  expect(labelsAcross(ranges, [range])).toEqual([]);
});

test('small pictures stand on both sides of each change, at both ends, and never far apart', () => {
  const widths = scrubWidths(280, 1920, [281, 700, 1920]);
  expect(widths).toEqual(expect.arrayContaining([280, 281, 699, 700, 1919, 1920]));
  expect(new Set(widths).size).toBe(widths.length);
  widths.slice(1).forEach((width, i) => {
    expect(width - widths[i]!).toBeGreaterThan(0);
    expect(width - widths[i]!).toBeLessThanOrEqual(65);
  });
});
