import { z } from 'zod';
import type { Agent } from './agent.js';
import { conditionsShape, type Conditions } from './conditions.js';

/**
 * One emulated device. Sizes are CSS px unless a name says otherwise. The schema is the single source of the type,
 * the check of `profiles/*.yaml` and of profiles in a user's configuration.
 */

const pixels = z.number().int().min(50).max(16384);

export const sizeSchema = z.strictObject({ width: pixels, height: pixels });
export type Size = z.infer<typeof sizeSchema>;

export const insetsSchema = z.strictObject({
  top: z.number().min(0).default(0),
  right: z.number().min(0).default(0),
  bottom: z.number().min(0).default(0),
  left: z.number().min(0).default(0),
});
export type Insets = z.infer<typeof insetsSchema>;

export const ORIENTATIONS = ['portrait', 'landscape'] as const;
export type Orientation = (typeof ORIENTATIONS)[number];

export const DEVICE_CLASSES = [
  'phone',
  'foldable',
  'tablet',
  'split',
  'laptop',
  'desktop',
  'tv',
  'window',
] as const;
export const PLATFORMS = ['ios', 'android', 'windows', 'mac', 'linux', 'chromeos', 'tv'] as const;
export type Platform = (typeof PLATFORMS)[number];

/** The largest screen that a browser paints for certain, in device px. */
export const MAX_DEVICE_PIXELS = 2 ** 28;

/** The keys of a profile. */
export const profileShape = {
  name: z.string().regex(/^[a-z0-9][a-z0-9@.+-]*$/, 'use small letters, digits and hyphens'),
  class: z.enum(DEVICE_CLASSES),
  platform: z.enum(PLATFORMS),
  /** What is left for the page when the browser's own bars are taken off, for each way the device can be held. */
  viewport: z
    .strictObject({ portrait: sizeSchema.optional(), landscape: sizeSchema.optional() })
    .refine((viewport) => viewport.portrait ?? viewport.landscape, 'give at least one orientation'),
  /** The whole screen, held in its natural orientation. */
  screen: sizeSchema,
  dpr: z.number().min(0.5).max(5),
  /** Physical px per inch. */
  density: z.number().min(10).max(1000).optional(),
  /** The natural orientation. */
  orientation: z.enum(ORIENTATIONS),
  /** How many fingers the screen tells apart; 0 is no touch screen. */
  touchPoints: z.number().int().min(0).max(16),
  /** Whether the page's viewport meta tag counts and layout may be wider than the screen, as on phones. */
  mobile: z.boolean(),
  /** The parts of the viewport that rounded corners and system bars lie over, as env(safe-area-inset-*) tells. */
  insets: z
    .strictObject({ portrait: insetsSchema.optional(), landscape: insetsSchema.optional() })
    .optional(),
  /** Where the crease runs: across the screen in its natural orientation, so many CSS px from its top or left. */
  fold: z.strictObject({ axis: z.enum(['vertical', 'horizontal']), at: z.number().positive() }).optional(),
  /** Scroll bars that take room, or that lie over the page; the platform decides unless said. */
  scrollBars: z.enum(['classic', 'overlay']).optional(),
  /** A row of the user agent table. */
  agent: z.string(),
  ...conditionsShape,
};

export const profileSchema = z
  .strictObject(profileShape)
  .refine(
    ({ screen, dpr }) => screen.width * screen.height * dpr * dpr <= MAX_DEVICE_PIXELS,
    'the screen has more device pixels than a browser paints',
  );

export type Profile = z.infer<typeof profileSchema>;

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
