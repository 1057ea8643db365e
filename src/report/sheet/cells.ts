import { intersect, type Rect } from '../../core/geometry/rect.js';
import { deviceDrawing, type DeviceDrawing } from '../../core/profile/screen-parts.js';
import type { FindingRecord, Manifest, RenderRecord } from '../../run/manifest.js';
import { factorOf } from '../view/scale.js';
import { pictureSize, type ProfileRecord } from '../view/lineup.js';
import type { SheetOptions } from './options.js';

/** One profile of one page on a sheet: what is drawn where, px of the sheet from the cell's top left. */
export interface Cell {
  readonly profile: ProfileRecord;
  readonly render: RenderRecord;
  readonly width: number;
  readonly height: number;
  readonly pieces: readonly Piece[];
  readonly outlines: readonly { readonly rect: Rect; readonly severity: FindingRecord['severity'] }[];
  readonly frame: DeviceDrawing | null;
  /** Why there is no picture; null where there is one. */
  readonly missing: string | null;
}

/** A part of a picture. */
export interface Piece {
  /** Path in the run. */
  readonly picture: string;
  /** Of the whole picture, and where on the page it begins, CSS px. */
  readonly size: { readonly left: number; readonly width: number; readonly height: number };
  /** The part of the page that is drawn, CSS px. */
  readonly part: Rect;
  readonly place: Rect;
}

/** Between the strips of a long page. */
const STRIP_GAP = 6;
/** Where there is no element, px of the sheet. */
const MISSING = { width: 172, height: 80 };
/** Round an element, CSS px. */
const SURROUNDINGS = 32;

/** Where an element is on a render, CSS px. */
export type ElementAt = (page: string, profile: string) => Rect | 'absent' | 'unknown';

/** The cells of one page, in lineup order. */
export function cellsOf(
  manifest: Manifest,
  page: string,
  options: SheetOptions,
  elementAt: ElementAt,
): Cell[] {
  const renders = manifest.profiles.flatMap((profile) => {
    const render = manifest.renders.find((one) => one.page === page && one.profile === profile.name);
    return render ? [{ profile, render }] : [];
  });
  const shown = renders.map(({ profile, render }) => sizeOf(profile, render, options, elementAt));
  // Scales go by the screens; of an element by the element, so that the largest of them has room.
  const bodies = renders.map(({ profile }, i) => ({ ...profile, ...shown[i]! }));
  const room = { width: Infinity, height: options.height, ratio: 1 };
  return renders.map(({ profile, render }, i) => {
    const factor = factorOf(options.scale, bodies[i]!, bodies, room);
    return cellOf(manifest, profile, render, factor, options, elementAt);
  });
}

/** What decides how large a profile is drawn, CSS px. */
function sizeOf(
  profile: ProfileRecord,
  render: RenderRecord,
  { part, frame }: SheetOptions,
  elementAt: ElementAt,
) {
  if (typeof part === 'object') {
    const area = areaOf(profile, render, elementAt);
    // What is not there does not say how large the others are.
    return area ? { width: area.width, height: area.height } : { width: 1, height: 1 };
  }
  if (!frame) return { width: profile.width, height: profile.height };
  return deviceDrawing(profile, 1).body;
}

function areaOf(profile: ProfileRecord, render: RenderRecord, elementAt: ElementAt): Rect | null {
  const rect = elementAt(render.page, profile.name);
  const { left, width, height } = pictureSize(profile, render);
  if (typeof rect === 'string') return null;
  const { x, y } = rect;
  const around = {
    x: x - SURROUNDINGS,
    y: y - SURROUNDINGS,
    width: rect.width + 2 * SURROUNDINGS,
    height: rect.height + 2 * SURROUNDINGS,
  };
  return intersect(around, { x: left, y: 0, width, height });
}

function cellOf(
  manifest: Manifest,
  profile: ProfileRecord,
  render: RenderRecord,
  factor: number,
  options: SheetOptions,
  elementAt: ElementAt,
): Cell {
  const { part, marks } = options;
  const base = { profile, render, frame: null, missing: null };
  const empty = (missing: string): Cell => ({
    ...base,
    width: profile.width * factor,
    height: profile.height * factor,
    pieces: [],
    outlines: [],
    missing,
  });
  if (render.status === 'failed') return empty(render.error?.message ?? 'Not rendered.');
  const { fold, full } = render.shots;
  const size = pictureSize(profile, render);
  const screen = { x: 0, y: 0, width: profile.width, height: profile.height };
  const first = { left: 0, width: profile.width, height: profile.height };
  let pieces: Piece[];
  let frame: DeviceDrawing | null = null;
  let extent: { readonly width: number; readonly height: number };
  if (part === 'fold') {
    const picture = fold ?? full;
    if (picture === undefined) return empty('No picture was taken.');
    frame = options.frame ? deviceDrawing(profile, factor) : null;
    const place = frame?.viewport ?? {
      x: 0,
      y: 0,
      width: profile.width * factor,
      height: profile.height * factor,
    };
    extent = frame?.body ?? place;
    pieces = [{ picture, size: fold === undefined ? size : first, part: screen, place }];
  } else if (part === 'full') {
    if (full === undefined) return empty('No picture of the whole page was taken.');
    pieces = strips(full, size, factor, options.height);
    const last = pieces.at(-1)!;
    extent = {
      width: last.place.x + last.place.width,
      height: Math.max(...pieces.map(({ place }) => place.height)),
    };
  } else {
    if (full === undefined) return empty('No picture of the whole page was taken.');
    const area = areaOf(profile, render, elementAt);
    if (!area) {
      const isUnknown = elementAt(render.page, profile.name) === 'unknown';
      const missing = isUnknown ? 'Not known: the run kept no layouts.' : 'It is not there.';
      return { ...base, ...MISSING, pieces: [], outlines: [], missing };
    }
    extent = { width: area.width * factor, height: area.height * factor };
    pieces = [{ picture: full, size, part: area, place: { x: 0, y: 0, ...extent } }];
  }
  return {
    ...base,
    width: extent.width,
    height: extent.height,
    pieces,
    frame,
    outlines: marks ? outlinesOn(manifest, render, pieces) : [],
  };
}

/** A long page in strips of the sheet's height, side by side. */
function strips(picture: string, size: Piece['size'], factor: number, height: number): Piece[] {
  const most = height / factor;
  const count = Math.max(1, Math.ceil(size.height / most));
  return Array.from({ length: count }, (_, i) => {
    const part = {
      x: size.left,
      y: i * most,
      width: size.width,
      height: Math.min(most, size.height - i * most),
    };
    const place = {
      x: i * (size.width * factor + STRIP_GAP),
      y: 0,
      width: size.width * factor,
      height: part.height * factor,
    };
    return { picture, size, part, place };
  });
}

function outlinesOn(
  { findings }: Manifest,
  render: RenderRecord,
  pieces: readonly Piece[],
): Cell['outlines'] {
  return findings
    .filter(({ waived }) => !waived)
    .flatMap(({ severity, seen }) =>
      seen
        .filter((one) => one.page === render.page && one.profile === render.profile)
        .flatMap(({ rect }) =>
          pieces.flatMap(({ part, place }) => {
            const common = intersect(rect, part);
            if (!common) return [];
            const factor = place.width / part.width;
            return [
              {
                severity,
                rect: {
                  x: place.x + (common.x - part.x) * factor,
                  y: place.y + (common.y - part.y) * factor,
                  width: common.width * factor,
                  height: common.height * factor,
                },
              },
            ];
          }),
        ),
    );
}
