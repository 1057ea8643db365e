import { branches, commonAncestor, displacedRoot } from '../../../src/core/layout/branches.js';
import { displacementOf, pullsAside } from '../../../src/core/layout/displace.js';
import { sceneOf } from '../../../src/core/layout/scene.js';
import { viewOf, type Node } from '../../support/snapshot.js';

/** Rows: 0 html, 1 body, 2 the element. */
const displaced = (style: Record<string, string>, more: Partial<Node> = {}) =>
  displacementOf(viewOf({ width: 800 }, [{ tag: 'p', box: [0, 0, 100, 20], style, ...more }]), 2);

test.each([
  [{ position: 'absolute' }, 'absolute'],
  [{ position: 'fixed', transform: 'matrix(1, 0, 0, 1, 5, 0)' }, 'fixed'],
  [{ transform: 'matrix(1, 0, 0, 1, 0, -30)' }, 'transform'],
  [{ translate: '0px -12px' }, 'transform'],
  [{ position: 'relative', top: '-18px' }, 'offset'],
  [{ position: 'relative', left: '12%' }, 'offset'],
])('%s takes an element out of its place', (style, expected) => {
  expect(displaced(style)).toBe(expected);
});

test.each([
  [{ transform: 'matrix(1, 0, 0, 1, 0, 0)' }],
  [{ translate: '0px 0px' }],
  [{ position: 'relative', top: '1px' }],
  [{ position: 'relative', top: 'auto' }],
  [{ top: '-18px' }],
])('%s leaves it where it stands', (style) => {
  expect(displaced(style)).toBeNull();
});

test('a margin pulls from 2 px on, on any side', () => {
  expect(displaced({}, { margin: [0, 0, -2, 0] })).toBe('negative-margin');
  expect(displaced({}, { margin: [0, -1, 0, 0] })).toBeNull();
  const view = viewOf({ width: 800 }, [{ tag: 'p', box: [0, 0, 100, 20], margin: [0, -8, 0, -30] }]);
  expect(pullsAside(view, 2)).toBe(30);
});

/** body > (section > (figure > img), p), footer; rows 2, 3, 4, 5, 6. */
const page = (of: Readonly<Record<string, Partial<Node>>>) =>
  viewOf({ width: 800 }, [
    {
      tag: 'section',
      box: [0, 0, 800, 200],
      ...of['section'],
      children: [
        {
          tag: 'figure',
          box: [0, 0, 300, 100],
          ...of['figure'],
          children: [{ tag: 'img', box: [0, 0, 300, 100], ...of['img'] }],
        },
        { tag: 'p', box: [0, 90, 300, 20], ...of['p'] },
      ],
    },
    { tag: 'footer', box: [0, 190, 800, 40], ...of['footer'] },
  ]);

test('of two that meet, the outermost that was displaced and does not hold the other', () => {
  const view = page({
    figure: { style: { position: 'relative', top: '30px' } },
    img: { style: { transform: 'matrix(1, 0, 0, 1, 0, 9)' } },
    section: { style: { position: 'relative', top: '5px' } },
  });
  const scene = sceneOf(view);
  expect(displacedRoot(scene, 4, 5)).toBe(3);
  // Against the footer, all of the section was moved.
  expect(displacedRoot(scene, 4, 6)).toBe(2);
  expect(displacedRoot(sceneOf(page({})), 4, 5)).toBe(-1);
});

test('a margin is why where it pulls the one over the other, above or below, or sideways by enough', () => {
  const below = sceneOf(page({ p: { margin: [-12, 0, 0, 0] } }));
  expect(displacedRoot(below, 5, 3)).toBe(5);
  const after = sceneOf(page({ figure: { margin: [0, 0, -12, 0] } }));
  expect(displacedRoot(after, 3, 5)).toBe(3);
  expect(displacedRoot(sceneOf(page({ figure: { margin: [-12, 0, 0, 0] } })), 3, 5, 30)).toBe(-1);
  const aside = sceneOf(page({ p: { margin: [0, 0, 0, -40] } }));
  expect(displacedRoot(aside, 5, 3, 30)).toBe(5);
  expect(displacedRoot(aside, 5, 3, 90)).toBe(-1);
});

test('what holds two elements, and the branches of it in which they stand', () => {
  const scene = sceneOf(page({}));
  expect(commonAncestor(scene, 4, 5)).toBe(2);
  expect(branches(scene, 4, 5)).toEqual([3, 5]);
  expect(branches(scene, 4, 6)).toEqual([2, 6]);
  expect(branches(scene, 3, 4)).toBeNull();
});
