import type { Manifest } from '../run/manifest.js';
import { renderKey } from '../run/render-key.js';

/** What is to be said of a render in one sign: the gravest that was found there. */
export type Mark = 'failed' | 'error' | 'warning' | 'notice' | 'clean';

/** The gravest first. */
export const MARKS: readonly Mark[] = ['failed', 'error', 'warning', 'notice', 'clean'];

/** Told apart without colour. */
export const SIGNS: Readonly<Record<Mark, string>> = {
  failed: 'F',
  error: 'E',
  warning: 'W',
  notice: 'n',
  clean: '·',
};

/** The mark of a page, or a state of it, on a profile; undefined where it was not rendered. */
export type MarkOf = (page: string, profile: string) => Mark | undefined;

export function marksOf({ renders, findings }: Manifest): MarkOf {
  const marks = new Map<string, Mark>();
  for (const { page, profile, status } of renders)
    marks.set(renderKey(page, profile), status === 'failed' ? 'failed' : 'clean');
  for (const severity of ['notice', 'warning', 'error'] as const) {
    for (const finding of findings) {
      if (finding.waived || finding.severity !== severity) continue;
      for (const { page, profile } of finding.seen) {
        if (marks.get(renderKey(page, profile)) !== 'failed') marks.set(renderKey(page, profile), severity);
      }
    }
  }
  return (page, profile) => marks.get(renderKey(page, profile));
}
