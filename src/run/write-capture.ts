import { messageOf } from '../core/errors.js';
import type { Rect } from '../core/geometry/rect.js';
import { SnapshotView } from '../core/layout/view.js';
import type { Device } from '../core/profile/profile.js';
import type { Capture, RenderOutcome } from '../engine/job.js';
import type { CapturedPage } from './captures.js';
import type { Shot } from '../engine/page-session.js';
import { pictureFile, WEBP_SIDE } from '../engine/picture-file.js';
import { framed } from './framed.js';
import type { RenderRecord } from './manifest.js';
import { previewScale } from './preview-scale.js';
import { fileName } from './file-name.js';
import type { RunFolder } from './run-folder.js';
import { svgOf, svgRect } from './svg.js';

/** What masked parts are painted with: a grey that is seen to be neither the page's light nor its dark. */
const MASK = '#7d7f86';

export interface CaptureOptions {
  /** Whether a small picture of the whole page is written, too. */
  readonly withPreview: boolean;
  /** Whether the first screen is also written with a device round it. */
  readonly framed: boolean;
}

/** Writes the pictures of one capture and gives its record. Of pictures that can't be written it says so: what was found is told all the same. */
export async function writeCapture(
  page: CapturedPage,
  device: Device,
  outcome: RenderOutcome,
  mask: readonly string[],
  folder: RunFolder,
  options: CaptureOptions,
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
      const shot = capture.shots[kind];
      if (!shot) continue;
      const picture = await covered(shot, masked, viewIn(kind, capture, device));
      const path = `${base}.${kind}.${shot.format}`;
      record.shots[kind] = await folder.write(path, picture);
      if (kind === 'full' && options.withPreview)
        record.shots.preview = await folder.write(
          `${base}.preview.webp`,
          await previewOf(picture, widthOf(capture)),
        );
      if (kind === 'fold' && options.framed)
        record.shots.framed = await folder.write(
          `${base}.framed.${shot.format}`,
          await framed(picture, device, shot.format),
        );
    }
    return record;
  } catch (error) {
    record.notes.push(`its pictures could not be written: ${messageOf(error)}`);
    return record;
  }
}

async function previewOf(picture: Buffer, pageWidth: number): Promise<Buffer> {
  const { default: sharp } = await import('sharp');
  const { width, height } = await sharp(picture, { limitInputPixels: false }).metadata();
  const scale = (previewScale(pageWidth) * pageWidth) / width;
  return sharp(picture, { limitInputPixels: false })
    .resize(Math.ceil(width * scale), Math.min(WEBP_SIDE, Math.ceil(height * scale)), { fit: 'fill' })
    .webp({ quality: 80, effort: 1 })
    .toBuffer();
}

/** CSS px. */
function widthOf({ snapshot: { document, viewport } }: Capture): number {
  return Math.max(document.width, viewport.width);
}

/** Which part of the page a picture shows: its top left in CSS px, and its pixels a CSS px; null for as many as its width says. */
interface PictureView {
  readonly x: number;
  readonly y: number;
  readonly scale: number | null;
  readonly width: number;
}

function viewIn(kind: 'fold' | 'full', capture: Capture, device: Device): PictureView {
  const { scroll, viewport } = capture.snapshot;
  const width = widthOf(capture);
  // Full pictures begin at the page's top left.
  return kind === 'fold'
    ? { ...scroll, scale: device.dpr * viewport.scale, width }
    : { x: 0, y: 0, scale: null, width };
}

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

async function covered({ file, format }: Shot, masked: readonly Rect[], view: PictureView): Promise<Buffer> {
  if (masked.length === 0) return file;
  const { default: sharp } = await import('sharp');
  const { width, height } = await sharp(file, { limitInputPixels: false }).metadata();
  const scale = view.scale ?? width / view.width;
  const rects = masked.map((rect) => {
    const place = {
      x: (rect.x - view.x) * scale,
      y: (rect.y - view.y) * scale,
      width: rect.width * scale,
      height: rect.height * scale,
    };
    return svgRect(place, `fill="${MASK}"`);
  });
  const cover = svgOf({ width, height }, rects.join(''));
  const painted = sharp(file, { limitInputPixels: false }).composite([{ input: cover, left: 0, top: 0 }]);
  return pictureFile(painted, format);
}
