/** Each call gives the milliseconds since the one before it, to a tenth. */
export function stopwatch(): () => number {
  let last = performance.now();
  return () => {
    const now = performance.now();
    const passed = now - last;
    last = now;
    return Math.round(passed * 10) / 10;
  };
}
