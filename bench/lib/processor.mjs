import { readFileSync } from 'node:fs';

/** Ticks of the clock that Linux counts processor time by (`proc(5)`; `getconf CLK_TCK`). */
const TICKS_A_SECOND = 100;

/**
 * Processor time that this process and all that it started and waited for have taken so far, s: on a machine that is shared with others
 * it says more than a clock. NaN where the system doesn't tell.
 */
export function processorSeconds() {
  try {
    // What follows the name of the program, which is in brackets: the 14th to 17th of proc(5)'s fields are wanted.
    const fields = readFileSync('/proc/self/stat', 'utf8').split(') ').at(-1).split(' ');
    return fields.slice(11, 15).reduce((sum, ticks) => sum + Number(ticks), 0) / TICKS_A_SECOND;
  } catch {
    return NaN;
  }
}
