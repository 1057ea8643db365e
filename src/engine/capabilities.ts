import type { Device } from '../core/profile/profile.js';
import type { ShotKinds } from './shot.js';

/** What an engine can do with a page beside laying it out and telling its layout. */
export const FEATURES = [
  'pictures',
  'frames',
  'print',
  'input',
  'declarations',
  'mobile-viewport',
  'pixel-ratio',
  'touch',
  'user-agent',
  'client-hints',
  'insets',
  'color-scheme',
  'reduced-motion',
  'contrast',
  'forced-colors',
  'media-type',
  'locale',
  'timezone',
  'text-scale',
  'cpu-slowdown',
  'network',
] as const;
export type Feature = (typeof FEATURES)[number];

export type Capabilities = ReadonlySet<Feature>;

/** What a profile or a job asks for and an engine can't do, in words; a render says so in its notes. */
export function unmetNotes(
  engine: string,
  capabilities: Capabilities,
  device: Device,
  shots: ShotKinds,
): string[] {
  const { agent, conditions, insets } = device;
  const asked: Partial<Record<Feature, boolean>> = {
    pictures: shots.fold || shots.full,
    'mobile-viewport': device.mobile,
    'pixel-ratio': device.dpr !== 1,
    touch: device.touchPoints > 0,
    'user-agent': true,
    'client-hints': agent.hints !== null,
    insets: Object.values(insets).some((inset) => inset > 0),
    'color-scheme': conditions.scheme === 'dark',
    'reduced-motion': conditions.reducedMotion === true,
    contrast: conditions.contrast !== undefined,
    'forced-colors': conditions.forcedColors === true,
    'media-type': conditions.media === 'print',
    locale: conditions.locale !== undefined,
    timezone: conditions.timezone !== undefined,
    'text-scale': (conditions.textScale ?? 1) !== 1,
    'cpu-slowdown': (conditions.cpuSlowdown ?? 1) > 1,
    network: conditions.network !== undefined,
  };
  const missing = FEATURES.filter((feature) => asked[feature] === true && !capabilities.has(feature));
  return missing.map((feature) => `${engine} can't do this: ${feature.replaceAll('-', ' ')}`);
}
