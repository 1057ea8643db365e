/** An open-ended rectangle by its edges; an axis that nothing clips reaches to infinity. */
export interface Clip {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}
