/** What the server and the network gave a render, and what the page said about itself. URLs are without their query. */
export interface Delivery {
  /** The answers that led elsewhere, in order; the last one led to the render's final URL. */
  readonly redirects: readonly { readonly url: string; readonly status: number }[];
  readonly contentType: string | null;
  /** Requests and bytes on the wire by kind: document, stylesheet, image, font, script, … */
  readonly requests: Readonly<Record<string, { readonly count: number; readonly bytes: number }>>;
  readonly failures: readonly ResourceFailure[];
  /** Messages of console errors and of errors that no script caught, each once. */
  readonly consoleErrors: readonly string[];
  readonly pageErrors: readonly string[];
  /** Of the document, in milliseconds, as far as the protocol gives them. */
  readonly timing: {
    readonly dnsMs: number;
    readonly connectMs: number;
    readonly tlsMs: number;
    readonly waitMs: number;
  } | null;
  /** Equal for documents of the same structure, whatever their texts and tokens; null where it is not known. */
  readonly structure: string | null;
}

export interface ResourceFailure {
  readonly url: string;
  /** document, stylesheet, image, font, script, … */
  readonly kind: string;
  readonly status: number | null;
  /** In words: the status, or what the network said. */
  readonly reason: string;
  /** Refused by the browser: mixed content, content security policy, … */
  readonly blocked: boolean;
}

export const NO_DELIVERY: Delivery = {
  redirects: [],
  contentType: null,
  requests: {},
  failures: [],
  consoleErrors: [],
  pageErrors: [],
  timing: null,
  structure: null,
};
