import type { Mark } from '../marks.js';

const WORDS: Readonly<Record<Mark, string>> = {
  failed: 'not rendered',
  error: 'error',
  warning: 'warning',
  notice: 'notice',
  clean: 'clean',
};

/** The gravest of something, told by shape as well as by colour. */
export function Sign({ mark }: { mark: Mark }) {
  return (
    <svg
      class={`sign ${mark}`}
      viewBox="0 0 12 12"
      width="12"
      height="12"
      role="img"
      aria-label={WORDS[mark]}
    >
      {mark === 'failed' && <path d="M2 2 10 10M10 2 2 10" />}
      {mark === 'error' && <rect x="1" y="1" width="10" height="10" />}
      {mark === 'warning' && <path d="M6 1 11.5 11H.5Z" />}
      {mark === 'notice' && <circle cx="6" cy="6" r="5" />}
      {mark === 'clean' && <circle cx="6" cy="6" r="2" />}
    </svg>
  );
}
