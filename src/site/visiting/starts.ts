// What a visit begins with: an address, a sitemap, a list of addresses or an archive.

import { existsSync, readFileSync, statSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import {
  type Archived,
  mayBePage,
  originOf,
  readAddress,
  readArchive,
  readSitemap,
} from '../../core/ask/visit/index.js';
import { linesOf } from '../../core/base/phrases.js';
import { UsageError } from '../../core/base/usage-error.js';
import { NotHad, type Source } from './source.js';

export type Start =
  | { readonly kind: 'address'; readonly address: string }
  | { readonly kind: 'pages'; readonly addresses: readonly string[] }
  | {
      readonly kind: 'archive';
      readonly answers: ReadonlyMap<string, Archived>;
      /** Of the host that the first of them is of. */
      readonly pages: readonly string[];
    };

/** In: an address, or a file. Throws `UsageError` for what is neither. */
export function readStart(text: string): Start {
  if (/^https?:\/\//i.test(text)) {
    const address = readAddress(text);
    if (address === undefined) throw new UsageError('visit-address', { text });
    return { kind: 'address', address };
  }
  if (!existsSync(text) || !statSync(text).isFile()) throw new UsageError('visit-start', { text });
  const bytes = readFileSync(text);
  if (text.toLowerCase().endsWith('.har')) {
    const answers = readArchive(bytes.toString('utf8'));
    if (typeof answers === 'string') throw new UsageError('visit-archive', { file: text, problem: answers });
    const all = [...answers]
      .filter(([, { status, type }]) => status === 200 && type.includes('html'))
      .map(([address]) => address);
    const pages = all.filter((one) => originOf(one) === originOf(all[0]!));
    if (pages.length === 0)
      throw new UsageError('visit-archive', { file: text, problem: 'it holds no page' });
    return { kind: 'archive', answers, pages };
  }
  const read = unpacked(bytes).toString('utf8');
  const map = /^\s*</.test(read) ? readSitemap(read, 'http://localhost/') : undefined;
  const addresses = map?.pages ?? readList(read, text);
  if (addresses.length === 0) throw new UsageError('visit-list', { file: text });
  return { kind: 'pages', addresses: oneHost(addresses, text) };
}

/** An address a line; a line that is empty or begins with `#` says nothing. */
function readList(text: string, file: string): string[] {
  return linesOf(text).flatMap((line, at) => {
    if (line.trim() === '' || line.trim().startsWith('#')) return [];
    const address = readAddress(line);
    if (address === undefined) throw new UsageError('visit-list-line', { file, line: at + 1 });
    return [address];
  });
}

function oneHost(addresses: readonly string[], file: string): readonly string[] {
  const origins = new Set(addresses.map(originOf));
  const [one, other] = origins;
  if (other !== undefined) throw new UsageError('visit-hosts', { file, one: one!, other });
  return [...new Set(addresses)];
}

const LARGEST = 100_000_000;
const MOST_MAPS = 200;

function unpacked(bytes: Buffer): Buffer {
  if (bytes[0] !== 0x1f || bytes[1] !== 0x8b) return bytes;
  try {
    return gunzipSync(bytes, { maxOutputLength: LARGEST });
  } catch {
    throw new NotHad('is packed, and cannot be unpacked or is too large');
  }
}

/** The pages that a sitemap names, and those that it leads to; `undefined` where an address leads to none. */
export async function pagesOfSitemap(source: Source, address: string): Promise<string[] | undefined> {
  const pages = new Set<string>();
  const left = [address];
  const seen = new Set(left);
  let isMap = false;
  for (let at = 0; at < left.length && at < MOST_MAPS; at++) {
    const answer = await source.get(left[at]!, {}, () => true);
    if (answer.status !== 200) {
      if (at === 0) throw new NotHad(`answered ${answer.status}`);
      continue;
    }
    const map = readSitemap(unpacked(answer.bytes).toString('utf8'), left[at]!);
    if (map === undefined) continue;
    isMap = true;
    for (const page of map.pages)
      if (originOf(page) === originOf(address) && mayBePage(page)) pages.add(page);
    for (const one of map.sitemaps)
      if (!seen.has(one) && originOf(one) === originOf(address)) {
        seen.add(one);
        left.push(one);
      }
  }
  return isMap ? [...pages] : undefined;
}

/** Whether an address looks as one of a sitemap. */
export function namesSitemap(address: string): boolean {
  return /\.xml(?:\.gz)?$/i.test(new URL(address).pathname);
}
