import { NO_DELIVERY } from '../../../src/core/delivery/delivery.js';
import { findingsOfPage } from '../../../src/core/findings/group.js';
import {
  FLAG_ARIA_HIDDEN,
  FLAG_CONTROL,
  FLAG_FIELD,
  FLAG_REPLACED,
} from '../../../src/core/layout/snapshot.js';
import { pageOverflow } from '../../../src/core/rules/overflow/page-overflow.js';
import { deviceOf } from '../../support/device.js';
import { viewOf, type Node, type PageOptions } from '../../support/snapshot.js';

function findings(options: PageOptions, children: readonly Node[], mobile = false) {
  const view = viewOf(options, children);
  const device = deviceOf(options.width, mobile);
  return findingsOfPage(
    'page',
    [{ device, view, httpStatus: null, page: 'home', essentials: [], delivery: NO_DELIVERY }],
    [pageOverflow],
  );
}

const only = (options: PageOptions, children: readonly Node[]) => {
  const found = findings(options, children);
  expect(found).toHaveLength(1);
  return found[0]!;
};

const page = { width: 400, scrollWidth: 500 };

describe('page-overflow: who is at fault', () => {
  test('a box of fixed width, by the px it sticks out', () => {
    const found = only(page, [
      { tag: 'div', class: 'promo', box: [20, 0, 480, 50], style: { width: '480px' } },
    ]);
    expect(found).toMatchObject({
      rule: 'page-overflow',
      family: 'overflow',
      severity: 'error',
      selector: 'div.promo',
      seen: [
        { profile: 'test-400', rect: { x: 20, y: 0, width: 480, height: 50 }, by: { axis: 'x', px: 100 } },
      ],
    });
    expect(found.message).toContain('100 px past the right edge of the 400 px wide page');
  });

  test('a wide box is at fault, not what merely fills it', () => {
    const found = only(page, [
      {
        tag: 'section',
        box: [0, 0, 500, 90],
        style: { width: '500px' },
        children: [{ tag: 'p', box: [0, 0, 500, 40], lines: [{ box: [0, 0, 499, 20] }] }],
      },
    ]);
    expect(found.selector).toBe('section');
  });

  test('a field with a share for its greatest width makes its column wide all the same, a picture does not', () => {
    const item = (tag: string, flags: number) =>
      only(page, [
        {
          tag: 'main',
          box: [0, 0, 400, 90],
          style: { display: 'grid' },
          children: [
            { tag: 'nav', box: [0, 0, 500, 20], lines: [{ box: [0, 0, 80, 20] }] },
            {
              tag: 'form',
              box: [0, 20, 500, 60],
              children: [{ tag, box: [0, 20, 500, 30], flags, style: { 'max-width': '100%' } }],
            },
          ],
        },
      ]).selector;
    expect(item('input', FLAG_REPLACED | FLAG_FIELD)).toBe('form > input');
    expect(item('img', FLAG_REPLACED)).not.toBe('form > img');
  });

  test('a block that is left no room is at fault, not each text in it', () => {
    const text = (y: number): Node => ({
      tag: 'p',
      box: [390, y, 0, 20],
      lines: [{ box: [390, y, 60, 20], unbreakable: true }],
    });
    const found = only(page, [
      { tag: 'div', class: 'side', box: [0, 0, 300, 50], style: { width: '300px', float: 'left' } },
      { tag: 'div', class: 'news', box: [390, 0, 0, 40], children: [text(0), text(20)] },
    ]);
    expect(found.selector).toBe('div.news');
  });

  test('a field that outgrows its label is at fault, not the label round it', () => {
    const field: Node = {
      tag: 'input',
      box: [0, 0, 500, 30],
      style: { width: '100%' },
      flags: FLAG_REPLACED,
    };
    const found = only(page, [
      { tag: 'label', box: [0, 0, 500, 30], style: { display: 'inline', width: '' }, children: [field] },
    ]);
    expect(found.selector).toContain('input');
  });

  test('what takes most of a row is at fault, not the small item that it pushes out', () => {
    const item = (name: string, x: number, width: number): Node => ({
      tag: 'b',
      class: name,
      box: [x, 0, width, 20],
      lines: [{ box: [x, 0, width, 20], unbreakable: true }],
    });
    const row = (first: number): Node => ({
      tag: 'div',
      box: [0, 0, 400, 20],
      style: { display: 'flex', 'flex-direction': 'row', 'flex-wrap': 'nowrap' },
      children: [item('title', 0, first), item('price', first, 500 - first)],
    });
    expect(only(page, [row(390)]).selector).toContain('b.title');
    expect(only(page, [row(200)]).selector).toContain('b.price');
    const shared = { ...item('title', 0, 390), style: { width: '75%' } };
    expect(only(page, [{ ...row(390), children: [shared, item('price', 390, 110)] }]).selector).toContain(
      'price',
    );
  });

  test('an unbreakable word is at fault, not the grid item that grew to hold it nor its stretched neighbours', () => {
    const found = only(page, [
      {
        tag: 'main',
        box: [0, 0, 400, 300],
        style: { display: 'grid' },
        children: [
          {
            tag: 'section',
            class: 'card',
            box: [0, 0, 500, 90],
            padding: [0, 20, 0, 20],
            children: [
              {
                tag: 'p',
                box: [20, 0, 460, 20],
                children: [
                  {
                    tag: 'a',
                    class: 'mail',
                    box: [20, 0, 460, 20],
                    style: { display: 'inline' },
                    lines: [{ box: [20, 0, 460, 20], unbreakable: true }],
                  },
                ],
              },
            ],
          },
          {
            tag: 'form',
            box: [0, 100, 500, 90],
            padding: [0, 20, 0, 20],
            children: [
              {
                tag: 'input',
                box: [20, 100, 460, 30],
                flags: FLAG_CONTROL | FLAG_REPLACED,
                style: { width: '100%' },
              },
            ],
          },
        ],
      },
    ]);
    expect(found.selector).toBe('a.mail');
    expect(found.related).toEqual([]);
  });

  test('rows that were only stretched, and what scrolls, make no page wide: their words could break, or more is in them than they show', () => {
    const row = (second: Partial<Node>): Node => ({
      tag: 'p',
      class: 'row',
      box: [20, 60, 480, 20],
      style: { display: 'flex', 'flex-direction': 'row', 'flex-wrap': 'nowrap', 'flex-shrink': '1' },
      children: [
        { tag: 'span', box: [20, 60, 380, 20], lines: [{ box: [20, 60, 370, 20], unbreakable: true }] },
        {
          tag: 'b',
          box: [400, 60, 100, 20],
          lines: [{ box: [400, 60, 98, 20], text: 'Half of it' }],
          ...second,
        },
      ],
    });
    const list = (...more: readonly Node[]): Node => ({
      tag: 'main',
      box: [20, 0, 360, 200],
      style: { display: 'grid' },
      children: [
        { tag: 'div', class: 'tile', box: [20, 0, 480, 40], style: { width: '480px' } },
        { tag: 'section', box: [20, 60, 480, 140], children: more },
      ],
    });
    const selectors = (...more: readonly Node[]) =>
      findings(page, [list(...more)]).map(({ selector }) => selector);
    expect(selectors(row({}))).toEqual(['div.tile']);
    expect(selectors(row({ lines: [{ box: [400, 60, 98, 20], unbreakable: true }] }))).toHaveLength(2);
    const box = (scrollWidth: number): Node => ({
      tag: 'div',
      box: [20, 100, 480, 60],
      style: { 'overflow-x': 'auto', 'overflow-y': 'auto' },
      scroll: [480, 60, scrollWidth, 60],
      children: [{ tag: 'table', box: [20, 100, scrollWidth, 60], style: { width: `${scrollWidth}px` } }],
    });
    expect(selectors(box(700))).toEqual(['div.tile']);
    expect(selectors(box(480))).toHaveLength(2);
  });

  test('a picture of fixed width inside a float is at fault; one sized in percent is not', () => {
    const float = (imgWidth: string): Node => ({
      tag: 'div',
      class: 'float',
      box: [0, 0, 500, 60],
      style: { float: 'left' },
      children: [{ tag: 'img', box: [0, 0, 500, 60], flags: FLAG_REPLACED, style: { width: imgWidth } }],
    });
    expect(only(page, [float('500px')]).selector).toBe('div.float > img');
    expect(only(page, [float('100%')]).selector).toBe('div.float');
  });

  test('items of a row that can not wrap are one finding, counted from the first outside', () => {
    const item = (x: number): Node => ({
      tag: 'a',
      class: 'item',
      box: [x, 0, 120, 40],
      style: { width: '120px' },
    });
    const found = only({ width: 300, scrollWidth: 480 }, [
      {
        tag: 'nav',
        box: [0, 0, 300, 40],
        style: { display: 'flex' },
        children: [item(0), item(120), item(240), item(360)],
      },
    ]);
    expect(found.selector).toBe('a.item:nth-of-type(3)');
    expect(found.related).toEqual(['a.item:nth-of-type(4)']);
    expect(found.seen[0]!.by).toEqual({ axis: 'x', px: 180 });
  });

  test('a row that is too narrow is one finding, whether one of its items sticks out or two', () => {
    const render = (width: number) => {
      const item = (x: number): Node => ({
        tag: 'a',
        box: [x, 0, 150, 110],
        children: [{ tag: 'img', box: [x, 0, 150, 110], flags: FLAG_REPLACED, style: { width: '150px' } }],
      });
      const row: Node = {
        tag: 'div',
        class: 'more',
        box: [20, 0, width - 40, 110],
        style: { display: 'flex', 'flex-direction': 'row', 'flex-wrap': 'nowrap' },
        children: [20, 180, 340, 500].map(item),
      };
      const view = viewOf({ width, scrollWidth: 650 }, [row]);
      const device = deviceOf(width, false);
      return { device, view, httpStatus: null, page: 'home', essentials: [], delivery: NO_DELIVERY };
    };
    const found = findingsOfPage('page', [600, 360].map(render), [pageOverflow]);
    expect(found.map(({ seen }) => seen.map(({ profile }) => profile))).toEqual([['test-600', 'test-360']]);
  });

  test('a table is at fault as a whole', () => {
    const found = only(page, [
      {
        tag: 'table',
        class: 'fares',
        box: [0, 0, 500, 80],
        style: { display: 'table' },
        children: [
          {
            tag: 'td',
            box: [250, 0, 250, 40],
            style: { display: 'table-cell' },
            lines: [{ box: [250, 0, 250, 20], unbreakable: true }],
          },
        ],
      },
    ]);
    expect(found.selector).toBe('table.fares');
  });

  test('a table that takes its share of room that something else has made is not at fault', () => {
    const told = (inCell: number) =>
      findings(page, [
        {
          tag: 'main',
          box: [0, 0, 500, 140],
          style: { float: 'left' },
          children: [
            {
              tag: 'div',
              class: 'log',
              box: [0, 0, 500, 40],
              lines: [{ box: [0, 0, 500, 20], unbreakable: true }],
            },
            {
              tag: 'table',
              class: 'fares',
              box: [0, 60, 500, 80],
              style: { display: 'table', width: '100%' },
              children: [0, 250].map((x) => ({
                tag: 'td',
                box: [x, 60, 250, 40],
                style: { display: 'table-cell' },
                lines: [{ box: [x, 60, inCell, 20], unbreakable: true }],
              })),
            },
          ],
        },
      ]).map((found) => found.selector);
    expect(told(120)).toEqual(['div.log']);
    expect(told(250)).toEqual(['div.log', 'table.fares']);
  });

  test('two separate causes are two findings', () => {
    expect(
      findings(page, [
        { tag: 'div', class: 'a', box: [0, 0, 450, 50], style: { width: '450px' } },
        { tag: 'div', class: 'b', box: [0, 60, 500, 50], style: { width: '500px' } },
      ]).map((found) => found.selector),
    ).toEqual(['div.a', 'div.b']);
  });

  test('in a right-to-left page the left edge counts', () => {
    const found = only({ ...page, direction: 'rtl' }, [
      { tag: 'div', class: 'wide', box: [-100, 0, 500, 50], style: { width: '500px' } },
      { tag: 'div', class: 'right', box: [300, 60, 200, 50], style: { width: '200px' } },
    ]);
    expect(found.selector).toBe('div.wide');
    expect(found.message).toContain('left edge');
  });
});

describe('page-overflow: what is left alone', () => {
  test('a page that fits, and rounding of less than a px', () => {
    expect(findings({ width: 400 }, [{ tag: 'div', box: [0, 0, 400, 50] }])).toEqual([]);
    expect(findings({ width: 400 }, [{ tag: 'div', box: [0, 0, 400.4, 50] }])).toEqual([]);
  });

  test('what a scroll container or a clipping box keeps to itself', () => {
    for (const overflow of ['auto', 'scroll', 'hidden', 'clip']) {
      expect(
        findings({ width: 400, overflowX: 'hidden' }, [
          {
            tag: 'div',
            box: [0, 0, 400, 50],
            style: { 'overflow-x': overflow },
            children: [{ tag: 'p', box: [0, 0, 900, 50], lines: [{ box: [0, 0, 900, 20] }] }],
          },
        ]),
      ).toEqual([]);
    }
  });

  test('an absolutely positioned box escapes a clip that does not contain it', () => {
    const clipped = (position: string): Node => ({
      tag: 'div',
      box: [0, 0, 400, 50],
      style: { 'overflow-x': 'hidden', position },
      children: [
        {
          tag: 'div',
          class: 'abs',
          box: [300, 0, 200, 50],
          style: { position: 'absolute', left: '300px', width: '200px' },
        },
      ],
    });
    expect(findings({ width: 400, scrollWidth: 400 }, [clipped('relative')])).toEqual([]);
    expect(only(page, [clipped('static')]).selector).toBe('div.abs');
  });

  test('under a root that clips: an off-canvas drawer, decoration, what is hidden from everybody', () => {
    const line = { box: [420, 0, 80, 20] as const };
    expect(
      findings({ ...page, overflowX: 'hidden' }, [
        { tag: 'nav', box: [400, 0, 100, 300], style: { position: 'absolute' }, lines: [line] },
        { tag: 'div', class: 'blob', box: [350, 0, 150, 150], style: { position: 'absolute' } },
        { tag: 'p', box: [350, 0, 150, 20], flags: FLAG_ARIA_HIDDEN, lines: [line] },
        { tag: 'p', box: [350, 0, 150, 20], style: { visibility: 'hidden' }, lines: [line] },
        { tag: 'img', box: [350, 0, 150, 20], flags: FLAG_REPLACED, style: { opacity: '0.02' } },
      ]),
    ).toEqual([]);
  });

  test('under a root that clips, text that is cut off at the edge is still found', () => {
    const found = only({ ...page, overflowX: 'hidden' }, [
      { tag: 'p', class: 'cut', box: [0, 0, 400, 20], lines: [{ box: [0, 0, 460, 20], unbreakable: true }] },
    ]);
    expect(found).toMatchObject({ selector: 'p.cut', seen: [{ by: { px: 60 } }] });
    expect(found.message).toContain('cut off');
  });

  test('a root that clips keeps no phone from showing the page shrunk or letting it be moved, whatever sticks out', () => {
    const decoration: Node = { tag: 'div', class: 'blob', box: [350, 0, 150, 150] };
    const shown = (shownWidth: number, scrollbar = 0, scale = 1) =>
      findings({ ...page, overflowX: 'hidden', shownWidth, scrollbar, scale }, [decoration], true);
    expect(shown(402)).toEqual([]);
    expect(shown(415, 15)).toEqual([]);
    expect(shown(500)).toMatchObject([{ selector: 'div.blob', seen: [{ by: { px: 100 } }] }]);
    expect(shown(500)[0]!.message).toContain('the page can be moved sideways on a phone');
    expect(shown(500, 0, 0.8)[0]!.message).toContain('the page is shown shrunk to 80 %');
  });

  test('elements fixed to the viewport do not make a page scroll', () => {
    const found = only(page, [
      { tag: 'div', class: 'bar', box: [0, 0, 500, 40], style: { position: 'fixed' } },
    ]);
    expect(found.selector).toBe('html');
    expect(found.message).toContain("no element's box reaches that far");
  });
});

test('a mobile page laid out wider than the device is found on its root', () => {
  const view = viewOf({ width: 980, scale: 0.4 }, [{ tag: 'p', box: [0, 0, 980, 20] }]);
  const render = {
    device: deviceOf(390, true, 'phone'),
    view,
    httpStatus: null,
    page: 'home',
    essentials: [],
    delivery: NO_DELIVERY,
  };
  const [found, ...others] = findingsOfPage('page', [render], [pageOverflow]);
  expect(others).toEqual([]);
  expect(found).toMatchObject({ selector: 'html', seen: [{ by: { axis: 'x', px: 590 } }] });
  expect(found!.message).toContain('980 px wide');
  const desktop = {
    device: deviceOf(980, false, 'desktop'),
    view,
    httpStatus: null,
    page: 'home',
    essentials: [],
    delivery: NO_DELIVERY,
  };
  expect(findingsOfPage('page', [desktop], [pageOverflow])).toEqual([]);
});
