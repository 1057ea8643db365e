import * as z from 'zod';
import { findingSchema, manifestSchema } from '../manifest.js';

/** What is kept of a run: its records, and by render the objects that its pictures and its layout lie in. */
export const baselineSchema = z.object({
  format: z.literal('isoptic-baseline'),
  version: z.literal(1),
  /** The branch that it was saved on; null outside of one. */
  branch: z.string().nullable(),
  savedAt: z.iso.datetime(),
  run: manifestSchema.omit({ findings: true, sweep: true, waivers: true, summary: true, durationMs: true }),
  findings: z.array(findingSchema),
  objects: z.array(
    z.object({
      page: z.string(),
      profile: z.string(),
      layout: z.string().nullable(),
      full: z.string().nullable(),
      fold: z.string().nullable(),
    }),
  ),
});
export type BaselineIndex = z.infer<typeof baselineSchema>;
export type KeptObjects = BaselineIndex['objects'][number];
