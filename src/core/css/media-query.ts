import { calc } from '@csstools/css-calc';
import type { CssNode, List } from 'css-tree';
import generate from 'css-tree/generator';
import parse from 'css-tree/parser';
import { pxOf } from './lengths.js';
import { remembered } from './remembered.js';

/** What media queries ask about, beside the width. */
export interface MediaEnvironment {
  /** Of the viewport, CSS px. */
  readonly height: number;
  /** Of the screen, CSS px. */
  readonly screen: { readonly width: number; readonly height: number };
  /** Device px a CSS px. */
  readonly dpr: number;
  /** The size of type that pages start from, CSS px: what `em` and `rem` are in a media query (Media Queries 4, section 1.3). */
  readonly fontSize: number;
  /** The type of medium: `screen` or `print`. */
  readonly medium: string;
  /** Features with a word for a value, by their name: `hover`, `pointer`, `prefers-color-scheme`. */
  readonly words: Readonly<Record<string, string>>;
}

/** A part of a query for a width: null where it is not known what it is. */
type Held = boolean | null;
type Test = (width: number, environment: MediaEnvironment) => Held;

/** A media query list, or the condition of a container query. */
export interface Condition {
  /** Whether it holds at a width, CSS px; null where it asks what is not known (Media Queries 4, section 3.1). */
  readonly holds: Test;
  /** Widths at which it may change, CSS px, for an environment. */
  thresholds(environment: MediaEnvironment): number[];
  /** What it says of the width itself. */
  bounds(environment: MediaEnvironment): Bound[];
}

/** One side of a range of widths, as it is written. */
export interface Bound {
  readonly side: 'min' | 'max';
  /** CSS px, with its fraction. */
  readonly width: number;
  /** Whether that width itself is in the range. */
  readonly isIncluded: boolean;
}

/** Two lengths that differ by less are one: ems are multiplied out. */
const NEAR = 1e-6;

/** Reads a media query list, or the condition of a container query without the container's name. @returns null for what can't be read */
export const conditionOf: (text: string) => Condition | null = remembered((text: string) => {
  const errors: unknown[] = [];
  try {
    const ast = parse(text, { context: 'mediaQueryList', onParseError: (error) => errors.push(error) });
    if (errors.length > 0) return null;
    const compared: Compared[] = [];
    const holds = testOf(ast, compared);
    return {
      holds,
      thresholds: (environment) =>
        compared.flatMap(({ feature, value }) => widthsOf(feature, value, environment)),
      bounds: (environment) =>
        compared.flatMap(({ feature, sign, value }): Bound[] => {
          const width = lengthOf(value, environment);
          if (feature !== 'width' || !Number.isFinite(width) || !/[<>]/.test(sign)) return [];
          const side = sign.startsWith('>') ? 'min' : 'max';
          return [{ side, width, isIncluded: sign.includes('=') }];
        }),
    };
  } catch {
    return null;
  }
});

interface Compared {
  readonly feature: string;
  /** `>=`, `<`, … */
  readonly sign: string;
  readonly value: CssNode;
}

/** The widths that a feature's value stands for. */
function widthsOf(feature: string, value: CssNode, environment: MediaEnvironment): number[] {
  if (feature === 'width' || feature === 'inline-size')
    return [lengthOf(value, environment)].filter(Number.isFinite);
  if (feature === 'orientation') return [environment.height];
  if (feature === 'aspect-ratio') return [ratioOf(value) * environment.height].filter(Number.isFinite);
  return [];
}

function testOf(node: CssNode, compared: Compared[]): Test {
  switch (node.type) {
    case 'MediaQueryList':
      return anyOf(partsOf(node.children).map((query) => testOf(query, compared)));
    case 'MediaQuery': {
      const kind = node.mediaType?.toLowerCase() ?? 'all';
      const rest: Test = node.condition ? testOf(node.condition, compared) : () => true;
      const whole: Test = (width, environment) =>
        kind === 'all' || kind === environment.medium ? rest(width, environment) : false;
      return node.modifier?.toLowerCase() === 'not' ? notOf(whole) : whole;
    }
    case 'Condition':
      return conditionTest(partsOf(node.children), compared);
    case 'Feature': {
      const [, bound, feature] = /^(?:-webkit-)?(?:(min|max)-)?(.*)$/.exec(node.name.toLowerCase())!;
      const name = feature === 'device-pixel-ratio' ? 'resolution' : feature!;
      const value = node.value;
      if (!value) return (width, environment) => isGiven(name, width, environment);
      const sign = bound === 'min' ? '>=' : bound === 'max' ? '<=' : '=';
      compared.push({ feature: name, sign, value });
      return (width, environment) => compare(name, sign, value, width, environment);
    }
    case 'FeatureRange':
      return rangeTest(node, compared);
    default:
      return () => null;
  }
}

function conditionTest(parts: readonly CssNode[], compared: Compared[]): Test {
  const words = parts.filter((part) => part.type === 'Identifier').map(({ name }) => name.toLowerCase());
  const tests = parts.filter((part) => part.type !== 'Identifier').map((part) => testOf(part, compared));
  if (words[0] === 'not' && tests.length === 1) return notOf(tests[0]!);
  if (words.includes('or')) return anyOf(tests);
  // Before `and` there may stand a `not` of its own.
  return allOf(tests);
}

const MIRRORED: Readonly<Record<string, string>> = { '<': '>', '<=': '>=', '>': '<', '>=': '<=', '=': '=' };

interface Range {
  readonly left: CssNode;
  readonly leftComparison: string;
  readonly middle: CssNode;
  readonly rightComparison: string | null;
  readonly right: CssNode | null;
}

/** `width >= 40em`, `400px <= width < 800px` (Media Queries 4, section 2.4.3). */
function rangeTest(node: CssNode, compared: Compared[]): Test {
  const { left, leftComparison, middle, rightComparison, right } = node as unknown as Range;
  const isNameFirst = left.type === 'Identifier' && middle.type !== 'Identifier';
  const named = isNameFirst ? left : middle;
  if (named.type !== 'Identifier') return () => null;
  const feature = named.name.toLowerCase();
  const sides: [string, CssNode][] = isNameFirst
    ? [[leftComparison, middle]]
    : [
        [MIRRORED[leftComparison] ?? '', left],
        ...(right ? [[rightComparison ?? '', right] as [string, CssNode]] : []),
      ];
  for (const [sign, value] of sides) compared.push({ feature, sign, value });
  return allOf(
    sides.map(
      ([sign, value]) =>
        (width, environment) =>
          compare(feature, sign, value, width, environment),
    ),
  );
}

/** Whether a feature without a value holds: it is there, and not none or 0. */
function isGiven(feature: string, width: number, environment: MediaEnvironment): Held {
  const number = numberOf(feature, width, environment);
  if (number !== null) return number > 0;
  const word = environment.words[feature];
  return word === undefined ? null : !/^(none|no-preference)$/.test(word);
}

function compare(
  feature: string,
  sign: string,
  value: CssNode,
  width: number,
  environment: MediaEnvironment,
): Held {
  const is = numberOf(feature, width, environment);
  if (is === null) {
    if (value.type !== 'Identifier') return null;
    const word = feature === 'orientation' ? orientationAt(width, environment) : environment.words[feature];
    return word === undefined ? null : word === value.name.toLowerCase();
  }
  const wanted = wantedOf(feature, value, environment);
  if (!Number.isFinite(wanted)) return null;
  if (Math.abs(is - wanted) < NEAR) return sign.includes('=');
  if (sign.startsWith('>')) return is > wanted;
  return sign.startsWith('<') ? is < wanted : false;
}

function orientationAt(width: number, { height }: MediaEnvironment): string {
  return width > height ? 'landscape' : 'portrait';
}

function numberOf(feature: string, width: number, { height, screen, dpr }: MediaEnvironment): number | null {
  switch (feature) {
    case 'width':
    case 'inline-size':
      return width;
    case 'height':
      return height;
    case 'device-width':
      return screen.width;
    case 'device-height':
      return screen.height;
    case 'aspect-ratio':
      return width / height;
    case 'device-aspect-ratio':
      return screen.width / screen.height;
    case 'resolution':
      return dpr;
    default:
      return null;
  }
}

function wantedOf(feature: string, value: CssNode, environment: MediaEnvironment): number {
  if (feature === 'resolution') return resolutionOf(value);
  return /aspect-ratio$/.test(feature) ? ratioOf(value) : lengthOf(value, environment);
}

const PER_DPPX: Readonly<Record<string, number>> = { dppx: 1, x: 1, dpi: 96, dpcm: 96 / 2.54 };

function resolutionOf(value: CssNode): number {
  if (value.type === 'Number') return Number(value.value);
  if (value.type !== 'Dimension') return Number.NaN;
  return Number(value.value) / (PER_DPPX[value.unit.toLowerCase()] ?? Number.NaN);
}

function ratioOf(value: CssNode): number {
  if (value.type === 'Number') return Number(value.value);
  if (value.type !== 'Ratio') return Number.NaN;
  const { left, right } = value as unknown as { left: CssNode; right: CssNode | null };
  const number = (part: CssNode | null) =>
    part?.type === 'Number' ? Number(part.value) : part ? Number.NaN : 1;
  return number(left) / number(right);
}

/** CSS px a unit (CSS Values 4, section 6.2). */
const PX: Readonly<Record<string, number>> = {
  px: 1,
  in: 96,
  cm: 96 / 2.54,
  mm: 96 / 25.4,
  q: 96 / 101.6,
  pt: 96 / 72,
  pc: 16,
};

function lengthOf(value: CssNode, { fontSize }: MediaEnvironment): number {
  if (value.type === 'Number') return Number(value.value) === 0 ? 0 : Number.NaN;
  if (value.type === 'Dimension') {
    const unit = value.unit.toLowerCase();
    const px = unit === 'em' || unit === 'rem' ? fontSize : PX[unit];
    return px === undefined ? Number.NaN : Number(value.value) * px;
  }
  if (value.type !== 'Function') return Number.NaN;
  const inPx = generate(value).replace(
    /([\d.]+)r?em\b/g,
    (_, number: string) => `${Number(number) * fontSize}px`,
  );
  return pxOf(calc(inPx)) ?? Number.NaN;
}

function partsOf(children: List<CssNode> | readonly CssNode[]): CssNode[] {
  return [...children];
}

function notOf(test: Test): Test {
  return (width, environment) => {
    const held = test(width, environment);
    return held === null ? null : !held;
  };
}

/** Kleene's three-valued logic (Media Queries 4, section 3.1). */
function allOf(tests: readonly Test[]): Test {
  return (width, environment) => {
    const held = tests.map((test) => test(width, environment));
    if (held.includes(false)) return false;
    return held.includes(null) ? null : true;
  };
}

function anyOf(tests: readonly Test[]): Test {
  return (width, environment) => {
    const held = tests.map((test) => test(width, environment));
    if (held.includes(true)) return true;
    return held.includes(null) ? null : false;
  };
}
