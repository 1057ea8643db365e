import * as z from 'zod';
import { CAUSES } from '../core/cause/cause.js';
import { DEVICE_CLASSES } from '../core/profile/device-classes.js';
import { FAMILIES } from '../core/rules/rule.js';
import { SEVERITIES } from '../core/sightings/sighting.js';

/** The manifest of a run, `run.json`. This schema is its type, its check and the source of its JSON Schema. */

export const rect = z.object({ x: z.number(), y: z.number(), width: z.number(), height: z.number() });
const span = z.tuple([z.number().int(), z.number().int()]).describe('CSS px, both ends included');
const ms = z.number().describe('milliseconds');

export const renderSchema = z.object({
  page: z.string(),
  profile: z.string(),
  status: z.enum(['ok', 'failed']),
  finalUrl: z.string().nullable(),
  httpStatus: z.number().int().nullable(),
  error: z.object({ code: z.string(), message: z.string() }).nullable(),
  document: z
    .object({
      width: z.number(),
      height: z.number(),
      left: z.number().optional().describe('where it begins, below nothing where a page goes on to the left'),
    })
    .nullable()
    .describe('scrollable area, CSS px'),
  timings: z.object({ loadMs: ms, settleMs: ms, collectMs: ms, analyseMs: ms, shotMs: ms, causeMs: ms }),
  shots: z.object({
    fold: z.string().optional(),
    full: z.string().optional(),
    framed: z.string().optional().describe('the first screen with a device drawn round it'),
    preview: z.string().optional().describe('the whole page, small'),
    failed: z.string().optional().describe('what the screen showed when a step of a preparation failed'),
  }),
  notes: z.array(z.string()).describe('what to know about how it was rendered'),
  delivery: z
    .object({
      redirects: z.array(z.object({ url: z.string(), status: z.number().int() })),
      contentType: z.string().nullable(),
      requests: z.record(z.string(), z.object({ count: z.number().int(), bytes: z.number() })),
      failures: z.array(
        z.object({
          url: z.string(),
          kind: z.string(),
          status: z.number().int().nullable(),
          reason: z.string(),
          blocked: z.boolean(),
        }),
      ),
      consoleErrors: z.array(z.string()),
      pageErrors: z.array(z.string()),
      timing: z.object({ dnsMs: ms, connectMs: ms, tlsMs: ms, waitMs: ms }).nullable(),
      structure: z.string().nullable().describe('equal for documents of the same structure'),
    })
    .describe('what the server and the network gave, without queries'),
});

export const findingSchema = z.object({
  id: z.string().describe('stable across runs'),
  rule: z.string(),
  family: z.enum(FAMILIES),
  severity: z.enum(SEVERITIES),
  page: z.string().describe('the first that shows it'),
  pages: z.array(z.string()).describe('every page, or state of one, that shows it'),
  key: z.string().describe('what is the same wherever this defect shows'),
  selector: z.string().describe('matches exactly one element; >>> steps into a shadow root or frame'),
  related: z.array(z.string()),
  message: z.string(),
  details: z.array(z.string()).describe('what the message counts, one by one'),
  words: z.string().describe('the first words in the element'),
  cause: z
    .object({
      name: z.enum(CAUSES),
      message: z.string(),
      selector: z.string().describe('the element that carries the cause'),
      declaration: z
        .object({
          property: z.string(),
          value: z.string(),
          selector: z.string().nullable().describe('of its rule; null for a style attribute'),
          source: z.string().nullable().describe('file:line'),
        })
        .nullable(),
      proven: z.boolean().describe('undone in the live page, the defect was gone'),
    })
    .nullable(),
  right: z
    .object({ page: z.string(), profile: z.string(), rect })
    .nullable()
    .describe('the same element on a profile that does not show the defect, the nearest in width'),
  spans: z
    .record(z.string(), z.array(z.tuple([z.number().int(), z.number().int()])))
    .optional()
    .describe(
      'by page, the widths at which it shows, CSS px, both ends included; of a search over heights, the heights',
    ),
  conditions: z
    .array(
      z.object({
        page: z.string(),
        span,
        condition: z.string().describe('holds at exactly these widths'),
        source: z
          .string()
          .nullable()
          .describe('where it would go: file:line of the declaration behind the finding'),
        fails: z.number().int().describe('a width of the span that is at its end'),
        right: z.number().int().describe('the next one, which does not show it'),
      }),
    )
    .optional()
    .describe('the media conditions that would contain it'),
  waived: z
    .object({ reason: z.string(), who: z.string(), until: z.string() })
    .nullable()
    .describe('the waiver that accepts it'),
  seen: z.array(
    z.object({
      page: z.string().describe('the page, or the state of it'),
      profile: z.string(),
      rect: rect.describe("CSS px from the page's top left"),
      by: z.object({ axis: z.enum(['x', 'y']), px: z.number() }).nullable(),
      message: z
        .string()
        .optional()
        .describe("what is said of it there, where it is not the finding's message"),
      evidence: z.string().optional(),
      fault: rect.optional().describe('the element at fault'),
      suffers: z.array(rect).optional().describe('the elements that lose something by it'),
      lost: z.array(rect).optional().describe('what of them is lost'),
      scrolled: z.number().optional().describe('how far the page is scrolled where it shows, CSS px'),
    }),
  ),
});

/** A condition of a page, wherever it stands. */
const querySchema = z.object({
  text: z.string(),
  kind: z.enum(['media', 'container', 'import', 'link', 'style', 'source', 'sizes', 'script']),
  spans: z
    .array(span)
    .nullable()
    .describe('widths of the viewport at which it holds; null where that can not be told'),
  containers: z
    .array(z.object({ selector: z.string(), spans: z.array(span) }))
    .optional()
    .describe('of a container query, each container with the widths of the viewport at which it holds in it'),
  source: z
    .string()
    .nullable()
    .describe('the first place that it stands in: file:line, or the element that names it'),
  sources: z.array(z.string()),
  changes: z.string().describe('what a person sees change where it begins to hold or not to'),
  problems: z.array(z.string()),
});

/** Of a page whose window was given all sizes of a range. */
const sweepSchema = z.object({
  page: z.string(),
  axis: z.enum(['width', 'height']),
  from: z.number().int().describe('CSS px of the viewport along the axis, the first'),
  to: z.number().int().describe('the last'),
  across: z.number().describe('the other side of the viewport, CSS px'),
  layouts: z.number().int().describe('how many were looked at'),
  exhaustive: z.boolean().describe('every size was looked at'),
  anew: z
    .boolean()
    .describe('the page was loaded for each size, since its layout hangs on how its window came to it'),
  whole: z.boolean().describe('every change was found to the px'),
  edges: z
    .array(z.object({ width: z.number().int(), message: z.string() }))
    .describe('sizes at which the layout becomes another one, each the first of its stretch'),
  queries: z.array(querySchema).optional().describe('every condition on sizes that the page names'),
  ranges: z
    .array(z.object({ label: z.string(), span }))
    .optional()
    .describe("ranges of widths by their names, of the page's own queries or the configuration"),
  problems: z.array(z.string()).optional().describe('what is wrong with its edges as a whole'),
  shots: z
    .array(z.object({ width: z.number().int(), file: z.string() }))
    .optional()
    .describe('small pictures of what the screen shows on the way, by rising width'),
  notes: z.array(z.string()),
  error: z.string().nullable().describe('why it could not be searched'),
});

const waiverSchema = z.object({
  finding: z.string().optional(),
  rule: z.string().optional(),
  selector: z.string().optional(),
  page: z.string().optional(),
  reason: z.string(),
  who: z.string(),
  until: z.string().describe('the last day on which it holds, YYYY-MM-DD'),
});

export const manifestSchema = z.object({
  format: z.literal('isoptic-run'),
  version: z.literal(1),
  tool: z.object({ name: z.literal('isoptic'), version: z.string() }),
  engine: z.object({ name: z.string(), version: z.string() }),
  fonts: z.enum(['platform', 'host']).optional().describe('what text was laid out with'),
  startedAt: z.iso.datetime(),
  durationMs: z.number(),
  interrupted: z.boolean().describe('the run was stopped before all renders were done'),
  pages: z.array(
    z.object({
      id: z.string(),
      source: z.string(),
      title: z.string(),
      state: z.string().optional().describe('the state that a preparation marked'),
      of: z.string().optional().describe('the page that this is a state of'),
    }),
  ),
  profiles: z.array(
    z.object({
      name: z.string(),
      width: z.number(),
      height: z.number(),
      dpr: z.number(),
      class: z.enum(DEVICE_CLASSES),
      screen: z.object({ width: z.number(), height: z.number() }).describe('CSS px, as held'),
      insets: z
        .object({ top: z.number(), right: z.number(), bottom: z.number(), left: z.number() })
        .describe('of the viewport, what the device covers with parts of its own, CSS px'),
      density: z.number().nullable().describe('physical px an inch; null for a window'),
      orientation: z.enum(['portrait', 'landscape']),
      scheme: z.enum(['light', 'dark']).describe('prefers-color-scheme'),
      platform: z.string(),
      touch: z.boolean(),
      mobile: z.boolean(),
      userAgent: z.string(),
    }),
  ),
  renders: z.array(renderSchema),
  findings: z.array(findingSchema),
  layouts: z
    .array(
      z.object({
        page: z.string(),
        groups: z.array(
          z.object({
            profiles: z.array(z.string()),
            apart: z
              .array(z.string())
              .describe('what sets it apart from the first, in sentences; some of them'),
            differences: z.number().int().describe('how many there are'),
          }),
        ),
      }),
    )
    .optional()
    .describe('by page, which profiles show one layout: that of most profiles first'),
  sweep: z.array(sweepSchema).optional().describe('what a search over sizes found, page by page'),
  waivers: z.array(waiverSchema.extend({ state: z.enum(['used', 'unused', 'expired']) })),
  against: z
    .object({
      name: z.string(),
      known: z.array(z.string()).describe('ids of findings that were there before'),
      gone: z.number().int().describe('findings that are not there any more'),
    })
    .optional()
    .describe('what the run was held against'),
  summary: z.object({
    renders: z.number().int(),
    failed: z.number().int(),
    errors: z.number().int(),
    warnings: z.number().int(),
    notices: z.number().int(),
    waived: z.number().int().describe('findings that a waiver accepts; they are in no other number'),
  }),
});

export type Manifest = z.infer<typeof manifestSchema>;
export type RenderRecord = z.infer<typeof renderSchema>;
export type FindingRecord = z.infer<typeof findingSchema>;

export function manifestJsonSchema(): unknown {
  return {
    $id: 'https://isoptic.invalid/schema/run.schema.json',
    title: 'Isoptic run manifest',
    ...z.toJSONSchema(manifestSchema, { io: 'output' }),
  };
}
