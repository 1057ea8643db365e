import { setFlagsFromString } from 'node:v8';

/** Bytes of a function's bytecode that run before V8 considers it for its optimising compiler. */
const BUDGET = 1_000_000;

/**
 * Has V8 compile only what runs much longer than it would by itself. With a budget of its own, a seventh of that, it spends more on compiling the rules and
 * how pages are read than it gains while they run for some seconds, and takes that from the browsers: both cores are busy.
 */
export function optimiseLate(): void {
  setFlagsFromString(`--interrupt-budget=${BUDGET}`);
}
