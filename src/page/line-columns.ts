import type { WireSnapshot } from '../core/layout/wire.js';
import { px, type Interner } from './columns.js';
import { FaceReader } from './faces.js';
import type { Box } from './pseudo-box.js';

/** Where the viewport of a document lies on the page: added to every rectangle of it. */
export interface Frame {
  readonly dx: number;
  readonly dy: number;
}

/** The lines of text of a snapshot, the faces that they are set in, and the boxes of what runs over several lines. */
export class LineColumns {
  readonly lines: WireSnapshot['lines'] = { count: 0, node: [], box: [], text: [], flags: [], face: [] };
  readonly fragments: WireSnapshot['fragments'] = { count: 0, node: [], box: [] };
  private readonly reader = new FaceReader();

  constructor(private readonly strings: Interner) {}

  get faces(): readonly number[] {
    return this.reader.rows;
  }

  /** The number of the face in which a text is drawn; −1 where that can't be told. */
  face(family: string, text: string): number {
    return this.reader.number(family, text);
  }

  add(owner: number, frame: Frame, rect: Box, text: string, flags: number, face = -1): void {
    const { lines } = this;
    lines.node.push(owner);
    pushBox(lines.box, frame, rect);
    lines.text.push(this.strings.number(text));
    lines.flags.push(flags);
    lines.face.push(face);
    lines.count++;
  }

  /** The boxes of an element, where it has several. */
  addFragments(element: Element, node: number, frame: Frame): void {
    const rects = element.getClientRects();
    if (rects.length < 2) return;
    const { fragments } = this;
    for (const rect of rects) {
      if (rect.width === 0) continue;
      fragments.node.push(node);
      pushBox(fragments.box, frame, rect);
      fragments.count++;
    }
  }
}

/** A rectangle of a frame as one of the page. */
export function pushBox(target: number[], { dx, dy }: Frame, { x, y, width, height }: Box): void {
  target.push(px(x + dx), px(y + dy), px(width), px(height));
}
