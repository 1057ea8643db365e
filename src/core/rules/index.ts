import { boxOverflow } from './overflow/box-overflow.js';
import { brokenWords } from './legibility/broken-words.js';
import { controlClipped } from './clipped/control-clipped.js';
import { controlOverlap } from './overlap/control-overlap.js';
import { covered } from './overlap/covered.js';
import { entryWraps } from './flow/entry-wraps.js';
import { essentialOutOfSight } from './viewport/essential-out-of-sight.js';
import { hoverOnly } from './touch/hover-only.js';
import { httpError } from './delivery/http-error.js';
import { labelWraps } from './flow/label-wraps.js';
import { loneItem } from './flow/lone-item.js';
import { longLines } from './legibility/long-lines.js';
import { missingResource } from './delivery/missing-resource.js';
import { pageOverflow } from './overflow/page-overflow.js';
import { pictureBroken } from './media/picture-broken.js';
import { pictureOversized } from './media/picture-oversized.js';
import { pictureSoft } from './media/picture-soft.js';
import { pictureStretched } from './media/picture-stretched.js';
import type { Rule } from './rule.js';
import { smallTarget } from './touch/small-target.js';
import { smallText } from './legibility/small-text.js';
import { textClipped } from './clipped/text-clipped.js';
import { textOverlap } from './overlap/text-overlap.js';
import { tightLines } from './legibility/tight-lines.js';
import { unreachable } from './clipped/unreachable.js';
import { viewportFixed } from './viewport/viewport-fixed.js';
import { viewportMissing } from './viewport/viewport-missing.js';
import { zoomLocked } from './viewport/zoom-locked.js';

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
  brokenWords,
  tightLines,
  longLines,
  hoverOnly,
  smallTarget,
  loneItem,
  entryWraps,
  labelWraps,
];
