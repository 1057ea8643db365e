import { areOverlaidBySides, isEmblem, isPartOfPicture } from '../../../src/core/intent/emblems.js';
import { sceneOf } from '../../../src/core/layout/scene.js';
import { FLAG_CONTROL, FLAG_ORNAMENT, FLAG_PICTURE } from '../../../src/core/layout/snapshot.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const picture = (width: number, height: number, flags = 0): Node => ({
  tag: 'img',
  id: 'picture',
  box: [0, 0, width, height],
  flags: FLAG_PICTURE | flags,
});
const found = (node: Node) => {
  const view = viewOf({ width: 400 }, [node]);
  const at = (id: string) => Array.from({ length: view.count }, (_, i) => i).find((i) => view.id(i) === id)!;
  return { view, at };
};
const isOne = (node: Node) => {
  const { view, at } = found(node);
  return isEmblem(view, at('picture'));
};

test('a small picture is a logo, unless it says that it is an ornament; in a link it is what the link is seen by', () => {
  expect(isOne(picture(140, 40))).toBe(true);
  expect(isOne(picture(360, 200))).toBe(false);
  expect(isOne(picture(12, 12))).toBe(false);
  expect(isOne(picture(140, 40, FLAG_ORNAMENT))).toBe(false);
  const link: Node = { tag: 'a', box: [0, 0, 140, 40], flags: FLAG_CONTROL };
  expect(isOne({ ...link, children: [picture(140, 40, FLAG_ORNAMENT)] })).toBe(true);
});

test('what stands in a box that the picture fills is a part of it', () => {
  const isPart = (width: number) => {
    const badge: Node = { tag: 'b', id: 'badge', box: [100, 0, 30, 30] };
    const { view, at } = found({ tag: 'div', box: [0, 0, width, 60], children: [picture(140, 40), badge] });
    return isPartOfPicture(sceneOf(view), at('picture'), at('badge'));
  };
  expect(isPart(160)).toBe(true);
  expect(isPart(380)).toBe(false);
});

test('faces in a pile are pulled over one another by a margin', () => {
  const isPiled = (margin: number) => {
    const more: Node = { tag: 'b', id: 'more', box: [128, 0, 40, 40], margin: [0, 0, 0, margin] };
    const { view, at } = found({ tag: 'div', box: [0, 0, 300, 60], children: [picture(140, 40), more] });
    return areOverlaidBySides(sceneOf(view), at('picture'), at('more'));
  };
  expect(isPiled(-12)).toBe(true);
  expect(isPiled(0)).toBe(false);
});

test('so are pictures of one size that are placed, and no others', () => {
  const isPiled = (width: number, style: Record<string, string>) => {
    const more: Node = { ...picture(width, 40), id: 'more', box: [100, 0, width, 40], style };
    const first: Node = { ...picture(140, 40), style: { position: 'absolute' } };
    const { view, at } = found({ tag: 'div', box: [0, 0, 300, 60], children: [first, more] });
    return areOverlaidBySides(sceneOf(view), at('picture'), at('more'));
  };
  expect(isPiled(140, { position: 'absolute' })).toBe(true);
  expect(isPiled(160, { position: 'absolute' })).toBe(false);
  expect(isPiled(140, {})).toBe(false);
});
