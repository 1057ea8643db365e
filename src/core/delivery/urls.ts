/** An address without its query and fragment, which may carry tokens. */
export function withoutQuery(url: string): string {
  return url.replace(/[?#].*$/s, '');
}
