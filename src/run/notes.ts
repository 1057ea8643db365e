import { fontSetOf } from '../core/fonts/font-sets.js';
import { standInsOf } from '../core/fonts/stand-ins.js';
import type { SnapshotView } from '../core/layout/view.js';
import type { Device } from '../core/profile/profile.js';
import { withoutQuery } from '../core/delivery/urls.js';
import type { RenderRecord } from './manifest.js';

/** Where a profile was served something else than the first one was: told, since it is often meant. */
export function variantNotes(render: RenderRecord, all: readonly RenderRecord[]): string[] {
  const first = all.find((other) => other.status === 'ok' && other.page === render.page);
  if (!first || render.status !== 'ok' || render === first) return [];
  const address = (url: string | null) => (url === null ? undefined : withoutQuery(url));
  if (address(render.finalUrl) !== address(first.finalUrl)) {
    return [`was led to another address than ${first.profile}: ${address(render.finalUrl) ?? ''}`];
  }
  const { structure } = render.delivery;
  const differs =
    structure !== null && first.delivery.structure !== null && structure !== first.delivery.structure;
  return differs ? [`was served another document than ${first.profile}`] : [];
}

/** Where a page ended at another origin than it was asked from. */
export function redirectNotes(asked: string, ended: string | null): string[] {
  const left = ended !== null && URL.canParse(ended) && new URL(ended).origin !== new URL(asked).origin;
  return left ? [`redirected to another site, ${ended}`] : [];
}

/** Families that were not laid out as the device would: judgements on overflow lean on them. */
export function fontNotes(view: SnapshotView, device: Device): string[] {
  return standInsOf(view, fontSetOf(device.platform)).map(({ family, kind, font }) =>
    kind === 'device'
      ? `${family}: laid out with a stand-in, ${font ?? 'the nearest font'}`
      : `${family}: not on the page nor on the device, laid out with a stand-in`,
  );
}
