import { rastersOf, type Raster } from '../../layout/pictures.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import { shownPairs, type Pairing } from '../pairing.js';
import type { Single } from './difference.js';

/** What elements that both layouts show say and picture otherwise. */
export function contentChanges(pairing: Pairing): Single[] {
  const { a, b } = pairing;
  const [croppedA, croppedB] = [cropsOf(a.view), cropsOf(b.view)];
  return shownPairs(pairing).flatMap(([i, j]) => {
    const [was, is] = [a.view.textOf(i), b.view.textOf(j)];
    if (was !== is) return [textChange(i, j, was, is)];
    const [source, other] = [a.view.sourceOf(i), b.view.sourceOf(j)];
    // What had not come yet says nothing.
    if (source !== other && source !== '' && other !== '') return [pictureChange(i, j, source, other)];
    return cropChange(i, j, croppedA.get(i), croppedB.get(j));
  });
}

function textChange(a: NodeIndex, b: NodeIndex, from: string, to: string): Single {
  const [was, is] = excerpts(from, to);
  const one =
    from === ''
      ? `says “${is}”`
      : to === ''
        ? `says no more “${was}”`
        : `says “${is}” where it said “${was}”`;
  return { kind: 'text', a, b, from, to, one, many: one.replace(/^says/, 'say') };
}

/** Characters of two texts around where they begin to differ. */
const AROUND = 12;
const LONGEST = 48;

function excerpts(from: string, to: string): [string, string] {
  if (from.length <= LONGEST && to.length <= LONGEST) return [from, to];
  let at = 0;
  while (at < from.length && from[at] === to[at]) at++;
  const start = at <= AROUND ? 0 : from.lastIndexOf(' ', at - AROUND) + 1;
  const cut = (text: string) =>
    `${start > 0 ? '…' : ''}${text.slice(start, start + LONGEST).trimEnd()}${text.length > start + LONGEST ? '…' : ''}`;
  return [cut(from), cut(to)];
}

function pictureChange(a: NodeIndex, b: NodeIndex, from: string, to: string): Single {
  const name = (address: string) => address.split('/').at(-1) ?? address;
  const [was, is] = name(from) === name(to) ? [from, to] : [name(from), name(to)];
  return {
    kind: 'picture',
    a,
    b,
    from,
    to,
    one: `shows ${is} where it showed ${was}`,
    many: `show ${is} where they showed ${was}`,
  };
}

/** Of pictures that fill their box, which share of their width and height is seen. */
interface Crop {
  readonly x: number;
  readonly y: number;
}

function cropsOf(view: SnapshotView): Map<NodeIndex, Crop> {
  return new Map(rastersOf(view).map((raster) => [raster.node, cropOf(view, raster)]));
}

function cropOf(view: SnapshotView, { node, paintedWidth, paintedHeight }: Raster): Crop {
  const { width, height } = view.contentBox(node);
  const share = (box: number, painted: number) => (painted > 0 ? Math.min(1, box / painted) : 1);
  return { x: share(width, paintedWidth), y: share(height, paintedHeight) };
}

/** Less is not seen to be cropped otherwise. */
const LEAST_SHARE = 0.08;

function cropChange(a: NodeIndex, b: NodeIndex, was: Crop | undefined, is: Crop | undefined): Single[] {
  if (!was || !is) return [];
  const axis = Math.abs(was.x - is.x) >= Math.abs(was.y - is.y) ? 'x' : 'y';
  if (Math.abs(was[axis] - is[axis]) < LEAST_SHARE) return [];
  const [from, to] = [was, is].map((crop) => `${Math.round(100 * crop[axis])} %`) as [string, string];
  const what = axis === 'x' ? 'width' : 'height';
  return [
    {
      kind: 'cropped',
      a,
      b,
      from,
      to,
      one: `shows ${to} of its picture’s ${what} where it showed ${from}`,
      many: `show ${to} of their pictures’ ${what} where they showed ${from}`,
    },
  ];
}
