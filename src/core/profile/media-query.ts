import type { Device } from './profile.js';

/**
 * The media query that addresses exactly this device class: its width and height of viewport, its pixel ratio, and how
 * its user points (Media Queries 4). Sizes are CSS px.
 */
export function mediaQueryOf(device: Device): string {
  const touch = device.touchPoints > 0;
  return [
    'screen',
    `(width: ${device.width}px)`,
    `(height: ${device.height}px)`,
    `(resolution: ${Math.round(device.dpr * 1000) / 1000}dppx)`,
    `(orientation: ${device.width > device.height ? 'landscape' : 'portrait'})`,
    `(hover: ${touch ? 'none' : 'hover'})`,
    `(pointer: ${touch ? 'coarse' : 'fine'})`,
  ].join(' and ');
}
