import pLimit from 'p-limit';
import type { Sharp } from 'sharp';
import type { Finding } from '../core/findings/finding.js';
import { intersect, type Rect } from '../core/geometry/rect.js';
import type { Device } from '../core/profile/profile.js';
import { widthClass } from '../core/profile/width-class.js';
import { messageOf } from '../core/errors.js';
import { findingRecord } from './finding-record.js';
import type { FindingRecord, RenderRecord } from './manifest.js';
import type { RunFolder } from './run-folder.js';
import { fileName } from './file-name.js';

/**
 * Of which sightings a crop is written. `classes`: of errors and warnings, one for each class of widths, the farthest of it;
 * every other place is shown on the full picture.
 */
export const EVIDENCE = ['classes', 'every', 'none'] as const;
export type EvidenceChoice = (typeof EVIDENCE)[number];

const MARGIN = 24;
const MAX_SIDE = 900;
const STROKE = '#d6224a';
/** Pictures that are held decoded at once. */
const AT_ONCE = 2;

/** Writes crops round the defects of a page, each of its pictures read once, and gives the findings with their paths. */
export async function withEvidence(
  findings: readonly Finding[],
  renders: readonly RenderRecord[],
  devices: readonly Device[],
  choice: EvidenceChoice,
  folder: RunFolder,
): Promise<FindingRecord[]> {
  const classes = new Map(devices.map(({ name, width }) => [name, widthClass(width)]));
  const shots = new Map(renders.map(({ page, profile, shots: { full } }) => [`${page}\n${profile}`, full]));
  /** What is cut out of each picture. */
  const wanted = new Map<
    string,
    { readonly path: string; readonly rect: Rect; readonly done: () => void }[]
  >();
  const records = findings.map((finding) => {
    const chosen = chosenOf(finding, choice, (profile) => classes.get(profile) ?? '');
    const seen: FindingRecord['seen'] = finding.seen.map((sighting) => ({ ...sighting }));
    for (const at of chosen) {
      const { page, profile, rect } = seen[at]!;
      const shot = shots.get(`${page}\n${profile}`);
      if (shot === undefined) continue;
      const state = page === finding.page ? '' : `-${page}`;
      const path = `evidence/${finding.id}${state}-${fileName(profile)}.png`;
      const list = wanted.get(shot) ?? [];
      wanted.set(shot, list);
      list.push({ path, rect, done: () => (seen[at]!.evidence = path) });
    }
    return findingRecord(finding, seen);
  });
  const limit = pLimit(AT_ONCE);
  await Promise.all(
    [...wanted].map(([shot, crops]) =>
      limit(async () => {
        const picture = await decoded(folder.full(shot)).catch(() => null);
        if (!picture) return;
        const failures: string[] = [];
        for (const { path, rect, done } of crops) {
          const crop = await cropOf(picture, rect).catch(() => null);
          if (!crop) continue;
          await folder.write(path, crop).then(done, (error: unknown) => failures.push(messageOf(error)));
        }
        const [failure] = failures;
        const notes = renders.find((render) => render.shots.full === shot)?.notes;
        if (failure !== undefined) notes?.push(`its evidence could not be written: ${failure}`);
      }),
    ),
  );
  return records;
}

function chosenOf(
  { severity, seen }: Finding,
  choice: EvidenceChoice,
  classOf: (profile: string) => string,
): number[] {
  if (choice === 'every') return seen.map((_, at) => at);
  if (choice === 'none' || severity === 'notice') return [];
  const farthest = new Map<string, number>();
  for (const [at, { profile, by }] of seen.entries()) {
    const known = farthest.get(classOf(profile));
    if (known === undefined || (by?.px ?? 0) > (seen[known]!.by?.px ?? 0)) farthest.set(classOf(profile), at);
  }
  return [...farthest.values()];
}

/** Loads what cuts pictures while there is nothing else to do. */
export function prepareEvidence(): void {
  void import('sharp');
}

interface Picture {
  readonly width: number;
  readonly height: number;
  readonly pixels: () => Sharp;
}

async function decoded(file: string): Promise<Picture> {
  const { default: sharp } = await import('sharp');
  const { data, info } = await sharp(file).raw().toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  return { width, height, pixels: () => sharp(data, { raw: { width, height, channels } }) };
}

/**
 * A crop of a full shot round a defect, with the defect outlined, as PNG at one picture pixel a CSS px.
 * @param shot path of the full shot
 * @param rect the defect, CSS px from the page's top left
 * @returns null when the defect lies outside the picture
 */
export async function evidenceCrop(shot: string, rect: Rect): Promise<Buffer | null> {
  return cropOf(await decoded(shot), rect);
}

async function cropOf({ width, height, pixels }: Picture, rect: Rect): Promise<Buffer | null> {
  const picture = { x: 0, y: 0, width, height };
  const defect = intersect(rect, picture);
  if (!defect) return null;
  const area = intersect(around(defect), picture);
  if (!area) return null;
  const crop = {
    left: Math.floor(area.x),
    top: Math.floor(area.y),
    width: Math.min(width - Math.floor(area.x), Math.ceil(area.width)),
    height: Math.min(height - Math.floor(area.y), Math.ceil(area.height)),
  };
  const outline = `<svg xmlns="http://www.w3.org/2000/svg" width="${crop.width}" height="${crop.height}">
    <rect x="${defect.x - crop.left}" y="${defect.y - crop.top}" width="${defect.width}" height="${defect.height}"
      fill="none" stroke="${STROKE}" stroke-width="3"/></svg>`;
  return pixels()
    .extract(crop)
    .composite([{ input: Buffer.from(outline), left: 0, top: 0 }])
    .png()
    .toBuffer();
}

/** The defect with a margin; of a very large one, its top left part. */
function around(rect: Rect): Rect {
  return {
    x: rect.x - MARGIN,
    y: rect.y - MARGIN,
    width: Math.min(rect.width + 2 * MARGIN, MAX_SIDE),
    height: Math.min(rect.height + 2 * MARGIN, MAX_SIDE),
  };
}
