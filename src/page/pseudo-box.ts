/** A rectangle in the coordinates of the viewport. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * The border box of an absolutely positioned pseudo-element, computed from its used offsets and size, since the DOM
 * gives no box for it. Null for one in flow, whose place can't be asked for.
 * @param containing padding box of its containing block
 */
export function pseudoBox(style: CSSStyleDeclaration, containing: Box): Box | null {
  if (style.position !== 'absolute' && style.position !== 'fixed') return null;
  const left = Number.parseFloat(style.left);
  const top = Number.parseFloat(style.top);
  let width = Number.parseFloat(style.width);
  let height = Number.parseFloat(style.height);
  if ([left, top, width, height].some(Number.isNaN)) return null;
  if (style.boxSizing !== 'border-box') {
    const sum = (...values: string[]) =>
      values.reduce((total, value) => total + (Number.parseFloat(value) || 0), 0);
    width += sum(style.paddingLeft, style.paddingRight, style.borderLeftWidth, style.borderRightWidth);
    height += sum(style.paddingTop, style.paddingBottom, style.borderTopWidth, style.borderBottomWidth);
  }
  const x = containing.x + left + (Number.parseFloat(style.marginLeft) || 0);
  const y = containing.y + top + (Number.parseFloat(style.marginTop) || 0);
  return transformed({ x, y, width, height }, style);
}

/** The upright bounding box after the element's own transform (CSS Transforms 1, about its transform-origin). */
function transformed(box: Box, style: CSSStyleDeclaration): Box {
  if (style.transform === 'none') return box;
  const matrix = new DOMMatrixReadOnly(style.transform);
  const [originX = 0, originY = 0] = style.transformOrigin.split(' ').map((part) => Number.parseFloat(part));
  const corners = [
    [0, 0],
    [box.width, 0],
    [0, box.height],
    [box.width, box.height],
  ].map(([cx = 0, cy = 0]) => matrix.transformPoint({ x: cx - originX, y: cy - originY }));
  const xs = corners.map((corner) => corner.x + originX);
  const ys = corners.map((corner) => corner.y + originY);
  const x = Math.min(...xs);
  const y = Math.min(...ys);
  return { x: box.x + x, y: box.y + y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}
