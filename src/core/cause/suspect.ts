import type { NodeIndex } from '../layout/view.js';
import type { CauseName } from './cause.js';

/** A declaration that may be what makes an element fail, and what undoes it. */
export interface Suspect {
  readonly name: CauseName;
  readonly node: NodeIndex;
  /** The property whose declaration is at fault. */
  readonly property: string;
  /** Properties and values that take it out of force. */
  readonly undo: Readonly<Record<string, string>>;
  /** Where a value is missing rather than wrong: `undo` is what puts it there. */
  readonly puts?: boolean;
  /** What it does, with its numbers, as the start of a sentence. */
  readonly says: string;
}
