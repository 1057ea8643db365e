import { z } from 'zod';

/**
 * One emulated device. Sizes are CSS px unless a name says otherwise. The schema is the single source of the type,
 * the check of `profiles/*.yaml` and of profiles in a user's configuration.
 */

const pixels = z.number().int().min(1).max(16384);

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

export const DEVICE_CLASSES = ['phone', 'tablet', 'laptop', 'desktop', 'window'] as const;
export const PLATFORMS = ['ios', 'android', 'windows', 'mac', 'linux'] as const;
export type Platform = (typeof PLATFORMS)[number];

export const profileSchema = z.strictObject({
  name: z.string().regex(/^[a-z0-9][a-z0-9@.+-]*$/),
  class: z.enum(DEVICE_CLASSES),
  platform: z.enum(PLATFORMS),
  /** What is left for the page when the browser's own bars are taken off, for each way the device can be held. */
  viewport: z.strictObject({ portrait: sizeSchema.optional(), landscape: sizeSchema.optional() }),
  /** The whole screen, held in its natural orientation. */
  screen: sizeSchema,
  dpr: z.number().min(0.5).max(9),
  orientation: z.enum(ORIENTATIONS),
  /** How many fingers the screen tells apart; 0 is no touch screen. */
  touchPoints: z.number().int().min(0).max(16),
  /** Whether the page's viewport meta tag counts and layout may be wider than the screen, as on phones. */
  mobile: z.boolean(),
  /** The parts of the viewport that rounded corners and system bars lie over. */
  insets: z
    .strictObject({ portrait: insetsSchema.optional(), landscape: insetsSchema.optional() })
    .default({}),
  /** A row of the user agent table. */
  agent: z.string(),
});

export type Profile = z.infer<typeof profileSchema>;

/** A row of the user agent table: what a platform's browser says of itself. */
export const agentSchema = z.strictObject({
  userAgent: z.string(),
  navigatorPlatform: z.string(),
  /** User-Agent Client Hints; null where the platform's browser has none. */
  hints: z
    .strictObject({
      brands: z.array(z.strictObject({ brand: z.string(), version: z.string() })),
      fullVersion: z.string(),
      platform: z.string(),
      platformVersion: z.string(),
      architecture: z.string(),
      bitness: z.string(),
      model: z.string(),
      mobile: z.boolean(),
    })
    .nullable(),
});
export type Agent = z.infer<typeof agentSchema>;

export const agentTableSchema = z.strictObject({
  /** The day the table was brought up to date, ISO 8601. */
  date: z.string().regex(/^\d{4}-\d{2}-\d{2}$/),
  agents: z.record(z.string(), agentSchema),
});
export type AgentTable = z.infer<typeof agentTableSchema>;

/** A profile as it is rendered: held one way, with everything the engine needs. */
export interface Device {
  readonly name: string;
  readonly class: Profile['class'];
  readonly platform: Platform;
  /** CSS px of the viewport as held. */
  readonly width: number;
  readonly height: number;
  /** CSS px of the screen as held. */
  readonly screen: Size;
  readonly dpr: number;
  readonly orientation: Orientation;
  /** What `screen.orientation.angle` says: degrees from the natural orientation. */
  readonly angle: 0 | 90 | 180 | 270;
  readonly touchPoints: number;
  readonly mobile: boolean;
  readonly insets: Insets;
  readonly agent: Agent;
}
