export interface ShotKinds {
  readonly fold: boolean;
  readonly full: boolean;
  /** Pixels of the full picture: one for a CSS px unless told, or those of the device. */
  readonly fullPixels?: 'css' | 'device' | undefined;
  /** PNG unless told; WebP, lossy, for what is only looked at. */
  readonly format?: Exclude<PictureFormat, 'jpeg'> | undefined;
  /** Whether the first screen is also written with a plain device drawn round it. */
  readonly framed?: boolean | undefined;
}

/** `jpeg` is for small pictures: the browser, which packs all pictures in one thread, needs a fifth of the time for it. */
export type PictureFormat = 'png' | 'webp' | 'jpeg';

/** A picture file. */
export interface Shot {
  readonly file: Buffer;
  /** PNG where a WebP file can't be so long. */
  readonly format: PictureFormat;
  /** Whether the page is longer than a picture can be. */
  readonly cut: boolean;
}
