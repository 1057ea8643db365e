import type { RenderFacts, RenderFault } from './job.js';

/** The browser went away, whoever ended it. */
export class BrowserGone extends Error {
  override readonly name = 'BrowserGone';
}

/** A failure that is the page's: it ends this page and nothing else. */
export class PageFault extends Error {
  override readonly name = 'PageFault';
  constructor(readonly fault: RenderFault) {
    super(fault.message);
  }
}

/** The page went elsewhere while it was being read: what was asked of it can be asked again. */
export class WorldLost extends Error {
  override readonly name = 'WorldLost';
}

/** A page that could not be opened, with what it met until then. */
export class PageNotOpened extends Error {
  override readonly name = 'PageNotOpened';
  constructor(
    readonly reason: unknown,
    readonly facts: RenderFacts,
  ) {
    super('the page could not be opened', { cause: reason });
  }
}

/** Something that was to be done to a page could not be done. */
export class StepFailed extends Error {
  override readonly name = 'StepFailed';
}
