import type { Rect } from '../core/geometry/rect.js';
import type { Device } from '../core/profile/profile.js';
import { BODIES, screenParts } from '../core/profile/screen-parts.js';
import type { PictureFormat } from '../engine/job.js';

const BODY = '#3a3f45';
const BAR = '#d5d8dc';

/** A picture of a first screen with a plain device drawn round it, its own bars as neutral blocks; clear beside it. */
export async function framed(picture: Buffer, device: Device, format: PictureFormat): Promise<Buffer> {
  const { default: sharp } = await import('sharp');
  const { screen, viewport, bars } = screenParts(device);
  const { around, radius } = BODIES[device.class];
  const { width: pixels } = await sharp(picture).metadata();
  const scale = pixels / device.width;
  const size = {
    width: Math.round((screen.width + 2 * around) * scale),
    height: Math.round((screen.height + 2 * around) * scale),
  };
  const bar = ({ x, y, width, height }: Rect) =>
    `<rect x="${(x + around) * scale}" y="${(y + around) * scale}" width="${width * scale}" height="${height * scale}" fill="${BAR}"/>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${size.width}" height="${size.height}"><rect width="100%" height="100%" rx="${radius * scale}" fill="${BODY}"/>${bars.map(bar).join('')}</svg>`;
  const whole = sharp({ create: { ...size, channels: 4, background: '#00000000' } }).composite([
    { input: Buffer.from(svg), left: 0, top: 0 },
    {
      input: picture,
      left: Math.round((viewport.x + around) * scale),
      top: Math.round((viewport.y + around) * scale),
    },
  ]);
  return format === 'png'
    ? whole.png({ compressionLevel: 3 }).toBuffer()
    : whole.webp({ quality: 90 }).toBuffer();
}
