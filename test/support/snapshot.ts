import {
  DECLARED_PROPERTIES,
  FLAG_RENDERED,
  FLAG_TEXT,
  KIND_AFTER,
  KIND_BEFORE,
  KIND_ELEMENT,
  LINE_FIELD,
  LINE_READ,
  LINE_UNBREAKABLE,
  STYLE_PROPERTIES,
} from '../../src/core/layout/snapshot.js';
import { fromWire, type WireSnapshot } from '../../src/core/layout/wire.js';
import { SnapshotView } from '../../src/core/layout/view.js';
import { noNodes } from '../../src/page/node-columns.js';

/** Of pseudo-elements. */
const KINDS: Readonly<Record<string, number>> = { '::before': KIND_BEFORE, '::after': KIND_AFTER };

type Quad = readonly [number, number, number, number];

/** One element of a hand-made snapshot. Boxes are x, y, width, height in CSS px. */
export interface Node {
  readonly tag: string;
  readonly id?: string;
  readonly class?: string;
  readonly box: Quad;
  readonly style?: Readonly<Record<string, string>>;
  readonly padding?: Quad;
  readonly border?: Quad;
  readonly margin?: Quad;
  readonly flags?: number;
  /** clientWidth, clientHeight, scrollWidth, scrollHeight. */
  readonly scroll?: Quad | undefined;
  readonly hidden?: boolean;
  readonly lines?: readonly {
    readonly box: Quad;
    readonly unbreakable?: boolean;
    /** Its text is all that stands on it. */
    readonly read?: boolean;
    readonly field?: boolean;
    readonly text?: string;
    /** Row of the page's `faces`. */
    readonly face?: number;
  }[];
  /** The radii of a drawn box, from the top left on. */
  readonly corners?: string;
  /** Words of its own. */
  readonly says?: string;
  /** How they are set (`SETTING_PROPERTIES`). */
  readonly setting?: string;
  readonly children?: readonly Node[];
}

export interface PageOptions {
  readonly width: number;
  readonly height?: number;
  readonly scrollWidth?: number;
  readonly scrollHeight?: number;
  /** Of the html and body elements; the screen's where it is left out. */
  readonly bodyHeight?: number;
  readonly allowed?: readonly { readonly node: number; readonly rules: string }[];
  readonly matches?: readonly { readonly selector: string; readonly nodes: number[] }[];
  readonly direction?: 'ltr' | 'rtl';
  readonly overflowX?: string;
  readonly overflowY?: string;
  readonly scale?: number;
  /** What a phone shows of the page at first; the viewport's width where it is left out. */
  readonly shownWidth?: number;
  /** The room of the viewport's scroll bar, beside its width. */
  readonly scrollbar?: number;
  readonly viewportMeta?: string | null;
  /** Node, natural width, natural height, pixels for one px. */
  readonly pictures?: readonly Quad[];
  readonly sources?: readonly { readonly node: number; readonly address: string }[];
  readonly brokenPictures?: readonly { readonly node: number; readonly url: string }[];
  readonly labels?: readonly (readonly [field: number, label: number])[];
  readonly scrolled?: readonly (readonly [node: number, x: number, y: number])[];
  /** Baseline, rise, drop and height: see `LayoutSnapshot.faces`. */
  readonly faces?: readonly Quad[];
  readonly openers?: readonly (readonly [control: number, opened: number])[];
  readonly handles?: readonly (readonly [control: number, closed: number])[];
  readonly hoverReveals?: readonly (readonly [shown: number, hovered: number])[];
}

const INITIAL: Readonly<Record<string, string>> = {
  display: 'block',
  'background-color': 'rgba(0, 0, 0, 0)',
  'background-image': 'none',
  'box-shadow': 'none',
  color: 'rgb(0, 0, 0)',
  'font-size': '16px',
  'z-index': 'auto',
  height: 'auto',
  'max-height': 'none',
  top: 'auto',
  bottom: 'auto',
  'text-overflow': 'clip',
  'text-indent': '0px',
  'mask-image': 'none',
  position: 'static',
  float: 'none',
  visibility: 'visible',
  opacity: '1',
  'overflow-x': 'visible',
  'overflow-y': 'visible',
  direction: 'ltr',
  'writing-mode': 'horizontal-tb',
  'white-space': 'normal',
  'flex-direction': 'row',
  'flex-wrap': 'nowrap',
  transform: 'none',
  translate: 'none',
  filter: 'none',
  perspective: 'none',
  contain: 'none',
  'will-change': 'auto',
  'content-visibility': 'visible',
  'transform-style': 'flat',
  'offset-path': 'none',
  width: 'auto',
  'min-width': 'auto',
  'max-width': 'none',
  'clip-path': 'none',
  clip: 'auto',
  left: 'auto',
  right: 'auto',
};

/** Makes a snapshot of `html > body > children` without a browser. */
export function viewOf(options: PageOptions, children: readonly Node[]): SnapshotView {
  const { width, height = 800 } = options;
  const rootStyle = { 'overflow-x': options.overflowX ?? 'visible' };
  const tree: Node = {
    tag: 'html',
    box: [0, 0, width, options.bodyHeight ?? height],
    style: rootStyle,
    children: [{ tag: 'body', box: [0, 0, width, options.bodyHeight ?? height], children }],
  };

  const strings: string[] = [];
  const number = (text: string) => {
    const at = strings.indexOf(text);
    return at >= 0 ? at : strings.push(text) - 1;
  };
  const properties = [...STYLE_PROPERTIES, ...DECLARED_PROPERTIES];
  const nodes = noNodes();
  const lines: WireSnapshot['lines'] = { count: 0, node: [], box: [], text: [], flags: [], face: [] };
  const styles: number[] = [];
  const texts: number[] = [];
  const corners: number[] = [];

  const add = (node: Node, parent: number, nth: number) => {
    const at = nodes.count++;
    nodes.uid.push(nodes.uid.length);
    nodes.parent.push(parent);
    nodes.treeParent.push(parent);
    nodes.scope.push(-1);
    nodes.kind.push(KINDS[node.tag] ?? KIND_ELEMENT);
    nodes.tag.push(number(node.tag));
    nodes.id.push(number(node.id ?? ''));
    nodes.classes.push(number(node.class ?? ''));
    nodes.nth.push(nth);
    if (node.says !== undefined)
      texts.push(at, number(node.says), number(node.setting ?? '400;normal;none;normal;start'));
    if (node.corners !== undefined) corners.push(at, number(node.corners));
    nodes.flags.push(
      (node.says === undefined ? 0 : FLAG_TEXT) | (node.flags ?? 0) | (node.hidden ? 0 : FLAG_RENDERED),
    );
    nodes.style.push(at);
    for (const property of properties) styles.push(number(node.style?.[property] ?? INITIAL[property] ?? ''));
    nodes.box.push(...node.box);
    nodes.border.push(...(node.border ?? [0, 0, 0, 0]));
    nodes.padding.push(...(node.padding ?? [0, 0, 0, 0]));
    nodes.margin.push(...(node.margin ?? [0, 0, 0, 0]));
    nodes.scroll.push(...(node.scroll ?? [0, 0, 0, 0]));
    for (const line of node.lines ?? []) {
      lines.node.push(at);
      lines.box.push(...line.box);
      lines.text.push(number(line.text ?? 'text'));
      lines.flags.push(
        (line.unbreakable ? LINE_UNBREAKABLE : 0) |
          (line.field ? LINE_FIELD : 0) |
          (line.read ? LINE_READ : 0),
      );
      lines.face.push(line.face ?? -1);
      lines.count++;
    }
    const below = node.children ?? [];
    below.forEach((child, i) => {
      const alike = below.filter((other) => other.tag === child.tag);
      add(
        child,
        at,
        alike.length === 1 ? 0 : below.slice(0, i + 1).filter((other) => other.tag === child.tag).length,
      );
    });
  };
  add(tree, -1, 0);

  return new SnapshotView(
    fromWire({
      version: 1,
      url: 'http://127.0.0.1/',
      title: 'Hand-made',
      viewport: {
        width,
        height,
        shownWidth: options.shownWidth ?? width,
        shownHeight: height,
        scale: options.scale ?? 1,
        scrollbar: options.scrollbar ?? 0,
      },
      viewportMeta: options.viewportMeta === undefined ? 'width=device-width' : options.viewportMeta,
      scroll: { x: 0, y: 0 },
      document: { width: options.scrollWidth ?? width, height: options.scrollHeight ?? height },
      direction: options.direction ?? 'ltr',
      rootOverflow: { x: options.overflowX ?? 'visible', y: options.overflowY ?? 'visible' },
      pageFonts: [],
      strings,
      styleProperties: properties,
      styles,
      nodes,
      lines,
      faces: [...(options.faces ?? []).flat()],
      fragments: { count: 0, node: [], box: [] },
      shortFields: [],
      lowFields: [],
      scrolled: [...(options.scrolled ?? []).flat()],
      matches: [...(options.matches ?? [])],
      pictures: [...(options.pictures ?? []).flat()],
      texts,
      corners,
      sources: [...(options.sources ?? []).map(({ node, address }) => [node, number(address)]).flat()],
      brokenPictures: [...(options.brokenPictures ?? [])],
      labels: [...(options.labels ?? []).flat()],
      openers: [...(options.openers ?? []).flat()],
      handles: [...(options.handles ?? []).flat()],
      hoverReveals: [...(options.hoverReveals ?? []).flat()],
      allowed: [...(options.allowed ?? [])],
      leftOut: [],
    }),
  );
}
