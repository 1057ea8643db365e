import * as z from 'zod';

/**
 * Under what conditions a page is looked at: what a user or their system asks for beside the device itself. Each is a
 * key of a profile, of the configuration and an option of the command line.
 */

export const networkSchema = z.strictObject({
  /** Added to every answer. */
  latencyMs: z.number().min(0).max(60_000),
  /** Kilobits per second. */
  downKbps: z.number().min(0).max(10_000_000),
  upKbps: z.number().min(0).max(10_000_000),
});

export const conditionsShape = {
  /** prefers-color-scheme */
  scheme: z.enum(['light', 'dark']).optional(),
  /** prefers-reduced-motion */
  reducedMotion: z.boolean().optional(),
  /** prefers-contrast */
  contrast: z.enum(['more', 'less', 'custom']).optional(),
  /** forced-colors */
  forcedColors: z.boolean().optional(),
  /** The CSS media type. */
  media: z.enum(['screen', 'print']).optional(),
  /** Page zoom, 1 is none: fewer CSS px fit into the same window. */
  zoom: z.number().min(0.25).max(5).optional(),
  /** Text size, 1 is the browser's own: what a user sees who enlarges type. */
  textScale: z.number().min(0.5).max(4).optional(),
  /** A BCP 47 language tag. */
  locale: z
    .string()
    .regex(/^[A-Za-z]{2,3}(-[A-Za-z0-9]{2,8})*$/, 'not a language tag such as en-GB')
    .optional(),
  /** An IANA time zone. */
  timezone: z.string().optional(),
  /** A name of NETWORKS or of the configuration, or the numbers themselves. */
  network: z.union([z.string(), networkSchema]).optional(),
  /** How many times slower than this machine's processor. */
  cpuSlowdown: z.number().min(1).max(20).optional(),
};

export const conditionsSchema = z.strictObject(conditionsShape);
