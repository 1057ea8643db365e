// Which properties are read of which elements: see style-reader.ts.

/** Inherited: an element without text of its own has its parent's. */
export const OF_TEXT = [
  'white-space',
  'overflow-wrap',
  'font-family',
  'font-size',
  'line-height',
  'color',
  'text-indent',
] as const;

/** Initial unless some style sheet or style attribute names them, so pages that don't are spared the reading. */
export const RARE: Readonly<Record<string, string>> = {
  opacity: '1',
  transform: 'none',
  filter: 'none',
  float: 'none',
  'background-image': 'none',
  'background-clip': 'border-box',
  translate: 'none',
  rotate: 'none',
  scale: 'none',
  perspective: 'none',
  'backdrop-filter': 'none',
  'mix-blend-mode': 'normal',
  isolation: 'auto',
  'mask-image': 'none',
  'clip-path': 'none',
  contain: 'none',
  'will-change': 'auto',
  'content-visibility': 'visible',
  'transform-style': 'flat',
  'offset-path': 'none',
  'box-shadow': 'none',
  'writing-mode': 'horizontal-tb',
  'text-transform': 'none',
  'image-rendering': 'auto',
  'animation-iteration-count': '1',
  'transition-property': 'all',
  'corner-top-left-shape': 'round',
  'corner-top-right-shape': 'round',
  'corner-bottom-right-shape': 'round',
  'corner-bottom-left-shape': 'round',
};

export const BORDERS = [
  'border-top-color',
  'border-right-color',
  'border-bottom-color',
  'border-left-color',
] as const;
export const RADII = [
  'border-top-left-radius',
  'border-top-right-radius',
  'border-bottom-right-radius',
  'border-bottom-left-radius',
];
/** Sizes, with what they are where nothing says otherwise. */
export const SIZES: Readonly<Record<string, string>> = {
  width: 'auto',
  'min-width': 'auto',
  'max-width': 'none',
  height: 'auto',
  'max-height': 'none',
};
/** Inherited, of text or not; an element of which nothing says otherwise has its parent's. */
export const INHERITED = [
  ...OF_TEXT,
  'visibility',
  'direction',
  'writing-mode',
  'text-transform',
  'image-rendering',
];
const sides = (name: string) =>
  ['top', 'right', 'bottom', 'left', 'block-start', 'block-end', 'inline-start', 'inline-end'].map(
    (side) => `${name}-${side}`,
  );
const sizes = (name: string, prefix = '') => [name, `${prefix}inline-size`, `${prefix}block-size`];

/** What is followed to the elements on which it is set, each with the properties that say it. */
export const FOLLOWED: Readonly<Record<string, readonly string[]>> = {
  ...Object.fromEntries([...Object.keys(RARE), ...INHERITED].map((property) => [property, [property]])),
  width: sizes('width'),
  height: sizes('height'),
  'min-width': sizes('min-width', 'min-'),
  'max-width': sizes('max-width', 'max-'),
  'max-height': sizes('max-height', 'max-'),
  margin: sides('margin'),
  padding: sides('padding'),
  // A system colour is another one in another scheme.
  color: ['color', 'color-scheme'],
  'line-height': ['line-height', 'font-size', 'font-family'],
  'white-space': ['white-space', 'white-space-collapse', 'text-wrap', 'text-wrap-mode', 'text-wrap-style'],
};
export const OFFSETS = ['left', 'right', 'top', 'bottom'];
