import envPaths from 'env-paths';

/** The user's cache folder for Isoptic, whether or not it is there and can be written. */
export function cacheFolder(): string {
  return envPaths('isoptic', { suffix: '' }).cache;
}
