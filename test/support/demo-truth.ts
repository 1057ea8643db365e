import { readFile } from 'node:fs/promises';
import { parse } from 'yaml';
import { z } from 'zod';

const truthSchema = z.array(
  z.strictObject({
    id: z.string(),
    page: z.string(),
    selector: z.string(),
    family: z.enum(['overflow', 'overlap', 'clipped', 'flow']),
    rule: z.string(),
    widths: z.strictObject({ min: z.number(), max: z.number() }),
    when: z.record(z.string(), z.union([z.string(), z.number()])).optional(),
    profiles: z.array(z.string()),
    sweep: z.array(z.tuple([z.number(), z.number()])).optional(),
    /** Of the window that is swept, CSS px. */
    height: z.number().default(800),
    sees: z.string(),
    cause: z.string(),
    repair: z.string(),
  }),
);

/** The faults that were planted in the demo's site. */
export async function demoTruth() {
  return truthSchema.parse(parse(await readFile('demo/truth.yaml', 'utf8')));
}
