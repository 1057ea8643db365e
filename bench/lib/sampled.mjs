import { createHash } from 'node:crypto';

/** Whether a name is one of those taken where one of so many is, evenly, by a hash of it. */
export const isSampled = (name, oneOf) =>
  Number.parseInt(createHash('sha256').update(name).digest('hex').slice(0, 8), 16) % oneOf === 0;
