import * as z from 'zod';
import { DIFFERENCE_KINDS } from '../../core/compare/structure/difference.js';
import { findingSchema, rect } from '../manifest.js';

/** What a comparison came to, `compare.json`. This schema is its type, its check and the source of its JSON Schema. */

const side = z.object({
  name: z.string().describe('as it was named'),
  startedAt: z.string().nullable(),
  tool: z.string().describe('the version that made it'),
  engine: z.string().describe('the browser and its version'),
});

export const differenceSchema = z.object({
  kind: z.enum(DIFFERENCE_KINDS),
  a: z.string().nullable().describe('selector in the first; null where it is not there'),
  b: z.string().nullable().describe('selector in the second'),
  from: z.union([z.string(), z.number()]).nullable(),
  to: z.union([z.string(), z.number()]).nullable(),
  count: z.number().int().describe('elements that have it'),
  message: z.string(),
  follows: z.array(z.string()).describe('what comes of it elsewhere'),
  places: z
    .array(z.object({ a: rect.nullable(), b: rect.nullable() }))
    .describe("where they are, CSS px from each page's top left"),
});

export const pixelsSchema = z.object({
  score: z.number().describe('share of what both show that looks otherwise, 0 to 1'),
  boxes: z.array(
    rect.extend({
      selector: z.string().nullable().describe('the smallest element of the second that holds it'),
      explained: z.boolean().describe('a difference of structure tells it'),
    }),
  ),
  heat: z.string().nullable().describe('a picture of the second, what differs in red'),
});

export const pairSchema = z.object({
  page: z.string(),
  a: z.string().describe('the profile of the first'),
  b: z.string().describe('the profile of the second'),
  unlike: z.number().nullable().describe('0 to 1; null where a layout is missing'),
  variant: z.string().nullable().describe('how the served documents differ; null where they do not'),
  differences: z.array(differenceSchema),
  pixels: pixelsSchema.nullable().describe('null where there is nothing to compare pixel by pixel'),
  pictures: z.object({ a: z.string().nullable(), b: z.string().nullable() }),
  sizes: z.object({
    a: z.object({ width: z.number(), height: z.number() }).nullable(),
    b: z.object({ width: z.number(), height: z.number() }).nullable(),
  }),
  notes: z.array(z.string()).describe('what could not be compared, and why'),
});

export const compareSchema = z.object({
  format: z.literal('isoptic-compare'),
  version: z.literal(1),
  tool: z.object({ name: z.literal('isoptic'), version: z.string() }),
  a: side,
  b: side,
  pages: z.array(z.object({ id: z.string(), source: z.string(), title: z.string() })),
  pairs: z.array(pairSchema),
  findings: z.object({
    new: z.array(findingSchema),
    gone: z.array(findingSchema),
    same: z.array(findingSchema),
  }),
  notes: z.array(z.string()),
});

export type Comparison = z.infer<typeof compareSchema>;
export type PairRecord = z.infer<typeof pairSchema>;
export type DifferenceRecord = z.infer<typeof differenceSchema>;

export function compareJsonSchema(): unknown {
  return {
    $id: 'https://isoptic.invalid/schema/compare.schema.json',
    title: 'Isoptic comparison',
    ...z.toJSONSchema(compareSchema, { io: 'output' }),
  };
}
