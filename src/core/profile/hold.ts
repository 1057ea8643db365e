import { IsopticError } from '../errors.js';
import type { AgentTable, Device, Orientation, Profile } from './profile.js';

/**
 * Holds a profile one way: turns viewport, screen and insets, and looks up its user agent.
 * @throws IsopticError `profile-orientation` when the device has no such orientation, `profile-agent` when the profile
 *   names a user agent that the table lacks
 */
export function hold(profile: Profile, table: AgentTable, wanted?: Orientation): Device {
  const orientation = wanted ?? profile.orientation;
  const viewport = profile.viewport[orientation];
  if (!viewport) {
    throw new IsopticError(
      'profile-orientation',
      `The profile ${profile.name} has no ${orientation} orientation.`,
      `Use ${profile.name} without a suffix.`,
    );
  }
  const agent = table.agents[profile.agent];
  if (!agent) {
    throw new IsopticError(
      'profile-agent',
      `The profile ${profile.name} names the user agent "${profile.agent}", which is not in the table.`,
      `Use one of: ${Object.keys(table.agents).join(', ')}.`,
    );
  }
  const turned = orientation !== profile.orientation;
  const { width, height } = profile.screen;
  return {
    name: turned ? `${profile.name}:${orientation}` : profile.name,
    class: profile.class,
    platform: profile.platform,
    width: viewport.width,
    height: viewport.height,
    screen: turned ? { width: height, height: width } : { width, height },
    dpr: profile.dpr,
    orientation,
    angle: turned ? 90 : 0,
    touchPoints: profile.touchPoints,
    mobile: profile.mobile,
    insets: profile.insets[orientation] ?? { top: 0, right: 0, bottom: 0, left: 0 },
    agent,
  };
}
