import sharp from 'sharp';
import { boxesIn } from '../../../src/core/compare/pixels/boxes.js';
import { colourDistance, rememberedDistance } from '../../../src/core/compare/pixels/colour.js';
import { differingPixels, LEAST_DISTANCE } from '../../../src/core/compare/pixels/differing.js';
import { pictureOf, type Picture } from '../../../src/core/compare/pixels/picture.js';
import { ALONE, CELL, shiftMapOf, type ShiftMap } from '../../../src/core/compare/pixels/shift-map.js';
import { pairingOf } from '../../../src/core/compare/pairing.js';
import { ferryPage, ferryParts, lowered, words } from '../../support/ferry-page.js';
import type { Node } from '../../support/snapshot.js';

const SIDE = 240;

/** A picture drawn by SVG, with smoothed edges, as a browser draws. */
async function drawn(inner: string, width = SIDE, height = SIDE): Promise<Picture> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="white"/>${inner}</svg>`;
  const { data, info } = await sharp(Buffer.from(svg))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return pictureOf(info.width, info.height, data);
}

const boxes = (a: Picture, b: Picture) => boxesIn(differingPixels(a, b, null).mask, b.width, b.height);
const disc = (x: number, y: number, fill = '#0b3a46') =>
  `<circle cx="${x}" cy="${y}" r="40" fill="${fill}"/>`;
const word = (text: string, x = 20, y = 60) =>
  `<text x="${x}" y="${y}" font-size="22" font-family="sans-serif">${text}</text>`;

test('colours are as far apart as they look: black from white by 1, a step of one by next to nothing', () => {
  expect(colourDistance(0, 0, 0, 255, 255, 255)).toBeCloseTo(1, 3);
  expect(colourDistance(120, 120, 120, 121, 120, 120)).toBeLessThan(0.005);
  expect(colourDistance(255, 0, 0, 0, 0, 255)).toBeGreaterThan(0.5);
  expect(colourDistance(10, 20, 30, 10, 20, 30)).toBe(0);
});

test('equal pictures differ nowhere', async () => {
  const { count, compared } = differingPixels(await drawn(disc(80, 80)), await drawn(disc(80, 80)), null);
  expect([count, compared]).toEqual([0, SIDE * SIDE]);
});

test('edges that are smoothed otherwise and shapes a part of a px elsewhere are no difference', async () => {
  for (const by of [0.2, 0.5, 0.8]) {
    expect(differingPixels(await drawn(disc(80, 80)), await drawn(disc(80 + by, 80)), null).count).toBe(0);
    expect(boxes(await drawn(word('Wickham Quay')), await drawn(word('Wickham Quay', 20 + by)))).toEqual([]);
  }
  expect(boxes(await drawn(disc(80, 80)), await drawn(disc(86, 80)))).not.toEqual([]);
});

test('one other word is found and boxed', async () => {
  const before = await drawn(word('Boats cross daily') + word('Near Isle', 20, 160));
  const after = await drawn(word('Boats cross daily') + word('Ember Roc', 20, 160));
  const [box, ...others] = boxes(before, after);
  expect(others).toEqual([]);
  expect(box!.y).toBeGreaterThanOrEqual(138);
  expect(box!.y + box!.height).toBeLessThanOrEqual(168);
  expect(box!.width).toBeGreaterThan(60);
});

test('a border of one px in another colour is found, and one that is gone', async () => {
  const frame = (stroke: string) =>
    `<rect x="40.5" y="40.5" width="120" height="80" fill="none" stroke="${stroke}"/>`;
  for (const other of [await drawn(frame('#b00020')), await drawn('')]) {
    const [box, ...others] = boxes(await drawn(frame('#0b3a46')), other);
    expect(others).toEqual([]);
    expect(box).toMatchObject({ x: 40, y: 40, width: 121, height: 81 });
  }
});

test('noise of a few single px makes no box, and many places make few boxes', () => {
  const mask = new Uint8Array(400 * 400);
  for (let i = 0; i < 30; i++) mask[i * 5003] = 1;
  expect(boxesIn(mask, 400, 400)).toEqual([]);
  const many = new Uint8Array(2000 * 2000);
  for (let y = 10; y < 2000; y += 60)
    for (let x = 10; x < 2000; x += 60)
      for (let i = 0; i < 8; i++) many.fill(1, (y + i) * 2000 + x, (y + i) * 2000 + x + 8);
  const found = boxesIn(many, 2000, 2000);
  expect(found.length).toBeLessThanOrEqual(24);
  expect(found.reduce((sum, box) => sum + box.count, 0)).toBe(33 * 33 * 64 + (34 * 34 - 33 * 33) * 64);
});

test('rows that are the same as a whole are passed over, and nothing else comes of it', async () => {
  const [a, b] = [
    await drawn(word('Wickham Quay') + disc(150, 150)),
    await drawn(word('Wickham Quay', 20, 73) + disc(154, 163) + word('Far', 10, 230)),
  ];
  const [columns, rows] = [SIDE / CELL, SIDE / CELL];
  const cells = columns * rows;
  const map: ShiftMap = {
    columns,
    rows,
    // The right half moved aside as well, the last rows have nothing before them; some cells showed other elements.
    dx: Int16Array.from({ length: cells }, (_, cell) =>
      cell >= cells - 3 * columns ? ALONE : cell % columns > 27 ? 4 : 0,
    ),
    dy: new Int16Array(cells).fill(13),
    owner: Int32Array.from({ length: cells }, (_, cell) => (cell % 7 === 0 ? 2 : 1)),
    ownerA: Int32Array.from({ length: cells }, (_, cell) => (cell % 11 === 0 ? 2 : 1)),
    columnsA: columns,
  };
  const areSame = (x: Uint8Array, y: Uint8Array) => Buffer.compare(x, y) === 0;
  const slowly = differingPixels(a, b, map);
  expect(differingPixels(a, b, map, LEAST_DISTANCE, areSame)).toEqual(slowly);
  expect(slowly.compared).toBeGreaterThan(0.5 * SIDE * SIDE);
  expect([slowly.count > 0, slowly.from < slowly.to]).toEqual([true, true]);
  const inPlace = differingPixels(a, b, null);
  expect(differingPixels(a, b, null, LEAST_DISTANCE, areSame)).toEqual(inPlace);
  const { mask, from, to } = inPlace;
  expect(boxesIn(mask, SIDE, SIDE, from, to)).toEqual(boxesIn(mask, SIDE, SIDE));
});

test('of pairs of colours met before it is remembered how far they are apart, each for itself', () => {
  const distance = rememberedDistance();
  const word32 = (r: number, g: number, b: number) => r | (g << 8) | (b << 16);
  for (let turn = 0; turn < 2; turn++)
    for (let step = 0; step < 256; step += 5)
      expect(distance(word32(step, 20, 255 - step), word32(10, step, 30))).toBe(
        colourDistance(step, 20, 255 - step, 10, step, 30),
      );
});

test('what a new part pushes down is compared where it went', async () => {
  const [h1, p, list, footer] = ferryParts() as [Node, Node, Node, Node];
  const before = ferryPage();
  const after = ferryPage([
    h1,
    words('p', 30, 'A new boat.', { class: 'banner' }),
    ...[p, list, footer].map((node) => lowered(node, 30)),
  ]);
  const shown = { width: 1000, height: 300, scale: 1, x: 0, y: 0 };
  const page = (by: number, more: string) =>
    drawn(
      `${word('Four islands', 5, 15)}${more}<rect x="0" y="${80 + by}" width="280" height="100" fill="#0b3a46"/>${word('Wickham Quay', 5, 216 + by)}`,
      1000,
      300,
    );
  const [a, b] = [
    await page(0, ''),
    await page(30, '<rect x="0" y="30" width="1000" height="20" fill="gold"/>'),
  ];
  const shifts = shiftMapOf(pairingOf(before, after), shown, shown)!;
  const { mask } = differingPixels(a, b, shifts);
  expect(boxesIn(mask, 1000, 300)).toEqual([]);
  // In place, nearly all below would differ.
  expect(boxes(a, b).length).toBeGreaterThan(0);
  expect(shiftMapOf(pairingOf(before, before), shown, shown)).toBeNull();
});
