/** A canvas to measure text with; null where nothing can be measured. A document that is no HTML makes elements of its own kind. */
export function measuringCanvas(): CanvasRenderingContext2D | null {
  const canvas = document.createElementNS('http://www.w3.org/1999/xhtml', 'canvas') as HTMLCanvasElement;
  return canvas.getContext('2d');
}
