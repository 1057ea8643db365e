import type { Judge } from '../core/findings/judge.js';
import type { RenderView } from '../core/sightings/sighting.js';
import type { Probe } from '../engine/probe.js';
import { screenKey } from './evidence.js';

/** Of each render, so many screens are pictured beside the first: what shows farther down is shown on the picture of the whole page. */
const MOST_SCREENS = 2;

/** Pictures the screen where something shows only because the page is scrolled there: what a bar that stays hides, for one. */
export async function takeScreens(
  judge: Judge,
  render: RenderView,
  probe: Probe,
  screens: Map<string, Buffer>,
): Promise<void> {
  const { scroll } = render.view.snapshot;
  const heights = judge.judge(render).flatMap(({ sighting: { shows } }) => {
    const at = shows?.scrolled === undefined ? scroll.y : Math.round(shows.scrolled);
    return at === Math.round(scroll.y) ? [] : [at];
  });
  for (const y of [...new Set(heights)].slice(0, MOST_SCREENS)) {
    const screen = await probe.screenAt(y);
    if (screen) screens.set(screenKey(render.page, render.device.name, y), screen);
  }
}
