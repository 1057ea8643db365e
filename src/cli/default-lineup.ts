import type { Pick } from '../core/profile/pick.js';

/** What a check uses when no profile is picked: two phones, two tablets, a laptop and a desktop. */
export const DEFAULT_LINEUP: readonly Pick[] = [
  { on: 'android-phone-360' },
  { on: 'ios-phone-390' },
  { on: 'android-tablet-800' },
  { on: 'ios-tablet-820' },
  { on: 'windows-laptop-1366' },
  { on: 'mac-desktop-1728' },
];
