import type { CDPSession } from 'puppeteer-core';
import type { WireSnapshot } from '../../core/layout/wire.js';

/**
 * Says how many closed shadow roots a page has: scripts can't see into them, ours neither, so what stands there is not
 * judged. The protocol tells of each element whether it has one.
 * @param suspects uids of elements that show something which is not in the page's own tree
 * @param handleOf the protocol's handle of an element
 */
export async function noteClosedRoots(
  session: CDPSession,
  wire: WireSnapshot,
  suspects: readonly number[],
  handleOf: (uid: number) => Promise<string | null>,
): Promise<void> {
  const isClosed = await Promise.all(
    suspects.map(async (uid) => {
      const objectId = await handleOf(uid);
      if (objectId === null) return false;
      const { node } = await session.send('DOM.describeNode', { objectId, depth: 0 });
      return node.shadowRoots?.some(({ shadowRootType }) => shadowRootType === 'closed') ?? false;
    }),
  );
  const count = isClosed.filter(Boolean).length;
  if (count > 0) wire.leftOut.push({ what: 'closed shadow roots', count });
}
