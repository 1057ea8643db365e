import { readFileSync } from 'node:fs';

/** Ticks of the clock that Linux counts processor time by (`proc(5)`; `getconf CLK_TCK`). */
const TICKS_A_SECOND = 100;

/**
 * What all processors of this machine have done since it was started, s: `worked`, `idle`, and `stolen` by others where the machine is
 * a virtual one. Nothing else may run beside what is measured; a browser's own processes, which nobody waits for, are counted so.
 * NaN where the system doesn't tell.
 */
export function machineSeconds() {
  try {
    const [line] = readFileSync('/proc/stat', 'utf8').split('\n');
    // The fields of proc(5): user, nice, system, idle, iowait, irq, softirq, steal.
    const [user, nice, system, idle, wait, irq, soft, steal] = line
      .split(/\s+/)
      .slice(1)
      .map((ticks) => Number(ticks) / TICKS_A_SECOND);
    return { worked: user + nice + system + irq + soft, idle: idle + wait, stolen: steal };
  } catch {
    return { worked: NaN, idle: NaN, stolen: NaN };
  }
}
