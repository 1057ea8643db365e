/**
 * A short, stable digest of a text for ids: FNV-1a, 32 bits twice with different offsets, in base 36.
 * Source: Fowler, Noll, Vo, "The FNV Non-Cryptographic Hash Algorithm". Not for anything that must resist attack.
 */
export function digest(text: string): string {
  return (
    fnv1a(text, 0x811c9dc5).toString(36).padStart(7, '0').slice(0, 4) +
    fnv1a(text, 0x050c5d1f).toString(36).padStart(7, '0').slice(0, 4)
  );
}

function fnv1a(text: string, offset: number): number {
  let hash = offset;
  for (let i = 0; i < text.length; i++) {
    hash ^= text.charCodeAt(i);
    hash = Math.imul(hash, 0x01000193);
  }
  return hash >>> 0;
}
