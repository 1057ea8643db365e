import type { Device } from '../core/profile/profile.js';
import { deviceDrawing } from '../core/profile/screen-parts.js';
import type { PictureFormat } from '../engine/shot.js';
import { pictureFile } from '../engine/picture-file.js';
import { loadSharp } from '../engine/load-sharp.js';
import { svgOf, svgRect } from './svg.js';

const BODY = '#3a3f45';
const BAR = '#d5d8dc';

/** A picture of a first screen with a plain device drawn round it, its own bars as neutral blocks; clear beside it. */
export async function framed(picture: Buffer, device: Device, format: PictureFormat): Promise<Buffer> {
  const sharp = await loadSharp();
  const { width: pixels } = await sharp(picture).metadata();
  const { body, radius, bars, viewport } = deviceDrawing(device, pixels / device.width);
  const size = { width: Math.round(body.width), height: Math.round(body.height) };
  const drawing = svgOf(
    size,
    `<rect width="100%" height="100%" rx="${radius}" fill="${BODY}"/>${bars.map((bar) => svgRect(bar, `fill="${BAR}"`)).join('')}`,
  );
  const whole = sharp({ create: { ...size, channels: 4, background: '#00000000' } }).composite([
    { input: drawing, left: 0, top: 0 },
    { input: picture, left: Math.round(viewport.x), top: Math.round(viewport.y) },
  ]);
  return pictureFile(whole, format);
}
