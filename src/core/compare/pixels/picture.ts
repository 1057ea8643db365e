/** A decoded picture: four bytes a pixel (sRGB red, green, blue, alpha), rows from the top down without gaps. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  /** `width * height` pixels as 32-bit words, in the byte order of the machine: to compare pixels by one word. */
  readonly words: Uint32Array;
  /** The same memory, byte by byte. */
  readonly bytes: Uint8Array;
}

/** @param bytes RGBA, 4 × width × height; copied where they do not begin at a word */
export function pictureOf(width: number, height: number, bytes: Uint8Array): Picture {
  const aligned = bytes.byteOffset % 4 === 0 ? bytes : Uint8Array.from(bytes);
  return {
    width,
    height,
    words: new Uint32Array(aligned.buffer, aligned.byteOffset, width * height),
    bytes: aligned,
  };
}
