import { messageOf } from '../core/errors.js';
import type { Rect } from '../core/geometry/rect.js';
import { SnapshotView } from '../core/layout/view.js';
import type { Device } from '../core/profile/profile.js';
import type { Capture, RenderOutcome } from '../engine/job.js';
import type { CapturedPage } from './captures.js';
import type { RenderRecord } from './manifest.js';
import { previewScale } from './preview-scale.js';
import { fileName } from './file-name.js';
import type { RunFolder } from './run-folder.js';

/** What masked parts are painted with: a grey that is seen to be neither the page's light nor its dark. */
const MASK = '#7d7f86';

/** Writes the pictures of one capture and gives its record. Of pictures that can't be written it says so: what was found is told all the same. */
export async function writeCapture(
  page: CapturedPage,
  device: Device,
  outcome: RenderOutcome,
  mask: readonly string[],
  folder: RunFolder,
  withPreview: boolean,
): Promise<RenderRecord> {
  const capture = outcome.captures.find(({ state }) => state === page.state);
  const record = recordOf(page, device, outcome, capture);
  try {
    const base = `shots/${page.id}/${fileName(device.name)}`;
    if (!capture) {
      if (outcome.status === 'failed' && outcome.picture) {
        record.shots.failed = await folder.write(`${base}.failed.png`, outcome.picture);
      }
      return record;
    }
    const masked = mask.length > 0 ? maskedRects(capture, mask) : [];
    for (const kind of ['fold', 'full'] as const) {
      const png = capture.shots[kind];
      if (!png) continue;
      const { scroll } = capture.snapshot;
      const view =
        kind === 'fold' ? { scale: device.dpr * capture.snapshot.viewport.scale, ...scroll } : WHOLE;
      const covers = masked.map((rect) => ({
        x: (rect.x - view.x) * view.scale,
        y: (rect.y - view.y) * view.scale,
        width: rect.width * view.scale,
        height: rect.height * view.scale,
      }));
      const picture = await covered(png, covers);
      record.shots[kind] = await folder.write(`${base}.${kind}.png`, picture);
      if (withPreview && kind === 'full')
        record.shots.preview = await folder.write(`${base}.preview.webp`, await previewOf(picture));
    }
    return record;
  } catch (error) {
    record.notes.push(`its pictures could not be written: ${messageOf(error)}`);
    return record;
  }
}

async function previewOf(picture: Buffer): Promise<Buffer> {
  const { default: sharp } = await import('sharp');
  const { width, height } = await sharp(picture).metadata();
  const scale = previewScale(width);
  return sharp(picture)
    .resize(Math.ceil(width * scale), Math.ceil(height * scale), { fit: 'fill' })
    .webp({ quality: 80, effort: 1 })
    .toBuffer();
}

/** Full pictures have one pixel a CSS px and begin at the page's top left. */
const WHOLE = { scale: 1, x: 0, y: 0 };

function recordOf(
  page: CapturedPage,
  device: Device,
  outcome: RenderOutcome,
  capture: Capture | undefined,
): RenderRecord {
  const failed = outcome.status === 'failed' ? outcome.error : null;
  return {
    page: page.id,
    profile: device.name,
    status: capture ? 'ok' : 'failed',
    finalUrl: outcome.finalUrl,
    httpStatus: outcome.httpStatus,
    error: capture ? null : (failed ?? { code: 'not-reached', message: 'The state was not reached.' }),
    document: capture?.snapshot.document ?? null,
    timings: { ...outcome.timings },
    shots: {},
    notes: [...outcome.notes],
    delivery: structuredClone(outcome.delivery) as RenderRecord['delivery'],
  };
}

function maskedRects({ snapshot }: Capture, mask: readonly string[]): Rect[] {
  const view = new SnapshotView(snapshot);
  return snapshot.matches
    .filter(({ selector }) => mask.includes(selector))
    .flatMap(({ nodes }) => nodes.filter((node) => view.isRendered(node)).map((node) => view.box(node)));
}

async function covered(png: Buffer, covers: readonly Rect[]): Promise<Buffer> {
  if (covers.length === 0) return png;
  const { default: sharp } = await import('sharp');
  const { width, height } = await sharp(png).metadata();
  const rects = covers.map(
    (rect) =>
      `<rect x="${rect.x}" y="${rect.y}" width="${rect.width}" height="${rect.height}" fill="${MASK}"/>`,
  );
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${rects.join('')}</svg>`;
  return sharp(png)
    .composite([{ input: Buffer.from(svg), left: 0, top: 0 }])
    .png({ compressionLevel: 1 })
    .toBuffer();
}
