import type { Span } from '../geometry/span.js';
import { gravest, SEVERITIES, type Severity } from '../sightings/sighting.js';
import type { Sample } from './sample.js';

/** The widths at which each defect is seen, by its key. Where both neighbours of a gap show it, all between do. */
export function spansByKey(samples: readonly Sample[]): Map<string, Span[]> {
  const found = new Map<string, { min: number; max: number }[]>();
  let before: Sample | undefined;
  for (const sample of samples) {
    for (const key of sample.seen.keys()) {
      const spans = found.get(key) ?? [];
      found.set(key, spans);
      if (before?.seen.has(key) === true) spans.at(-1)!.max = sample.width;
      else spans.push({ min: sample.width, max: sample.width });
    }
    before = sample;
  }
  return found;
}

/** Neighbouring samples of one form are one stretch: the spans of widths with one layout. */
export function stretchesOf(samples: readonly Sample[]): Span[] {
  const stretches: { min: number; max: number }[] = [];
  samples.forEach((sample, i) => {
    if (samples[i - 1]?.form === sample.form) stretches.at(-1)!.max = sample.width;
    else stretches.push({ min: sample.width, max: sample.width });
  });
  return stretches;
}

/** An error or warning, with the widths that show it. */
export interface FailingSpans {
  /** The rule, and the last step of the path of the element at fault. */
  readonly name: string;
  readonly severity: Severity;
  readonly spans: readonly Span[];
}

/** Errors and warnings with the widths that show them, errors first. */
export function failingIn(samples: readonly Sample[]): FailingSpans[] {
  return [...spansByKey(samples)]
    .map(([key, spans]) => {
      const severities = samples.flatMap(({ seen }) => seen.get(key)?.severity ?? []);
      const [rule, path = ''] = key.split('\n');
      return { name: `${rule!} ${path.split('>').at(-1)!}`.trim(), severity: gravest(severities)!, spans };
    })
    .filter(({ severity }) => severity !== 'notice')
    .sort((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity));
}
