import { setFlagsFromString } from 'node:v8';

/**
 * By V8's major version, the flag that has it compile for speed only what runs seven times as long as it would by itself. Younger ones have a
 * compiler between, which is quick: with them there is nothing to gain. A flag that a V8 does not know is told on the terminal.
 */
const FLAGS: Readonly<Record<string, string>> = {
  11: '--interrupt-budget=1000000',
  12: '--invocation-count-for-turbofan=21000',
};

/**
 * Has V8 compile only what runs much longer than it would by itself: it spends more on compiling the rules and how pages are read than it
 * gains while they run for some seconds, and takes that from the browsers: both cores are busy.
 */
export function optimiseLate(): void {
  const [major = ''] = process.versions.v8.split('.');
  const flag = FLAGS[major];
  if (flag !== undefined) setFlagsFromString(flag);
}
