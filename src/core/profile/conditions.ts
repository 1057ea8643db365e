import type { z } from 'zod';
import type { conditionsSchema, networkSchema } from './conditions-schema.js';

export type Network = z.infer<typeof networkSchema>;
export type Conditions = z.infer<typeof conditionsSchema>;

export const NETWORKS = {
  offline: { latencyMs: 0, downKbps: 0, upKbps: 0 },
  'edge-of-coverage': { latencyMs: 800, downKbps: 60, upKbps: 40 },
  'slow-mobile': { latencyMs: 400, downKbps: 400, upKbps: 200 },
  mobile: { latencyMs: 150, downKbps: 1600, upKbps: 750 },
  'fast-mobile': { latencyMs: 60, downKbps: 9000, upKbps: 3000 },
  broadband: { latencyMs: 20, downKbps: 30000, upKbps: 10000 },
} as const;

/** The keys of `Conditions`. */
const CONDITIONS = Object.keys({
  scheme: true,
  reducedMotion: true,
  contrast: true,
  forcedColors: true,
  media: true,
  zoom: true,
  textScale: true,
  locale: true,
  timezone: true,
  network: true,
  cpuSlowdown: true,
} satisfies Record<keyof Conditions, true>) as (keyof Conditions)[];

/** The later ones win, key by key. */
export function mergeConditions(...all: readonly Conditions[]): Conditions {
  const merged: Record<string, unknown> = {};
  for (const conditions of all) {
    for (const key of CONDITIONS) if (conditions[key] !== undefined) merged[key] = conditions[key];
  }
  return merged;
}
