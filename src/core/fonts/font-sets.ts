import type { Platform } from '../profile/profile.js';

/**
 * What a page gets when it asks for a family by name, by platform. A family that stands in no list is not on the device:
 * the browser goes on to the next name of the page's list, as it would there. What is exact and what is a stand-in is
 * told in docs/fonts.md.
 */

export const FONT_SETS = ['apple', 'android', 'windows', 'linux'] as const;
export type FontSetName = (typeof FONT_SETS)[number];

export interface FontSet {
  /** The family for `system-ui` and its kin. */
  readonly ui: string;
  readonly sans: string;
  readonly serif: string;
  readonly mono: string;
  /** Families that are the platform's own, or of equal metrics: text comes out as wide as on the device. */
  readonly exact: Readonly<Record<string, string>>;
  /** Families that the platform has and this set has not: the nearest one instead. */
  readonly standIns: Readonly<Record<string, string>>;
}

/** Metric-equal replacements: Liberation's successors by the Croscore project, Gelasio and Carlito. */
const MICROSOFT_CORE = {
  Arial: 'Arimo',
  'Times New Roman': 'Tinos',
  'Courier New': 'Cousine',
  Georgia: 'Gelasio',
} as const;

const APPLE_UI = [
  '-apple-system',
  'BlinkMacSystemFont',
  'SF Pro',
  'SF Pro Text',
  'SF Pro Display',
  'San Francisco',
];

const all = (families: readonly string[], font: string) =>
  Object.fromEntries(families.map((family) => [family, font]));

export const FONT_SET: Readonly<Record<FontSetName, FontSet>> = {
  apple: {
    ui: 'Inter',
    sans: 'Arimo',
    serif: 'Tinos',
    mono: 'Cousine',
    exact: {
      ...MICROSOFT_CORE,
      Helvetica: 'Arimo',
      'Helvetica Neue': 'Arimo',
      Times: 'Tinos',
      Courier: 'Cousine',
    },
    standIns: {
      ...all(APPLE_UI, 'Inter'),
      Verdana: 'DejaVu Sans',
      Tahoma: 'DejaVu Sans',
      Geneva: 'DejaVu Sans',
      'Lucida Grande': 'DejaVu Sans',
      'Trebuchet MS': 'Open Sans',
      Avenir: 'Open Sans',
      'Avenir Next': 'Open Sans',
      'Gill Sans': 'Open Sans',
      Optima: 'Open Sans',
      Palatino: 'Gelasio',
      Baskerville: 'Tinos',
      Menlo: 'DejaVu Sans Mono',
      Monaco: 'DejaVu Sans Mono',
      'SF Mono': 'Roboto Mono',
    },
  },
  android: {
    ui: 'Roboto',
    sans: 'Roboto',
    serif: 'Tinos',
    mono: 'Cousine',
    // Android itself answers these names with its own sans-serif.
    exact: {
      ...all(['Roboto', 'Arial', 'Helvetica', 'Tahoma', 'Verdana'], 'Roboto'),
      'Roboto Mono': 'Roboto Mono',
      'Noto Sans': 'Noto Sans',
    },
    standIns: {
      ...all(['Courier New', 'Courier', 'Monaco'], 'Cousine'),
      ...all(['Noto Serif', 'Times New Roman', 'Times', 'Georgia', 'Palatino', 'Baskerville'], 'Tinos'),
    },
  },
  windows: {
    ui: 'Open Sans',
    sans: 'Arimo',
    serif: 'Tinos',
    mono: 'Cousine',
    exact: { ...MICROSOFT_CORE, Helvetica: 'Arimo', Times: 'Tinos', Courier: 'Cousine', Calibri: 'Carlito' },
    standIns: {
      ...all(['Segoe UI', 'Segoe UI Variable', 'Segoe UI Semibold', 'Segoe UI Light'], 'Open Sans'),
      Verdana: 'DejaVu Sans',
      Tahoma: 'DejaVu Sans',
      'Lucida Sans Unicode': 'DejaVu Sans',
      'Trebuchet MS': 'Open Sans',
      Candara: 'Carlito',
      Corbel: 'Carlito',
      Cambria: 'Gelasio',
      Constantia: 'Gelasio',
      'Palatino Linotype': 'Gelasio',
      'Book Antiqua': 'Gelasio',
      Consolas: 'Cousine',
      'Lucida Console': 'Cousine',
      'Cascadia Code': 'Cousine',
    },
  },
  linux: {
    ui: 'Noto Sans',
    sans: 'Arimo',
    serif: 'Tinos',
    mono: 'Cousine',
    exact: {
      ...MICROSOFT_CORE,
      Helvetica: 'Arimo',
      Times: 'Tinos',
      Courier: 'Cousine',
      Calibri: 'Carlito',
      'Liberation Sans': 'Arimo',
      'Liberation Serif': 'Tinos',
      'Liberation Mono': 'Cousine',
      'Noto Sans': 'Noto Sans',
      'DejaVu Sans': 'DejaVu Sans',
      'DejaVu Sans Mono': 'DejaVu Sans Mono',
      'Open Sans': 'Open Sans',
    },
    standIns: { Ubuntu: 'Open Sans', Cantarell: 'Open Sans', Verdana: 'DejaVu Sans' },
  },
};

const BY_PLATFORM: Readonly<Record<Platform, FontSetName>> = {
  ios: 'apple',
  mac: 'apple',
  android: 'android',
  tv: 'android',
  chromeos: 'android',
  windows: 'windows',
  linux: 'linux',
};

export function fontSetOf(platform: Platform): FontSetName {
  return BY_PLATFORM[platform];
}

export const GENERIC_FAMILIES = [
  'serif',
  'sans-serif',
  'monospace',
  'cursive',
  'fantasy',
  'system-ui',
  'ui-sans-serif',
  'ui-serif',
  'ui-monospace',
  'ui-rounded',
  'emoji',
  'math',
  'fangsong',
] as const;
