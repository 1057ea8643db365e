/** As Commander gives them: before they are read. */
export type RawOptions = Record<string, string | boolean | undefined>;
