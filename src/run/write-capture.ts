import { availableParallelism } from 'node:os';
import pLimit from 'p-limit';
import { messageOf } from '../core/errors.js';
import type { Device } from '../core/profile/profile.js';
import type { Capture, RenderOutcome } from '../engine/job.js';
import type { CapturedPage } from './captures.js';
import { WEBP_SIDE } from '../engine/picture-file.js';
import { loadSharp } from '../engine/load-sharp.js';
import { framed } from './framed.js';
import type { RenderRecord } from './manifest.js';
import { covered, maskedRects, type PictureView } from './masked.js';
import { previewScale } from './preview-scale.js';
import { fileName } from './file-name.js';
import type { RunFolder } from './run-folder.js';

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
    const masked = maskedRects(capture.snapshot, mask);
    for (const kind of ['fold', 'full'] as const) {
      const shot = capture.shots[kind];
      if (!shot) continue;
      const picture = await covered(shot, masked, viewIn(kind, capture, device));
      const path = `${base}.${kind}.${shot.format}`;
      record.shots[kind] = await folder.write(path, picture);
      if (kind === 'full' && options.withPreview)
        record.shots.preview = await folder.write(
          `${base}.preview.webp`,
          await previews(() => previewOf(picture, widthOf(capture))),
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

/** Small pictures that are made at once: each thread that works on one keeps memory of its own for good. */
const previews = pLimit(Math.ceil(availableParallelism() / 2));

async function previewOf(picture: Buffer, pageWidth: number): Promise<Buffer> {
  const sharp = await loadSharp();
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

function viewIn(kind: 'fold' | 'full', capture: Capture, device: Device): PictureView {
  const { scroll, viewport } = capture.snapshot;
  const width = widthOf(capture);
  return kind === 'fold'
    ? { ...scroll, scale: device.dpr * viewport.scale, width }
    : { x: capture.snapshot.document.left ?? 0, y: 0, scale: null, width };
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
