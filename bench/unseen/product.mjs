// What Isoptic finds on a page at the oracle's sizes: every size loaded by itself, judged together, as a check does.
import { DEFAULT_ENGINE, NO_ACCESS, NO_ALTERATIONS, pickProfiles } from '../../dist/index.js';
import { loadSource } from '../../scripts/load-source.mjs';
import { SIZES } from './oracle.mjs';

// All that reads layouts comes from one bundle: what is remembered of a layout is told apart by numbers that each bundle counts for itself.
const { findingsOfPage, Judge, NO_DELIVERY, RULES, SnapshotView, takeLooks } =
  await loadSource('bench/lib/bench-api.mjs');

const devices = await pickProfiles(
  SIZES.map(({ width, height, isMobile }) => `${width}x${height}${isMobile ? '+mobile' : ''}`),
);
export const PROFILES = devices.map(({ name }) => name);

export const startProduct = () => DEFAULT_ENGINE.launch({ fonts: 'linux', textScale: 1, log() {} });

/** Errors and warnings of one page. */
export async function findingsOn(session, url) {
  const renders = [];
  for (const device of devices) {
    const page = await session.open({
      url,
      device,
      access: NO_ACCESS,
      alter: NO_ALTERATIONS,
      timeoutMs: 30_000,
      signal: new AbortController().signal,
    });
    try {
      await page.settle('loaded');
      const view = new SnapshotView(await page.collect({ locate: [] }));
      const render = {
        page: 'page',
        device,
        view,
        httpStatus: null,
        delivery: NO_DELIVERY,
        essentials: [],
      };
      const probe = page.probe();
      await takeLooks(new Judge(RULES, {}), render, probe);
      await probe.close();
      renders.push(render);
    } finally {
      await page.close();
    }
  }
  return findingsOfPage('page', renders, RULES).filter(({ severity }) => severity !== 'notice');
}
