/** What benchmarks of comparing measure, in one bundle: what a layout keeps of answers is numbered within one. */
export { differencesOf } from '../../src/core/compare/structure/differences.ts';
export { ALL_KINDS } from '../../src/core/compare/structure/difference.ts';
export { pairingOf } from '../../src/core/compare/pairing.ts';
export { SnapshotView } from '../../src/core/layout/view.ts';
export { fromWire } from '../../src/core/layout/wire.ts';
export { differingPixels } from '../../src/core/compare/pixels/differing.ts';
export { boxesIn } from '../../src/core/compare/pixels/boxes.ts';
export { pictureOf } from '../../src/core/compare/pixels/picture.ts';
