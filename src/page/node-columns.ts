import type { WireSnapshot } from '../core/layout/wire.js';

type Nodes = WireSnapshot['nodes'];

/** The columns of a snapshot's elements, before there are any. */
export function noNodes(): Nodes {
  return {
    count: 0,
    uid: [],
    parent: [],
    scope: [],
    treeParent: [],
    kind: [],
    tag: [],
    id: [],
    classes: [],
    nth: [],
    flags: [],
    style: [],
    box: [],
    border: [],
    padding: [],
    margin: [],
    scroll: [],
  };
}
