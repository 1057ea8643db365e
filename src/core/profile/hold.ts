import { IsopticError } from '../errors.js';
import { agentOf, type AgentTable } from './agent.js';
import { mergeConditions, type Conditions } from './conditions.js';
import type { Device, Orientation, OrientationType, Profile } from './profile.js';

/** The ways to hold a device that a suffix can ask for: the two orientations, and each upside down. */
export const HOLDS = ['portrait', 'landscape', 'portrait-flipped', 'landscape-flipped'] as const;
export type Hold = (typeof HOLDS)[number];

/**
 * Holds a profile one way: turns viewport, screen and insets, looks up its user agent, and applies page zoom.
 * @param conditions what the user asks for beside the device; the profile's own are under it
 * @throws IsopticError `profile-orientation` when the device has no such orientation, `profile-agent` when the profile
 *   names a user agent that the table lacks
 */
export function hold(
  profile: Profile,
  table: AgentTable,
  wanted?: Hold,
  conditions: Conditions = {},
): Device {
  const held: Hold = wanted ?? naturalHold(profile);
  const orientation: Orientation = held.startsWith('portrait') ? 'portrait' : 'landscape';
  const viewport = profile.viewport[orientation];
  if (!viewport) {
    throw new IsopticError(
      'profile-orientation',
      `The profile ${profile.name} has no ${orientation} orientation.`,
      `Use ${profile.name} without a suffix.`,
    );
  }
  const agent = agentOf(table, profile.agent);
  if (!agent) {
    throw new IsopticError(
      'profile-agent',
      `The profile ${profile.name} names the user agent "${profile.agent}", which is not in the table.`,
      `Use one of: ${Object.keys(table.agents).join(', ')}.`,
    );
  }
  const merged = mergeConditions(profile, conditions);
  const zoom = merged.zoom ?? 1;
  const turned = orientation !== profile.orientation;
  const flipped = held.endsWith('-flipped');
  const { width, height } = profile.screen;
  const insets = profile.insets?.[orientation] ?? { top: 0, right: 0, bottom: 0, left: 0 };
  return {
    name: held === naturalHold(profile) ? profile.name : `${profile.name}:${held}`,
    class: profile.class,
    platform: profile.platform,
    width: Math.floor(viewport.width / zoom),
    height: Math.floor(viewport.height / zoom),
    screen: turned ? { width: height, height: width } : { width, height },
    dpr: profile.dpr * zoom,
    density: profile.density ?? null,
    orientation,
    orientationType: `${orientation}-${flipped ? 'secondary' : 'primary'}` as OrientationType,
    angle: turned ? (flipped ? 270 : 90) : flipped ? 180 : 0,
    touchPoints: profile.touchPoints,
    mobile: profile.mobile,
    insets: flipped
      ? { top: insets.top, right: insets.left, bottom: insets.bottom, left: insets.right }
      : insets,
    scrollBars: profile.scrollBars ?? defaultScrollBars(profile),
    agent,
    conditions: merged,
  };
}

/** How the device is held when nothing is said: its natural orientation, or the only one its browser is used in. */
export function naturalHold(profile: Profile): Orientation {
  if (profile.viewport[profile.orientation]) return profile.orientation;
  return profile.orientation === 'portrait' ? 'landscape' : 'portrait';
}

/** Whether a profile can be turned. */
export function canTurn(profile: Profile): boolean {
  return profile.viewport.portrait !== undefined && profile.viewport.landscape !== undefined;
}

function defaultScrollBars(profile: Profile): 'classic' | 'overlay' {
  return profile.mobile || profile.platform === 'mac' || profile.platform === 'chromeos'
    ? 'overlay'
    : 'classic';
}
