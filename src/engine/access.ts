/** What is sent along to reach pages that are not open to everybody. Everything in it may be secret. */
export interface Access {
  /** Sent to the page's own origin and to `origins`, never elsewhere. */
  readonly headers: Readonly<Record<string, string>>;
  readonly cookies: readonly Cookie[];
  /** HTTP authentication (RFC 7617), given to the same origins when they ask for it. */
  readonly credentials: { readonly username: string; readonly password: string } | null;
  /** Origins beside the page's own that get headers and credentials. */
  readonly origins: readonly string[];
  /** `localStorage` of each origin, put there before its first script runs. */
  readonly storage: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** Take TLS certificates that nobody vouches for. */
  readonly trustAnyCertificate: boolean;
}

export const NO_ACCESS: Access = {
  headers: {},
  cookies: [],
  credentials: null,
  origins: [],
  storage: {},
  trustAnyCertificate: false,
};

/** A cookie (RFC 6265). Without a domain it belongs to the host of the page. */
export interface Cookie {
  readonly name: string;
  readonly value: string;
  readonly domain?: string | undefined;
  readonly path?: string | undefined;
  readonly secure?: boolean | undefined;
  readonly httpOnly?: boolean | undefined;
  readonly sameSite?: 'Strict' | 'Lax' | 'None' | undefined;
  /** Seconds since 1970; none for a cookie of the session. */
  readonly expires?: number | undefined;
}

/** What a sign-in leaves behind in the browser. */
export interface SignedInState {
  readonly cookies: readonly Cookie[];
  readonly storage: Access['storage'];
}

/** Whether headers and credentials may go to a URL. */
export function isTrustedOrigin(access: Access, page: string, url: string): boolean {
  if (!URL.canParse(url)) return false;
  const { origin } = new URL(url);
  return origin === new URL(page).origin || access.origins.includes(origin);
}
