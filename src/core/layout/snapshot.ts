/**
 * The layout snapshot: an engine-neutral record of one laid-out page. The collector in `src/page` writes it, every rule
 * reads it, and it is enough by itself to run every rule again without a browser.
 *
 * It is a struct of arrays: row `i` of every node column belongs to the same element, and rows stand in flat-tree
 * order, so a parent stands before its children. Strings are interned: a column of string numbers holds indices into
 * `strings`. All lengths are CSS px; all rectangles are from the page's top left corner, transforms applied, four
 * numbers a row: x, y, width, height. Edge columns (border, padding, margin) hold top, right, bottom, left.
 */
export interface LayoutSnapshot {
  readonly version: 1;
  readonly url: string;
  readonly title: string;
  /** The layout viewport (the initial containing block), and what of it the screen shows at first. */
  readonly viewport: {
    readonly width: number;
    readonly height: number;
    /** `window.innerWidth`: the widest that the page can be shown on this device, in CSS px. */
    readonly shownWidth: number;
    readonly shownHeight: number;
    /** How far the page is shown enlarged (over 1) or shrunk (under 1). */
    readonly scale: number;
    /** The width that a classic scroll bar takes at the right edge; 0 for overlay scroll bars. */
    readonly scrollbar: number;
  };
  /** What the page's viewport meta tag says; null where it has none. */
  readonly viewportMeta: string | null;
  /** How far the page is scrolled. */
  readonly scroll: { readonly x: number; readonly y: number };
  /** The whole scrollable area of the page. `left` is there where it begins left of what is shown at first, below nothing. */
  readonly document: { readonly width: number; readonly height: number; readonly left?: number };
  /** `rtl` where the page begins on the right: its lines, or its blocks where lines run from top to bottom. */
  readonly direction: 'ltr' | 'rtl';
  /** Overflow that applies to the viewport after html and body have passed theirs on. */
  readonly rootOverflow: { readonly x: string; readonly y: string };
  /** Families of the web fonts that the page brings and that have loaded. */
  readonly pageFonts: readonly string[];
  readonly strings: readonly string[];
  /** Names of the style columns; those of `DECLARED_PROPERTIES` hold the computed value, not the used one. */
  readonly styleProperties: readonly string[];
  /** Rows of string numbers, one row a distinct style, one column a style property. */
  readonly styles: Int32Array;
  readonly nodes: {
    readonly count: number;
    /** A number that an element keeps for as long as its document is open: rows say nothing outside of their snapshot, this does. */
    readonly uid: Int32Array;
    /** Flat-tree parent, or −1. A frame's root element has the frame as its parent. */
    readonly parent: Int32Array;
    /** The shadow host or frame whose tree the element stands in, or −1 for the page's own document. */
    readonly scope: Int32Array;
    /** The parent in the element's own tree, or −1 at its top: differs from `parent` for slotted elements. */
    readonly treeParent: Int32Array;
    readonly kind: Uint8Array;
    readonly tag: Int32Array;
    readonly id: Int32Array;
    /** The class attribute with its white space folded. */
    readonly classes: Int32Array;
    /** 1-based position among siblings of the same tag; 0 when it is the only one. */
    readonly nth: Int32Array;
    readonly flags: Int32Array;
    readonly style: Int32Array;
    readonly box: Float64Array;
    readonly border: Float64Array;
    readonly padding: Float64Array;
    readonly margin: Float64Array;
    /** Inner size and content size of a scroll container: clientWidth, clientHeight, scrollWidth, scrollHeight. */
    readonly scroll: Float64Array;
  };
  /** What of its content each scroll container is scrolled past, three numbers each: node, x and y; only those that are. */
  readonly scrolled: Float64Array;
  /** The boxes of inline elements that are broken over several lines, one row a line. */
  readonly fragments: {
    readonly count: number;
    readonly node: Int32Array;
    readonly box: Float64Array;
  };
  /** One row a line of a text node. */
  readonly lines: {
    readonly count: number;
    /** The element (or pseudo-element) that the text stands in. */
    readonly node: Int32Array;
    readonly box: Float64Array;
    /** The text of the line where it was read (see LINE_UNBREAKABLE), else the start of the text node. */
    readonly text: Int32Array;
    readonly flags: Uint8Array;
    /** The row of `faces` that its letters are drawn with; −1 where that is not known. */
    readonly face: Int32Array;
  };
  /**
   * How letters stand in the box of a line, four numbers a face and script: where the baseline is, as a share of the box's
   * height from its top; how far letters rise over it and drop below it, em; and the height of the box, em.
   */
  readonly faces: Float64Array;
  /** Lines of fields that can't show all of their placeholder, or of a short value: line, and the width it wants, two numbers each. */
  readonly shortFields: Float64Array;
  /** Lines of text areas that are too low for their placeholder: line, and the height it wants, CSS px, two numbers each. */
  readonly lowFields: Float64Array;
  /** The elements of selectors that were asked for, in the order asked; a selector that is none has no elements. */
  readonly matches: readonly { readonly selector: string; readonly nodes: readonly number[] }[];
  /**
   * Pictures, four numbers each: node, natural width and height in CSS px, and how many pixels the file has for one px of
   * these (0 for a drawing, which has no pixels).
   */
  readonly pictures: Float64Array;
  /**
   * The words of each element of its own, three numbers each: node, its text with white space folded (`MOST_TEXT` characters at most), and how it is set beside what the styles
   * tell: weight, slant, lines, spacing and alignment as one text.
   */
  readonly texts: Int32Array;
  /** The radii of drawn boxes, two numbers each: node and text; only those that have some. */
  readonly corners: Int32Array;
  /** What pictures, films and frames show, two numbers each: node and address, its query left out. */
  readonly sources: Int32Array;
  /** Pictures that the browser has nothing to show for, with their address, its query left out. */
  readonly brokenPictures: readonly { readonly node: number; readonly url: string }[];
  /** Fields and their labels, two nodes a pair. */
  readonly labels: Int32Array;
  /** Controls and what they open, further or at all (`aria-controls`), where they do not say that it is open already; two nodes a pair. */
  readonly openers: Int32Array;
  /** Controls that say that something is closed (`aria-expanded`) and not what, each with what follows it and with what holds it; two nodes a pair. */
  readonly handles: Int32Array;
  /** What only hovering shows: the node that is shown, and the one that has to be hovered. */
  readonly hoverReveals: Int32Array;
  /** Elements that the page exempts from rules by `data-isoptic-allow`: what stands in the attribute. */
  readonly allowed: readonly { readonly node: number; readonly rules: string }[];
  /** What was seen in pixels of doubtful spots, once they were looked at in the live page. */
  looks?: readonly Look[];
  /** What the collector did not read, and how much of it. Empty when the snapshot is complete. */
  readonly leftOut: readonly { readonly what: string; readonly count: number }[];
}

/** What a look at pixels showed of words, or a control, that something lies over. */
export interface Look {
  /** The uids of what lies over them, and of the element that they stand in. */
  readonly cover: number;
  readonly under: number;
  /** The uid of what stays on the screen, where they meet only while the page scrolls past it. */
  readonly bar?: number;
  /** The middle of the spot, CSS px of the page, where the two meet at several: each line of words is one. */
  readonly at?: { readonly x: number; readonly y: number };
  /** How much ink of them there is in the spot when nothing lies over it, and how much of that can't be seen, CSS px². */
  readonly ink: number;
  readonly hidden: number;
}

export const KIND_ELEMENT = 0;
export const KIND_BEFORE = 1;
export const KIND_AFTER = 2;

/**
 * Has a box: not `display: none`, not in a closed `<details>`, not in hidden `content-visibility`. Of `display: contents`, has words that are
 * shown: its box is where they stand.
 */
export const FLAG_RENDERED = 1;
/** Takes input: link, button, field, or an element with such a role. */
export const FLAG_CONTROL = 2;
/** Shows content of its own: picture, video, canvas, frame, field. */
export const FLAG_REPLACED = 4;
/** Has text of its own that is not blank. */
export const FLAG_TEXT = 8;
/** In the top layer: modal dialog, open popover, full screen. */
export const FLAG_TOP_LAYER = 16;
/** Inside an SVG picture: identity only, no box and no style, but for its words and what lies over them. */
export const FLAG_IN_PICTURE = 32;
/** Hidden from assistive technology (`aria-hidden`) or inert, itself or by an ancestor. */
export const FLAG_ARIA_HIDDEN = 64;

/** A picture: image, drawing, video, canvas or a frame's document. */
export const FLAG_PICTURE = 128;
/** A field that is typed into or chosen from. */
export const FLAG_FIELD = 256;
export const FLAG_HEADING = 512;
/** A link of the page leads to it. */
export const FLAG_ANCHOR_TARGET = 1024;
/** A label of a field. */
export const FLAG_LABEL = 4096;

/** A control that says that it has opened something, or has something to open (`aria-expanded="true"`, `aria-haspopup`). */
export const FLAG_OPENER = 2048;

/** A pseudo-element that shows a picture (`content: url()`). */
export const FLAG_PICTURE_CONTENT = 8192;

/** A link to a place on the same page. */
export const FLAG_PAGE_LINK = 16384;

/** Says by its role that it lies over the page for a while: dialog, tooltip, menu, list box. */
export const FLAG_OVERLAY = 32768;

/** A frame whose document may not be scrolled. */
export const FLAG_STILL_FRAME = 65536;
/** A video or a sound that is played by keys of its own, along its lower edge. */
export const FLAG_PLAYER = 131072;

/** A picture that says that it is no more than an ornament: an empty `alt`, or a role of that kind. */
export const FLAG_ORNAMENT = 262144;

/** A shape in an SVG picture that lies over words of it, and through which nothing is seen: with its box and its style. */
export const FLAG_SOLID = 524288;

/** What the setting of a text tells, in this order. */
export const SETTING_PROPERTIES = [
  'font-weight',
  'font-style',
  'text-decoration-line',
  'letter-spacing',
  'text-align',
  'word-spacing',
] as const;
/** Of longer texts the rest is told by its length and a digest. */
export const MOST_TEXT = 600;

/** The line holds no place where it could have been broken, as it is styled. */
export const LINE_UNBREAKABLE = 1;
/** What stands in a field: its value or its placeholder. */
export const LINE_FIELD = 2;
/** Its text is all that stands on it, and nothing else. */
export const LINE_READ = 4;
/** Of what stands in a field, so many letters are taken in at a glance: they have to be seen whole. */
export const FEW_LETTERS = 16;

/** Properties whose resolved value (`getComputedStyle`) is stored. */
export const STYLE_PROPERTIES = [
  'display',
  'position',
  'float',
  'visibility',
  'opacity',
  'overflow-x',
  'overflow-y',
  'overflow-clip-margin',
  'direction',
  'writing-mode',
  'white-space',
  'overflow-wrap',
  'text-overflow',
  'font-family',
  'font-size',
  'line-height',
  'flex-direction',
  'flex-wrap',
  'flex-shrink',
  'flex-grow',
  'order',
  'transform',
  'translate',
  'filter',
  'perspective',
  'contain',
  'will-change',
  'content-visibility',
  'transform-style',
  'offset-path',
  'clip',
  'clip-path',
  'z-index',
  'box-sizing',
  'rotate',
  'scale',
  'backdrop-filter',
  'mix-blend-mode',
  'isolation',
  'mask-image',
  'background-color',
  'background-image',
  'background-size',
  'background-clip',
  'border-top-color',
  'border-right-color',
  'border-bottom-color',
  'border-left-color',
  'box-shadow',
  'color',
  'object-fit',
  'text-indent',
  'text-transform',
  'image-rendering',
  'border-top-left-radius',
  'border-top-right-radius',
  'border-bottom-right-radius',
  'border-bottom-left-radius',
  'corner-top-left-shape',
  'corner-top-right-shape',
  'corner-bottom-right-shape',
  'corner-bottom-left-shape',
  'vertical-align',
  '-webkit-line-clamp',
  'scroll-margin-top',
  'scroll-padding-top',
  'animation-iteration-count',
  'transition-property',
  'grid-area',
] as const;

/** Properties whose computed value (`computedStyleMap`) is stored, so that `auto` and percentages stay visible. */
export const DECLARED_PROPERTIES = [
  'width',
  'min-width',
  'max-width',
  'height',
  'flex-basis',
  'grid-template-columns',
  'grid-template-rows',
  'left',
  'right',
  'max-height',
  'top',
  'bottom',
] as const;

export type StyleProperty = (typeof STYLE_PROPERTIES)[number];
export type DeclaredProperty = (typeof DECLARED_PROPERTIES)[number];
