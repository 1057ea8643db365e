import type { z } from 'zod';
import type { Agent } from './agent.js';
import type { Conditions } from './conditions.js';
import type { ORIENTATIONS, PLATFORMS } from './device-classes.js';
import type { insetsSchema, profileSchema, sizeSchema } from './profile-schema.js';

export type Size = z.infer<typeof sizeSchema>;
export type Insets = z.infer<typeof insetsSchema>;
export type Profile = z.infer<typeof profileSchema>;
export type Orientation = (typeof ORIENTATIONS)[number];
export type Platform = (typeof PLATFORMS)[number];

/** A profile as it is rendered: held one way, with everything the engine needs. */
export interface Device {
  readonly name: string;
  readonly class: Profile['class'];
  readonly platform: Platform;
  /** CSS px of the viewport as held, page zoom taken into account. */
  readonly width: number;
  readonly height: number;
  /** CSS px of the screen as held. */
  readonly screen: Size;
  /** Device px a CSS px, page zoom taken into account. */
  readonly dpr: number;
  /** Physical px an inch; null where the device has no size of its own, as a window has none. */
  readonly density: number | null;
  readonly orientation: Orientation;
  /** What `screen.orientation.type` and `.angle` say. */
  readonly orientationType: OrientationType;
  readonly angle: 0 | 90 | 180 | 270;
  readonly touchPoints: number;
  readonly mobile: boolean;
  readonly insets: Insets;
  readonly scrollBars: 'classic' | 'overlay';
  readonly agent: Agent;
  readonly conditions: Conditions;
}

export type OrientationType =
  'portrait-primary' | 'portrait-secondary' | 'landscape-primary' | 'landscape-secondary';
