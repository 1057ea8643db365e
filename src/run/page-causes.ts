import type { Cause } from '../core/cause/cause.js';
import type { Trial } from './trial.js';

const DEVICE_WIDTH = 'width=device-width, initial-scale=1';
/** A breakpoint farther off is no gap: the page is meant to look otherwise there. */
const NEAR = 1.35;
const MOST_CONDITIONS = 3;

/** Whether the page is as wide as it is because of its viewport meta tag. */
export async function viewportCause({ render, layoutWith, writer, isGone }: Trial): Promise<Cause | null> {
  if (!render.device.mobile) return null;
  if (!isGone(await layoutWith({ viewport: DEVICE_WIDTH }))) return null;
  const { viewportMeta } = render.view.snapshot;
  const says =
    viewportMeta === null
      ? 'There is no viewport meta tag'
      : `The viewport meta tag says \`${viewportMeta}\``;
  return {
    name: 'viewport-meta',
    message: `${says}; gone with \`${DEVICE_WIDTH}\`.`,
    selector: writer.write(render.view.root),
    declaration: null,
    proven: true,
  };
}

/** Whether rules that would prevent the defect are there, in a media query that ends before this width or begins after it. */
export async function mediaCause(trial: Trial): Promise<Cause | null> {
  const { render, sighting, probe, layoutWith, writer, isGone, isSpent } = trial;
  const { view } = render;
  const about = new Set([sighting.node, ...(sighting.affected ?? []).slice(0, 2)]);
  for (let at = view.parent(sighting.node), up = 0; at > view.body && up < 3; at = view.parent(at), up++)
    about.add(at);
  const width = view.snapshot.viewport.width;
  const idle = await probe.idleMedia([...about].map((at) => view.uid(at)));
  const near = idle.filter(({ condition }) => isNear(condition, width)).slice(0, MOST_CONDITIONS);
  for (const { condition, declaration } of near) {
    if (isSpent()) return null;
    if (!isGone(await layoutWith({ media: condition }))) continue;
    return {
      name: 'media-query-absent',
      message: `The rules of \`@media ${condition}\` do not hold at ${width} px; gone with them.`,
      selector: writer.write(sighting.node),
      declaration,
      proven: true,
    };
  }
  return null;
}

/** Whether one of the widths in a media query is close to a width, CSS px; em are those of the initial font size. */
function isNear(condition: string, width: number): boolean {
  const breakpoints = [...condition.matchAll(/([\d.]+)(px|r?em)/g)].map(
    ([, value, unit]) => Number(value) * (unit === 'px' ? 1 : 16),
  );
  return breakpoints.some((at) => width < at * NEAR && width > at / NEAR);
}
