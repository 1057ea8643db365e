/** The narrowest width on the ruler, CSS px. */
const FROM = 280;

/** Widths along a ruler, as shares of its length. They double over even ways, as those of devices do. */
export interface RulerScale {
  placeOf(width: number): number;
  /** The whole width at a share; beyond its ends, that of the end. */
  widthAt(share: number): number;
}

/** @param to the widest, CSS px */
export function rulerScale(to: number): RulerScale {
  const length = Math.log(to / FROM);
  return {
    placeOf: (width) => Math.log(Math.max(FROM, width) / FROM) / length,
    widthAt: (share) => Math.round(FROM * Math.exp(length * Math.min(1, Math.max(0, share)))),
  };
}
