import { FLAG_CONTROL, FLAG_FIELD, FLAG_PICTURE, FLAG_REPLACED } from '../../../src/core/layout/snapshot.js';
import { sceneOf } from '../../../src/core/layout/scene.js';
import { signDoubts, signsUnderWords } from '../../../src/core/sightings/signs-under-words.js';
import { line, renderOf } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const SIGN = { 'background-image': 'url("arrow.svg")', 'background-size': 'auto' };
const field = (style: Readonly<Record<string, string>>, room = 8): Node => ({
  tag: 'select',
  box: [0, 0, 200, 40],
  flags: FLAG_CONTROL | FLAG_FIELD,
  style: { display: 'inline-block', ...style },
  padding: [0, room, 0, 8],
  lines: [{ ...line(8, 10, 180, 'Wickham Quay'), field: true }],
});
const picture = (side: number): Node => ({
  tag: 'img',
  box: [4, 8, side, side],
  flags: FLAG_PICTURE | FLAG_REPLACED,
});

const doubts = (...nodes: readonly Node[]) => {
  const { view } = renderOf({ width: 400 }, nodes);
  return signDoubts(view).map(({ under, sign }) => `${sign} of ${view.tag(under)}`);
};

test('a picture in the ground of a field that keeps no room for it, and a small one under a field', () => {
  expect(doubts(field(SIGN))).toEqual(['ground of select']);
  expect(doubts(picture(24), field({}))).toEqual(['picture of img']);
});

test.each<[string, readonly Node[]]>([
  ['a field with room for its sign', [field(SIGN, 36)]],
  ['a ground that fills its box', [field({ ...SIGN, 'background-size': 'cover' })]],
  ['a ground of colours', [field({ 'background-image': 'linear-gradient(red, blue)' })]],
  ['a large picture', [picture(300), field({})]],
])('%s: no doubt', (_, nodes) => {
  expect(doubts(...nodes)).toEqual([]);
});

test('letters on the sign are told; a ground that is drawn all over is no sign', () => {
  const render = renderOf({ width: 400 }, [field(SIGN)]);
  const uid = render.view.uid(signDoubts(render.view)[0]!.under);
  const told = (ink: number, hidden: number) => {
    render.view.snapshot.looks = [{ cover: uid, under: uid, ink, hidden }];
    return signsUnderWords(sceneOf(render.view), render).map(({ message }) => message);
  };
  expect(told(150, 30)).toEqual([
    'The text “Wickham Quay” lies on the sign in its own ground, on a 400 px wide screen.',
  ]);
  expect(told(150, 4)).toEqual([]);
  expect(told(3000, 600)).toEqual([]);
});
