import type { Device } from '../../src/core/profile/profile.js';

export function deviceOf(width: number, mobile = false, name = `test-${width}`): Device {
  return {
    name,
    class: 'window',
    platform: 'linux',
    width,
    height: 800,
    screen: { width, height: 800 },
    dpr: 1,
    density: null,
    orientation: 'portrait',
    orientationType: 'portrait-primary',
    angle: 0,
    touchPoints: 0,
    mobile,
    insets: { top: 0, right: 0, bottom: 0, left: 0 },
    scrollBars: 'classic',
    conditions: {},
    agent: { userAgent: 'test', navigatorPlatform: 'test', vendor: 'test', hints: null },
  };
}
