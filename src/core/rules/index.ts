import { boxOverflow } from './box-overflow.js';
import { controlClipped } from './control-clipped.js';
import { controlOverlap } from './control-overlap.js';
import { covered } from './covered.js';
import { entryWraps } from './entry-wraps.js';
import { essentialOutOfSight } from './essential-out-of-sight.js';
import { hoverOnly } from './hover-only.js';
import { httpError } from './http-error.js';
import { labelWraps } from './label-wraps.js';
import { loneItem } from './lone-item.js';
import { longLines } from './long-lines.js';
import { missingResource } from './missing-resource.js';
import { pageOverflow } from './page-overflow.js';
import { pictureBroken } from './picture-broken.js';
import { pictureOversized } from './picture-oversized.js';
import { pictureSoft } from './picture-soft.js';
import { pictureStretched } from './picture-stretched.js';
import type { Rule } from './rule.js';
import { smallTarget } from './small-target.js';
import { smallText } from './small-text.js';
import { textClipped } from './text-clipped.js';
import { textOverlap } from './text-overlap.js';
import { tightLines } from './tight-lines.js';
import { unreachable } from './unreachable.js';
import { viewportFixed } from './viewport-fixed.js';
import { viewportMissing } from './viewport-missing.js';
import { zoomLocked } from './zoom-locked.js';

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
  pictureBroken,
  pictureStretched,
  pictureSoft,
  pictureOversized,
  viewportMissing,
  viewportFixed,
  zoomLocked,
  smallText,
  tightLines,
  longLines,
  hoverOnly,
  smallTarget,
  loneItem,
  entryWraps,
  labelWraps,
];
