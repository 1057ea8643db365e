import { arranged } from '../../../src/report/sheet/arrange.js';

const box = (width: number, height: number) => ({ width, height });

test('rows of so many, each as high as its highest', () => {
  const { places, width, height } = arranged([box(100, 50), box(50, 80), box(30, 30)], 2, 10);
  expect(places).toEqual([
    { x: 10, y: 10 },
    { x: 120, y: 10 },
    { x: 10, y: 100 },
  ]);
  expect([width, height]).toEqual([180, 140]);
});

test('rows that make the whole about as wide as screens are, and every box is on it', () => {
  const boxes = Array.from({ length: 24 }, (_, i) => box(100 + (i % 3) * 20, 200));
  const { places, width, height } = arranged(boxes, null, 10);
  expect(width / height).toBeGreaterThan(1.2);
  expect(width / height).toBeLessThan(2.4);
  for (const [i, { x, y }] of places.entries()) {
    expect(x + boxes[i]!.width).toBeLessThanOrEqual(width - 10);
    expect(y + boxes[i]!.height).toBeLessThanOrEqual(height - 10);
  }
});

test('one box, and none', () => {
  expect(arranged([box(40, 20)], null, 5)).toMatchObject({ width: 50, height: 30 });
  expect(arranged([], null, 5).places).toEqual([]);
});
