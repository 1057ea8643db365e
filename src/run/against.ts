import type { Manifest } from './manifest.js';
import { summarise } from './summarise.js';

/** What a run is held against: what was found before, by the ids of findings. */
export interface Known {
  readonly name: string;
  readonly ids: readonly string[];
}

/** A run that says which of its findings were known, and how many of the known ones are gone. */
export function heldAgainst(manifest: Manifest, { name, ids }: Known): Manifest {
  const found = new Set(manifest.findings.map(({ id }) => id));
  const known = ids.filter((id) => found.has(id));
  return { ...manifest, against: { name, known, gone: ids.length - known.length } };
}

/** A run without what was known before: what is listed and fails. */
export function onlyNew(manifest: Manifest): Manifest {
  if (!manifest.against) return manifest;
  const known = new Set(manifest.against.known);
  const findings = manifest.findings.filter(({ id }) => !known.has(id));
  return { ...manifest, findings, summary: summarise(manifest.renders, findings) };
}
