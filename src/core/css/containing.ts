// Which boxes other boxes are laid out in and painted with, by their style alone: the one list of it.

/** Of an element, the computed value of a property; empty where it is not known. */
export type ComputedStyle = (property: ContainingProperty) => string;

export type ContainingProperty =
  | 'backdrop-filter'
  | 'clip-path'
  | 'contain'
  | 'content-visibility'
  | 'filter'
  | 'isolation'
  | 'mask-image'
  | 'mix-blend-mode'
  | 'offset-path'
  | 'opacity'
  | 'perspective'
  | 'position'
  | 'rotate'
  | 'scale'
  | 'transform'
  | 'transform-style'
  | 'translate'
  | 'will-change';

/** CSS Transforms 2, sections 3 and 8, CSS Motion Path 1: none of them applies to an inline box. */
const TRANSFORMS = ['transform', 'translate', 'rotate', 'scale', 'perspective', 'offset-path'] as const;
/** CSS Filter Effects 1, section 3, and 2: of inline boxes too. */
const FILTERS = ['filter', 'backdrop-filter'] as const;

/** What makes a box hold positioned ones, beside its position. */
export const HOLDERS: readonly string[] = [
  ...TRANSFORMS,
  ...FILTERS,
  'transform-style',
  'contain',
  'content-visibility',
  'will-change',
];

const CHANGES_BLOCK =
  /(^|[ ,])(transform|translate|rotate|scale|perspective|offset-path|transform-style|contain)(,|$)/;
const CHANGES_ANY = /(^|[ ,])(filter|backdrop-filter)(,|$)/;
const CHANGES_OPACITY = /(^|[ ,])opacity(,|$)/;
const CHANGES_STACKING =
  /(^|[ ,])(opacity|clip-path|mask|mask-image|z-index|isolation|mix-blend-mode|position|view-transition-name)(,|$)/;

/**
 * Whether a box holds what is `position: fixed` in it (CSS Positioned Layout 3, section 2.1). `container-type` holds nothing
 * since CSS Conditional 5 has taken layout containment from it.
 * @param isInline an inline box that is not replaced
 */
export function holdsFixed(style: ComputedStyle, isInline: boolean): boolean {
  if (FILTERS.some((property) => isSet(style(property)))) return true;
  const changes = style('will-change');
  if (CHANGES_ANY.test(changes)) return true;
  if (isInline) return false;
  return (
    TRANSFORMS.some((property) => isSet(style(property))) ||
    style('transform-style') === 'preserve-3d' ||
    /layout|paint|strict|content/.test(style('contain')) ||
    skipsContent(style) ||
    CHANGES_BLOCK.test(changes)
  );
}

/** Whether a box holds what is `position: absolute` in it. */
export function holdsAbsolute(style: ComputedStyle, isInline: boolean): boolean {
  const position = style('position');
  if (position !== 'static' && position !== '') return true;
  return holdsFixed(style, isInline) || /(^|[ ,])position(,|$)/.test(style('will-change'));
}

/** Whether a box cuts what sticks out of it, whatever its overflow (CSS Containment 2, sections 3.3 and 4). */
export function containsPaint(style: ComputedStyle): boolean {
  return /paint|strict|content/.test(style('contain')) || skipsContent(style);
}

/** Whether a box is painted as one, with all that is in it, whatever its `z-index` (CSS Compositing 1, section 3, and others). */
export function isPaintedAsOne(style: ComputedStyle, isInline: boolean): boolean {
  const position = style('position');
  if (position === 'fixed' || position === 'sticky') return true;
  const opacity = style('opacity');
  const blend = style('mix-blend-mode');
  return (
    (opacity !== '' && opacity !== '1') ||
    isSet(style('clip-path')) ||
    isSet(style('mask-image')) ||
    (blend !== '' && blend !== 'normal') ||
    style('isolation') === 'isolate' ||
    (isInline ? CHANGES_OPACITY : CHANGES_STACKING).test(style('will-change')) ||
    holdsFixed(style, isInline)
  );
}

const skipsContent = (style: ComputedStyle) => /^(auto|hidden)$/.test(style('content-visibility'));

function isSet(value: string): boolean {
  return value !== '' && value !== 'none';
}
