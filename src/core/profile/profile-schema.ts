import * as z from 'zod';
import { conditionsShape } from './conditions-schema.js';
import { DEVICE_CLASSES, MAX_DEVICE_PIXELS, ORIENTATIONS, PLATFORMS } from './device-classes.js';

/**
 * One emulated device. Sizes are CSS px unless a name says otherwise. The schema is the single source of the type,
 * the check of `profiles/*.yaml` and of profiles in a user's configuration.
 */

const pixels = z.number().int().min(50).max(16384);

export const sizeSchema = z.strictObject({ width: pixels, height: pixels });

export const insetsSchema = z.strictObject({
  top: z.number().min(0).default(0),
  right: z.number().min(0).default(0),
  bottom: z.number().min(0).default(0),
  left: z.number().min(0).default(0),
});

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
