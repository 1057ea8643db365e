/** What tells the renders of a run apart. */
export const renderKey = (page: string, profile: string): string => `${page}\n${profile}`;
