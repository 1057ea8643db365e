import { z } from 'zod';
import { conditionsSchema, networkSchema } from '../../core/profile/conditions.js';
import { profileShape } from '../../core/profile/profile.js';

/** A profile of the configuration: complete, or another one with changes. Its name is its key. */
export const ownProfileSchema = z.strictObject(profileShape).omit({ name: true }).partial().extend({
  /** The profile that the rest is taken from. */
  from: z.string().optional(),
});

/** `isoptic.yaml`. Unknown keys are refused. */
export const configSchema = z.strictObject({
  /** Profiles of one's own, by name. */
  profiles: z.record(z.string(), ownProfileSchema).default({}),
  /** Named, ordered lists of profiles and sizes. */
  lineups: z.record(z.string(), z.array(z.string()).min(1)).default({}),
  /** The lineup that is used when nothing is picked. */
  defaultLineup: z.string().optional(),
  conditions: conditionsSchema.default({}),
  /** Network conditions of one's own, by name. */
  networks: z.record(z.string(), networkSchema).default({}),
  fonts: z.enum(['platform', 'host']).optional(),
  timeout: z.number().min(0.1).max(3600).optional(),
  failOn: z.enum(['error', 'warning', 'notice', 'never']).optional(),
  browser: z.string().optional(),
});
export type Config = z.infer<typeof configSchema>;
