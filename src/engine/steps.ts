/** What a user does to a page, and what a script of theirs does. */
export type Input =
  | { readonly kind: 'click' | 'tap' | 'hover'; readonly selector: string }
  | { readonly kind: 'fill'; readonly selector: string; readonly text: string }
  | { readonly kind: 'press'; readonly key: string; readonly selector: string | null }
  | { readonly kind: 'choose'; readonly selector: string; readonly option: string }
  | { readonly kind: 'scrollTo'; readonly place: string | { readonly x: number; readonly y: number } }
  | { readonly kind: 'run'; readonly script: string };

/** One thing that is done to a page before it is captured. */
export type StepAction =
  | Input
  | { readonly kind: 'go'; readonly to: string }
  | { readonly kind: 'wait'; readonly until: WaitCondition }
  | { readonly kind: 'mark'; readonly state: string };

export type WaitCondition =
  | { readonly selector: string }
  | { readonly gone: string }
  | { readonly text: string }
  | { readonly network: 'quiet' }
  | { readonly ms: number };

export interface Step {
  readonly action: StepAction;
  /** Where it was written, `file:line`. */
  readonly where: string;
  /** 1-based place among the steps of its preparation. */
  readonly number: number;
}

/** Steps that bring a page into a state. Without a `mark` they change what the page itself is captured as. */
export interface Preparation {
  readonly name: string;
  readonly steps: readonly Step[];
}

/** The states that a preparation captures, in order. */
export function statesOf(preparation: Preparation): string[] {
  return preparation.steps.flatMap(({ action }) => (action.kind === 'mark' ? [action.state] : []));
}

/** A step in a few words, without what is typed: that may be secret. */
export function stepText({ action }: Step): string {
  switch (action.kind) {
    case 'go':
      return `go ${action.to}`;
    case 'fill':
      return `fill ${action.selector}`;
    case 'press':
      return `press ${action.key}`;
    case 'choose':
      return `choose "${action.option}" in ${action.selector}`;
    case 'scrollTo':
      return `scrollTo ${typeof action.place === 'string' ? action.place : `${action.place.x}, ${action.place.y}`}`;
    case 'wait':
      return `wait for ${Object.entries(action.until)
        .map(([what, value]) => `${what} ${String(value)}`)
        .join('')}`;
    case 'run':
      return 'run a script';
    case 'mark':
      return `mark ${action.state}`;
    default:
      return `${action.kind} ${action.selector}`;
  }
}
