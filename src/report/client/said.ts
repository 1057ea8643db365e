import { signal } from '@preact/signals';

/** Said to those who can't see what changed. */
export const said = signal('');
