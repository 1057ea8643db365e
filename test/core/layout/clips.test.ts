import { clipPathInset, legacyClip } from '../../../src/core/css/clip-values.js';
import { Clips, cut } from '../../../src/core/layout/clips.js';
import { viewOf, type Node } from '../../support/snapshot.js';

/** A paragraph of 300 × 300 in a box of 100 × 50 with some style; rows 2 and 3 of html, body, div, p. */
function around(style: Record<string, string>, inner: Partial<Node> = {}, outer: Partial<Node> = {}) {
  const child: Node = { tag: 'p', box: [10, 10, 300, 300], ...inner };
  const view = viewOf({ width: 800 }, [
    { tag: 'div', box: [10, 10, 100, 50], style, ...outer, children: [child] },
  ]);
  return { view, clips: new Clips(view) };
}
/** The nearest element that cuts the content of another off for good. */
function cutter(clips: Clips, i: number, axis: 'x' | 'y'): number | undefined {
  return [...clips.cuttersOfContent(i, axis)][0]?.node;
}
const BOTH = (value: string) => ({ 'overflow-x': value, 'overflow-y': value });
const OPEN = { left: -Infinity, top: -Infinity, right: Infinity, bottom: Infinity };

test('overflow hidden cuts for good at the padding box, and says what cuts', () => {
  const { clips } = around(BOTH('hidden'), {}, { border: [2, 2, 2, 2] });
  expect(clips.lostBox(3)).toEqual({ left: 12, top: 12, right: 108, bottom: 58 });
  expect(clips.shownBox(3)).toEqual(clips.lostBox(3));
  expect([cutter(clips, 2, 'x'), cutter(clips, 2, 'y')]).toEqual([2, 2]);
});

test('a scroll container cuts what is shown and nothing for good', () => {
  const { clips } = around(BOTH('auto'));
  expect(clips.shownBox(3)).toEqual({ left: 10, top: 10, right: 110, bottom: 60 });
  expect(clips.lostBox(3)).toEqual(OPEN);
  expect(cutter(clips, 2, 'x')).toBeUndefined();
});

test('a clip outside of a scroll container cuts the container, not what is scrolled in it', () => {
  const scroller: Node = {
    tag: 'div',
    box: [10, 10, 90, 40],
    style: BOTH('scroll'),
    children: [{ tag: 'p', box: [10, 10, 300, 300] }],
  };
  const view = viewOf({ width: 800 }, [
    { tag: 'div', box: [10, 10, 60, 30], style: BOTH('hidden'), children: [scroller] },
  ]);
  const clips = new Clips(view);
  expect(clips.lostBox(3)).toEqual({ left: 10, top: 10, right: 70, bottom: 40 });
  expect(clips.lostBox(4)).toEqual(OPEN);
  expect(clips.shownBox(4)).toEqual({ left: 10, top: 10, right: 70, bottom: 40 });
});

test('where the end of a scroll container is cut off, so is what stands there at the end of its scrolling', () => {
  const lost = (scroll: Node['scroll'], scrolled: number, clip: Node['box'] = [10, 10, 90, 30]) => {
    const scroller: Node = {
      tag: 'div',
      box: [10, 10, 90, 40],
      style: BOTH('auto'),
      scroll,
      children: [{ tag: 'p', box: [10, 10, 300, 300] }],
    };
    const outer: Node = { tag: 'div', box: clip, style: BOTH('hidden'), children: [scroller] };
    return new Clips(viewOf({ width: 800, scrolled: [[3, 0, scrolled]] }, [outer]));
  };
  // 260 px to scroll: all but the last 10 px come into the 30 px that are left.
  expect(lost([90, 40, 90, 300], 0).lostBox(4)).toEqual({ ...OPEN, bottom: 300 });
  expect(lost([90, 40, 90, 300], 100).lostBox(4)).toEqual({ ...OPEN, bottom: 200 });
  expect(cutter(lost([90, 40, 90, 300], 0), 3, 'y')).toBe(2);
  // Nothing to scroll, the whole container in sight.
  expect(lost([90, 40, 90, 40], 0).lostBox(4)).toEqual({ ...OPEN, bottom: 40 });
  expect(lost([90, 40, 90, 300], 0, [0, 0, 200, 200]).lostBox(4)).toEqual(OPEN);
});

test('overflow clip leaves its margin', () => {
  const { clips } = around({ ...BOTH('clip'), 'overflow-clip-margin': '8px' });
  expect(clips.lostBox(3)).toEqual({ left: 2, top: 2, right: 118, bottom: 68 });
});

test('a positioned box is cut by what it is laid out in, not by what it merely stands in', () => {
  expect(around(BOTH('hidden'), { style: { position: 'absolute' } }).clips.lostBox(3)).toEqual(OPEN);
  const held = around({ ...BOTH('hidden'), position: 'relative' }, { style: { position: 'absolute' } });
  expect(held.clips.lostBox(3)).toEqual({ left: 10, top: 10, right: 110, bottom: 60 });
});

test('a clip of its own cuts an element and all that is in it', () => {
  const { clips } = around({ 'clip-path': 'inset(10px 20px)' });
  expect(clips.lostBox(2)).toEqual({ left: 30, top: 20, right: 90, bottom: 50 });
  expect(clips.lostBox(3)).toEqual(clips.lostBox(2));
});

test('the values of clip-path and clip', () => {
  const box = { x: 100, y: 50, width: 200, height: 80 };
  expect(clipPathInset('inset(50%)', box)).toEqual({ top: 40, right: 100, bottom: 40, left: 100 });
  expect(clipPathInset('inset(1px 2px 3px round 4px)', box)).toEqual({
    top: 1,
    right: 2,
    bottom: 3,
    left: 2,
  });
  expect(clipPathInset('circle(0px at 50% 50%)', box)).toEqual({ top: 80, right: 200, bottom: 0, left: 0 });
  expect(clipPathInset('polygon(0 0, 100% 0, 50% 100%)', box)).toBeNull();
  expect(legacyClip('rect(0px, 10px, 20px, auto)', box)).toEqual({
    top: 50,
    right: 110,
    bottom: 70,
    left: 100,
  });
  expect(legacyClip('auto', box)).toBeNull();
  expect(cut(box, { ...OPEN, right: 150 })).toEqual({ ...box, width: 50 });
  expect(cut(box, { ...OPEN, right: 100 })).toBeNull();
});

test('a drawing in line cuts by its own overflow; what is in it and has no style of its own cuts nothing', () => {
  const group: Node = { tag: 'g', box: [0, 0, 0, 0], style: { 'overflow-x': '', 'overflow-y': '' } };
  const drawing = (overflow: string) =>
    viewOf({ width: 800 }, [
      {
        tag: 'svg',
        box: [10, 10, 100, 50],
        style: { ...BOTH(overflow), display: 'inline' },
        children: [{ ...group, children: [{ tag: 'text', box: [20, 20, 200, 20] }] }],
      },
    ]);
  const clips = new Clips(drawing('hidden'));
  expect(clips.lostBox(4)).toEqual({ left: 10, top: 10, right: 110, bottom: 60 });
  expect(cutter(clips, 3, 'x')).toBe(2);
  expect(new Clips(drawing('visible')).lostBox(4)).toEqual(OPEN);
});
