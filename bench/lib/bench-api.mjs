/** What benchmarks measure by itself: bundled for them, since the built program has one door only. */
export { Judge, judge } from '../../src/core/findings/judge.ts';
export { findingsOfPage } from '../../src/core/findings/group.ts';
export { fromWire, toWire } from '../../src/core/layout/wire.ts';
export { NO_DELIVERY } from '../../src/core/delivery/delivery.ts';
export { RULES } from '../../src/core/rules/index.ts';
export { SnapshotView } from '../../src/core/layout/view.ts';
export { takeLooks } from '../../src/run/looks.ts';
