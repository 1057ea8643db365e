import { clippedSightings, cutDoubts } from '../../sightings/clipped.js';
import type { Rule } from '../rule.js';

/** Letters or lines are cut off. How it measures and what it leaves alone: docs/rules/text-clipped.md. */
export const textClipped: Rule = {
  meta: {
    name: 'text-clipped',
    family: 'clipped',
    severity: 'error',
    summary: 'letters or lines are cut off',
  },
  check: (render) => clippedSightings(render, 'text'),
  doubts: cutDoubts,
};
