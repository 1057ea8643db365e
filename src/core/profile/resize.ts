import type { Device, Size } from './profile.js';

/**
 * A device with another viewport and all else as it was, as a window is that its user drags: its orientation follows, and
 * its screen grows where the window would not fit. Sizes are CSS px.
 */
export function resizedDevice(device: Device, { width, height }: Size): Device {
  const orientation = width > height ? 'landscape' : 'portrait';
  return {
    ...device,
    width,
    height,
    orientation,
    orientationType: orientation === device.orientation ? device.orientationType : `${orientation}-primary`,
    screen: {
      width: Math.max(width, device.screen.width),
      height: Math.max(height, device.screen.height),
    },
  };
}
