/**
 * Where a device wanted to go before it was asked; only ever a page of this app, as the browser itself reads the address.
 * @param search of the page's address; @param origin of this app.
 */
export function wantedPath(search: string, origin: string): string {
  const to = new URLSearchParams(search).get("to") ?? "/";
  if (!URL.canParse(to, origin)) return "/";
  const url = new URL(to, origin);
  // A path that began with two slashes would be another host once it is written out again.
  return url.origin === origin && !url.pathname.startsWith("//") ? `${url.pathname}${url.search}${url.hash}` : "/";
}
