import { essentialOutOfSight } from './essential-out-of-sight.js';
import { httpError } from './http-error.js';
import { missingResource } from './missing-resource.js';
import { pageOverflow } from './page-overflow.js';
import type { Rule } from './rule.js';

/** Every rule, in the order in which findings of equal weight are listed. */
export const RULES: readonly Rule[] = [httpError, missingResource, essentialOutOfSight, pageOverflow];
