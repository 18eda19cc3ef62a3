// Addresses of a running system: one form for each, and what may be a page.

/** Endings of what is linked and is no page. */
const NO_PAGE =
  /\.(?:avif|bmp|bz2|css|csv|docx?|eot|epub|exe|gif|gz|ico|ics|jpe?g|js|json|m4a|m4v|mjs|mov|mp[34]|ods|odt|ogg|otf|pdf|png|pptx?|rar|rss|svg|tar|tiff?|ttf|txt|wav|web[mp]|woff2?|xlsx?|xml|zip)$/i;

/**
 * An address in the one form that it is asked for in: whole, without its fragment and without a person's name in it.
 * Out: `undefined` for what is no address of the web (WHATWG URL standard decides).
 */
export function readAddress(text: string, base?: string): string | undefined {
  if (!URL.canParse(text.trim(), base)) return undefined;
  const url = new URL(text.trim(), base);
  if (url.protocol !== 'http:' && url.protocol !== 'https:') return undefined;
  url.hash = '';
  url.username = '';
  url.password = '';
  return url.href;
}

export function originOf(address: string): string {
  return new URL(address).origin;
}

/** Whether an address may lead to a page, as far as its ending tells. */
export function mayBePage(address: string): boolean {
  return !NO_PAGE.test(new URL(address).pathname);
}

/** What patterns of `--match` and `--skip` are held against: path and query, without the first `/`. */
export function pathOf(address: string): string {
  const { pathname, search } = new URL(address);
  return decodePart(pathname).slice(1) + search;
}

/** Percent signs that spell nothing stay. */
export function decodePart(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
