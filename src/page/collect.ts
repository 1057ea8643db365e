import { DECLARED_PROPERTIES, STYLE_PROPERTIES } from '../core/layout/snapshot.js';
import type { WireSnapshot } from '../core/layout/wire.js';
import { Collector } from './collector.js';
import { findAll } from './find.js';
import { pageFacts } from './page-facts.js';
import { relations } from './relations.js';

/** Past these the collector stops reading and says what it left out: a hostile page can't make it run for ever. */
const MAX_NODES = 200_000;
const MAX_MS = 20_000;
/** So often it looks at the clock. */
const ELEMENTS_A_LOOK = 256;

/** A snapshot, and what of it the page can't tell itself. */
export interface Collected {
  readonly snapshot: WireSnapshot;
  /** Rows of pseudo-elements of which the DOM tells neither box nor text. */
  readonly untold: readonly number[];
  /** Uids of elements that may have a closed shadow root. */
  readonly suspects: readonly number[];
}

/** Collects the layout snapshot of the page in one walk over its flat tree. */
export function collect(wanted: readonly string[] = [], isTrial = false): Collected {
  const rows = wanted.length > 0 ? new Map<Element, number>() : null;
  const leftOut = new Map<string, number>();
  const leave = (what: string, count = 1) => void leftOut.set(what, (leftOut.get(what) ?? 0) + count);
  const deadline = performance.now() + MAX_MS;
  const found = new Collector(rows, leave, isTrial);
  const { nodes, text, side, walk } = found;
  for (let entry = walk.next(); entry; entry = walk.next()) {
    const isLate = nodes.count % ELEMENTS_A_LOOK === 0 && performance.now() > deadline;
    if (isLate || nodes.count >= MAX_NODES) {
      leave('elements', walk.left + 1);
      break;
    }
    found.add(entry);
  }

  const { shortFields, lowFields, pictures, texts, sources, corners, brokenPictures, allowed } = side;
  const snapshot: WireSnapshot = {
    version: 1,
    ...pageFacts(),
    strings: found.strings.strings,
    styleProperties: [...STYLE_PROPERTIES, ...DECLARED_PROPERTIES],
    styles: found.styles.flat,
    nodes: nodes.columns,
    lines: text.lines,
    faces: [...text.faces],
    shortFields,
    lowFields,
    fragments: text.fragments,
    scrolled: nodes.scrolled,
    pictures,
    texts,
    sources,
    corners,
    brokenPictures,
    ...relations(found.elements, !isTrial, leave),
    allowed,
    matches: wanted.map((selector) => ({
      selector,
      nodes: allOf(selector).flatMap((element) => rows?.get(element) ?? []),
    })),
    leftOut: [...leftOut].map(([what, count]) => ({ what, count })),
  };
  return { snapshot, untold: found.generated.untold, suspects: found.suspects };
}

function allOf(selector: string): Element[] {
  try {
    return findAll(selector);
  } catch {
    return [];
  }
}
