import { clippedSightings } from '../../sightings/clipped.js';
import { squeezedThings } from '../../sightings/squeezed-things.js';
import type { Rule } from '../rule.js';

/** A control or a picture is cut off. How it measures and what it leaves alone: docs/rules/control-clipped.md. */
export const controlClipped: Rule = {
  meta: {
    name: 'control-clipped',
    family: 'clipped',
    severity: 'error',
    summary: "a control or a picture's essential part is cut off",
  },
  check: (render) => [...clippedSightings(render, 'control'), ...squeezedThings(render)],
};
