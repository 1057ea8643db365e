/** Put in by the build. */
declare const ISOPTIC_VERSION: string | undefined;

export const VERSION: string = typeof ISOPTIC_VERSION === 'undefined' ? 'source' : ISOPTIC_VERSION;
