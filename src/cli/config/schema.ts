import * as z from 'zod';
import { DIFFERENCE_KINDS } from '../../core/compare/structure/difference.js';
import { conditionsSchema, networkSchema } from '../../core/profile/conditions-schema.js';
import { profileShape } from '../../core/profile/profile-schema.js';
import { accessSchema } from './access.js';
import { selectorSchema } from './selector.js';
import { stepsSchema } from './steps.js';

/** A profile of the configuration: complete, or another one with changes. Its name is its key. */
export const ownProfileSchema = z.strictObject(profileShape).omit({ name: true }).partial().extend({
  /** The profile that the rest is taken from. */
  from: z.string().optional(),
});

const pages = z.array(z.string().min(1)).min(1).optional();

const preparationSchema = z.strictObject({
  name: z.string().min(1),
  /** Ids of the pages it is for, `*` for anything; all of them when left out. */
  pages,
  steps: stepsSchema,
});

const signInSchema = z.strictObject({
  /** The page that it begins at. */
  at: z.url({ protocol: /^https?$/ }),
  steps: stepsSchema.refine(
    (steps) => steps.every((step) => step.mark === undefined),
    'a sign-in captures nothing, so it has no mark',
  ),
  /** How long what it leaves is used again. */
  keepHours: z.number().min(0).max(720).default(12),
});

const severitySchema = z.enum(['error', 'warning', 'notice', 'off']);
const leastPx = z.number().min(0).max(10_000).optional();

const ruleSchema = z.union([
  severitySchema,
  z.strictObject({
    severity: severitySchema.optional(),
    leastPx,
    elements: z
      .array(z.strictObject({ selector: selectorSchema, severity: severitySchema.optional(), leastPx }))
      .default([]),
  }),
]);
export type RuleConfig = z.output<typeof ruleSchema>;

const essentialSchema = z.union([selectorSchema, z.strictObject({ selector: selectorSchema, pages })]);

const sizeSchema = z.number().int().min(50).max(8192);
/** From one width to another, both included, CSS px. */
const spanSchema = z
  .tuple([sizeSchema, sizeSchema])
  .refine(([from, to]) => from < to, 'the narrower width comes first');

/** Widths that must be right: what shows at others only is told and fails nothing. */
const rightSchema = z.array(spanSchema).min(1).optional();

/** Which widths a search looks at. */
const sweepSchema = z.strictObject({
  from: sizeSchema.optional(),
  to: sizeSchema.optional(),
  height: sizeSchema.optional(),
  right: rightSchema,
  /** Pages with widths of their own: the first entry that names a page says it. */
  pages: z
    .array(
      z
        .strictObject({
          pages: z.array(z.string().min(1)).min(1),
          from: sizeSchema.optional(),
          to: sizeSchema.optional(),
          right: rightSchema,
        })
        .refine(
          ({ from, to }) => from === undefined || to === undefined || from < to,
          'the narrower width comes first',
        ),
    )
    .default([]),
});

/** How the renders of some pages are compared, of all where none is named. */
const tolerancePx = z.number().min(0).max(1000);

const compareSchema = z
  .strictObject({
    pages,
    /** What `without` and `px` hold for, with all that stands in it. */
    within: z.array(selectorSchema).min(1).optional(),
    /** What is left out, with all that stands in it. */
    leaveOut: z.array(selectorSchema).optional(),
    /** Parts of the page that are left out: x, y, width, height, CSS px. */
    regions: z
      .array(z.tuple([z.number(), z.number(), z.number().positive(), z.number().positive()]))
      .optional(),
    /** Kinds of differences that are not told. */
    without: z.array(z.enum(DIFFERENCE_KINDS)).optional(),
    /** Lengths that differ by no more are equal, CSS px: all of them, or by what they are of. */
    px: z
      .union([
        tolerancePx,
        z.strictObject({ moved: tolerancePx.optional(), resized: tolerancePx.optional() }),
      ])
      .optional(),
    /** From which distance on colours differ, 0 to 1. */
    colour: z.number().min(0).max(1).optional(),
    /** Share of the pixels that may differ, 0 to 1. */
    pixels: z.number().min(0).max(1).optional(),
  })
  .refine(
    ({ within, leaveOut, regions, colour, pixels }) =>
      within === undefined || [leaveOut, regions, colour, pixels].every((each) => each === undefined),
    'with `within`, only `without` and `px` can be said: the rest is for whole pages',
  );

/**
 * `isoptic.yaml`. Unknown keys are refused.
 * @param rules the names of all rules, or none where nothing is said of any: they are much to load
 */
export const configSchema = (rules: readonly string[]) =>
  z.strictObject({
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
    /** What it takes to reach the pages. */
    access: accessSchema.prefault({}),
    /** Ways to sign in, by name. */
    signIns: z.record(z.string(), signInSchema).default({}),
    /** The sign-in that every check uses. */
    signedIn: z.string().optional(),
    /** What is done to pages before they are captured. */
    preparations: z.array(preparationSchema).default([]),
    /** How each rule is taken. */
    rules: z
      .strictObject(Object.fromEntries(rules.map((name) => [name, ruleSchema.optional()])))
      .prefault({}),
    sweep: sweepSchema.prefault({}),
    /** Names for ranges of widths; those of the page's own media queries where there are none. */
    ranges: z.record(z.string().min(1), spanSchema).default({}),
    /** The folder of the baseline. */
    baseline: z.string().min(1).optional(),
    /** How renders are compared: for all pages, or for some. */
    compare: z.array(compareSchema).default([]),
    /** A file of accepted findings. */
    waivers: z.string().optional(),
    hide: z.array(selectorSchema).default([]),
    mask: z.array(selectorSchema).default([]),
    remove: z.array(selectorSchema).default([]),
    /** What must be seen in the first screen of every profile. */
    essentials: z.array(essentialSchema).default([]),
  });
export type Config = z.infer<ReturnType<typeof configSchema>>;
