/** What a viewport meta tag asks for. Null where it says nothing, or nothing that counts. */
export interface ViewportMeta {
  /** CSS px; null for `device-width` too. */
  readonly width: number | null;
  readonly isDeviceWidth: boolean;
  readonly initialScale: number | null;
  readonly maximumScale: number | null;
  readonly userScalable: boolean;
}

/** Reads the tag's content by the algorithm of CSS Viewport 1, section 4.3: names and values parted by `=`, pairs by `,` or `;`. */
export function readViewportMeta(content: string): ViewportMeta {
  const values = new Map<string, string>();
  for (const [, name = '', value = ''] of content.toLowerCase().matchAll(/([^\s,;=]+)\s*=\s*([^\s,;=]*)/g)) {
    values.set(name, value);
  }
  const number = (name: string): number | null => {
    const value = Number.parseFloat(values.get(name) ?? '');
    return Number.isNaN(value) ? null : value;
  };
  const scalable = values.get('user-scalable');
  const maximum = values.get('maximum-scale');
  return {
    width: number('width'),
    isDeviceWidth: values.get('width') === 'device-width',
    initialScale: number('initial-scale'),
    maximumScale: maximum === 'yes' ? 1 : number('maximum-scale'),
    // Words other than yes, device-width and device-height, and numbers between −1 and 1, mean no.
    userScalable:
      scalable === undefined ||
      /^(yes|device-width|device-height)$/.test(scalable) ||
      Math.abs(Number.parseFloat(scalable)) >= 1,
  };
}
