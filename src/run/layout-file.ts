import { readFile } from 'node:fs/promises';
import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { NO_DELIVERY } from '../core/delivery/delivery.js';
import { IsopticError, messageOf } from '../core/errors.js';
import { fromWire, toWire, type WireSnapshot } from '../core/layout/wire.js';
import { SnapshotView } from '../core/layout/view.js';
import type { RenderView } from '../core/sightings/sighting.js';
import type { Redact } from './plan.js';
import type { RunFolder } from './run-folder.js';
import { fileName } from './file-name.js';

/** 2: with the words and addresses that comparing goes by. */
const VERSION = 2;

/** One render as it is kept: all that a rule looks at. */
interface LayoutFile extends Omit<RenderView, 'view'> {
  readonly format: 'isoptic-layout';
  readonly version: typeof VERSION;
  readonly snapshot: WireSnapshot;
}

export function layoutPath(page: string, profile: string): string {
  return `layouts/${page}/${fileName(profile)}.json.gz`;
}

/** @param redact a layout holds the page's text and what stands in its fields */
export async function writeLayout(
  folder: RunFolder,
  { view, ...render }: RenderView,
  redact: Redact,
): Promise<string> {
  const file: LayoutFile = {
    format: 'isoptic-layout',
    version: VERSION,
    ...render,
    snapshot: withoutSecrets(toWire(view.snapshot), redact),
  };
  const packed = await promisify(gzip)(
    JSON.stringify({ ...redact({ ...file, snapshot: null }), snapshot: file.snapshot }),
  );
  return folder.write(layoutPath(render.page, render.device.name), packed);
}

/** Words of the page may be secret; names and styles, which stand among the same strings, are not. */
function withoutSecrets(wire: WireSnapshot, redact: Redact): WireSnapshot {
  const strings = [...wire.strings];
  const cleaned = new Map<number, number>();
  const clean = (number: number): number => {
    const known = cleaned.get(number);
    if (known !== undefined) return known;
    const text = strings[number] ?? '';
    const without = redact(text);
    const at = without === text ? number : strings.push(without) - 1;
    cleaned.set(number, at);
    return at;
  };
  const text = wire.lines.text.map(clean);
  const { tag, id, classes } = wire.nodes;
  const texts = wire.texts.map((number, at) => (at % 3 === 1 ? clean(number) : number));
  const sources = wire.sources.map((number, at) => (at % 2 === 1 ? clean(number) : number));
  const settings = wire.texts.filter((_, at) => at % 3 === 2);
  const names = new Set([...tag, ...id, ...classes, ...wire.styles, ...settings]);
  const isGone = (number: number) => (cleaned.get(number) ?? number) !== number && !names.has(number);
  const { url, title, brokenPictures } = wire;
  return {
    ...wire,
    url: redact(url),
    title: redact(title),
    brokenPictures: brokenPictures.map((picture) => ({ ...picture, url: redact(picture.url) })),
    strings: strings.map((string, number) => (isGone(number) ? '' : string)),
    lines: { ...wire.lines, text },
    texts,
    sources,
  };
}

/** A layout file without what is another one in every run: how long the network took. */
export async function steadyLayout(packed: Buffer): Promise<Buffer> {
  const file = JSON.parse((await promisify(gunzip)(packed)).toString('utf8')) as LayoutFile;
  return promisify(gzip)(JSON.stringify({ ...file, delivery: NO_DELIVERY }));
}

/** @throws IsopticError `no-layout` */
export async function readLayout(path: string): Promise<RenderView> {
  try {
    const text = (await promisify(gunzip)(await readFile(path))).toString('utf8');
    const file = JSON.parse(text) as LayoutFile;
    if ((file.format as string) !== 'isoptic-layout' || (file.version as number) !== VERSION)
      throw new Error('it is of another format, as another version of Isoptic wrote it');
    const { page, device, httpStatus, delivery, essentials } = file;
    return {
      page,
      device,
      httpStatus,
      delivery,
      essentials,
      view: new SnapshotView(fromWire(file.snapshot)),
    };
  } catch (error) {
    throw new IsopticError(
      'no-layout',
      `${path}: the layout can not be read (${messageOf(error)}).`,
      'Make the run again; without --no-layouts it keeps them.',
    );
  }
}
