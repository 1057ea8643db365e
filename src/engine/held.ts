import type { Deadline } from './deadline.js';
import type { PageDriver } from './driver.js';

/**
 * Takes pictures of parts of a page that the screen does not show: the page stands still meanwhile, and hears nothing of the viewport that
 * they are taken in.
 */
export async function heldForPicture<T>(
  driver: PageDriver,
  deadline: Deadline,
  take: () => Promise<T>,
): Promise<T> {
  const hold = (isHeld: boolean) => deadline.race(driver.call('holdForPicture', isHeld));
  await hold(true);
  try {
    return await take();
  } finally {
    // A page that is gone holds nothing.
    await hold(false).catch(() => undefined);
  }
}
