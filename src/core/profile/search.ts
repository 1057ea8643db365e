import { IsopticError } from '../errors.js';
import { includes, type Span } from '../geometry/span.js';
import type { Profile } from './profile.js';

/**
 * Profiles that all words fit. A word is part of a name, class or platform; `portrait` and `landscape` are orientations
 * the profile has; `touch`, `mobile` what it is; `dpr 3` and `width 360..420` (also `height`, `density`) take the word
 * after them, a number or a span.
 * @throws IsopticError `bad-search` when a number or span is missing or not one
 */
export function searchProfiles(profiles: readonly Profile[], words: readonly string[]): Profile[] {
  const tests = parse(words.flatMap((word) => word.toLowerCase().split(/\s+/)).filter((word) => word !== ''));
  return profiles.filter((profile) => tests.every((test) => test(profile)));
}

type Test = (profile: Profile) => boolean;

const NUMBERS: Readonly<Record<string, (profile: Profile) => number[]>> = {
  dpr: (profile) => [profile.dpr],
  density: (profile) => (profile.density === undefined ? [] : [profile.density]),
  width: (profile) => sizes(profile).map((size) => size.width),
  height: (profile) => sizes(profile).map((size) => size.height),
};

function sizes(profile: Profile) {
  return [profile.viewport[profile.orientation] ?? profile.viewport.portrait ?? profile.viewport.landscape!];
}

function parse(words: readonly string[]): Test[] {
  const tests: Test[] = [];
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!;
    const numbers = NUMBERS[word];
    if (numbers) {
      const span = spanOf(word, words[++i]);
      tests.push((profile) => numbers(profile).some((value) => includes(span, value)));
    } else if (word === 'portrait' || word === 'landscape') {
      tests.push((profile) => profile.viewport[word] !== undefined);
    } else if (word === 'touch') {
      tests.push((profile) => profile.touchPoints > 0);
    } else if (word === 'mobile') {
      tests.push((profile) => profile.mobile);
    } else {
      tests.push((profile) =>
        [profile.name, profile.class, profile.platform].some((text) => text.includes(word)),
      );
    }
  }
  return tests;
}

function spanOf(word: string, text: string | undefined): Span {
  const match = /^(\d+(?:\.\d+)?)?(\.\.)?(\d+(?:\.\d+)?)?$/.exec(text ?? '');
  const [, from, dots, to] = match ?? [];
  if (text === undefined || !match || (from === undefined && to === undefined)) {
    throw new IsopticError(
      'bad-search',
      `"${word}" wants a number or a span after it${text === undefined ? '' : `, not "${text}"`}.`,
      `Write ${word} 390, ${word} 360..420, ${word} 360.. or ${word} ..420.`,
    );
  }
  const min = from === undefined ? -Infinity : Number(from);
  if (dots === undefined) return { min, max: min };
  return { min, max: to === undefined ? Infinity : Number(to) };
}
