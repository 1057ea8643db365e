import { boxOverflow } from './box-overflow.js';
import { controlClipped } from './control-clipped.js';
import { controlOverlap } from './control-overlap.js';
import { covered } from './covered.js';
import { essentialOutOfSight } from './essential-out-of-sight.js';
import { httpError } from './http-error.js';
import { missingResource } from './missing-resource.js';
import { pageOverflow } from './page-overflow.js';
import type { Rule } from './rule.js';
import { textClipped } from './text-clipped.js';
import { textOverlap } from './text-overlap.js';
import { unreachable } from './unreachable.js';

/** Every rule. Of two that see the same defect in an element, the one that stands first here reports it. */
export const RULES: readonly Rule[] = [
  httpError,
  missingResource,
  essentialOutOfSight,
  pageOverflow,
  boxOverflow,
  unreachable,
  controlClipped,
  textClipped,
  covered,
  controlOverlap,
  textOverlap,
];
