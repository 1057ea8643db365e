import * as z from 'zod';

/** The user agent table: what each platform's browser says of itself, with its version numbers in one place. */
export const agentTableSchema = z.strictObject({
  /** The day the table was brought up to date, ISO 8601. */
  date: z.string().regex(/^\d{4}-\d{2}-\d{2}$/),
  versions: z.strictObject({
    chromium: z.string().regex(/^\d+$/),
    chromiumFull: z.string().regex(/^\d+(\.\d+){3}$/),
    safari: z.string(),
    ios: z.string(),
  }),
  agents: z.record(
    z.string(),
    z.strictObject({
      userAgent: z.string(),
      navigatorPlatform: z.string(),
      vendor: z.string(),
      /** What User-Agent Client Hints say beside brands and versions; null where the browser has none. */
      hints: z
        .strictObject({
          platform: z.string(),
          platformVersion: z.string(),
          architecture: z.string(),
          bitness: z.string(),
          model: z.string(),
          mobile: z.boolean(),
        })
        .nullable(),
    }),
  ),
});
