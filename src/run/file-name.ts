/** A profile's name as a file's: a colon is not allowed everywhere. */
export function fileName(profile: string): string {
  return profile.replaceAll(':', '-');
}
