// The manifest of a visit: what it brought, each page once however many addresses it has, and what it could not ask again.

import path from 'node:path';
import type { Crawled } from './crawl.js';
import type { Manifest, PageEntry } from './manifest.js';

type Head = Pick<Manifest, 'start' | 'origin' | 'asked'>;

/** In: when it began, of a visit that did not end; the visit before. */
export function manifestOf(
  crawled: Crawled,
  head: Head,
  begun: string | undefined,
  before: Manifest | undefined,
): Manifest {
  const isKept = (address: string): boolean => begun !== undefined || staysAsItWas(crawled, address);
  const pages = onePageEach(crawled);
  const known = new Set(pages.flatMap(({ address, also = [] }) => [address, ...also]));
  const files = [...crawled.files.values()];
  const old = (before?.pages ?? []).filter(({ address }) => !known.has(address) && isKept(address));
  const oldFiles = (before?.files ?? []).filter(
    // A page that stays as it was has its sheets.
    ({ address }) => !crawled.files.has(address) && (old.length > 0 || isKept(address)),
  );
  const byAddress = (a: { address: string }, b: { address: string }): number =>
    a.address < b.address ? -1 : 1;
  return {
    format: 1,
    // In the order of the schema: read and written again it is the same text.
    start: head.start,
    origin: head.origin,
    asked: head.asked,
    ...(begun === undefined ? {} : { begun }),
    pages: [...pages, ...old].sort(byAddress),
    files: [...files, ...oldFiles].sort(byAddress),
    addresses: Object.fromEntries(
      [...(old.length > 0 ? Object.entries(before?.addresses ?? {}) : []), ...crawled.addresses].sort(),
    ),
  };
}

/** What could not be had, or was not asked any more, is what it was; what the site says is gone is gone. */
function staysAsItWas({ failed, usedUp, left }: Crawled, address: string): boolean {
  const why = failed.get(address);
  if (why === undefined) return usedUp !== undefined || left > 0;
  return why !== 'answered 404' && why !== 'answered 410';
}

/** The same page under two addresses is one: its own word for it decides, then the same text in the same folder. */
function onePageEach({ pages, led }: Crawled): PageEntry[] {
  const all = [...pages.values()].sort(
    (a, b) => a.address.length - b.address.length || (a.address < b.address ? -1 : 1),
  );
  const also = new Map<string, string[]>();
  const chosen = new Map<string, (typeof all)[number]>();
  const byText = new Map<string, string>();
  for (const one of all) {
    const text = `${path.posix.dirname(one.file)} ${one.digest}`;
    const own = pages.get(one.canonical ?? '');
    const isQuery = own !== undefined && withoutQuery(own.address) === withoutQuery(one.address);
    const same = own !== undefined && own !== one && isQuery ? own.address : byText.get(text);
    if (same === undefined || !(chosen.has(same) || pages.has(same))) {
      chosen.set(one.address, one);
      byText.set(text, one.address);
    } else also.set(same, [...(also.get(same) ?? []), one.address]);
  }
  for (const [from, to] of led) also.set(to, [...(also.get(to) ?? []), from]);
  return [...chosen.values()].map(({ canonical: _, ...entry }) => {
    const others = [...new Set(also.get(entry.address) ?? [])].filter((one) => one !== entry.address).sort();
    return others.length === 0 ? entry : { ...entry, also: others };
  });
}

function withoutQuery(address: string): string {
  return address.replace(/\?.*$/s, '');
}

/** Files of a manifest before that the one behind does not hold. */
export function goneFiles(before: Manifest, after: Manifest): string[] {
  const filesOf = ({ pages, files }: Manifest): string[] => [...pages, ...files].map(({ file }) => file);
  const now = new Set(filesOf(after));
  return filesOf(before).filter((file) => !now.has(file));
}
