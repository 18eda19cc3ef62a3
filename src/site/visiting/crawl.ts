// Brings pages and what they load, in the order of their distance from the start: so what a limit leaves out is the same
// every time.

import pLimit, { type LimitFunction } from 'p-limit';
import {
  FileNames,
  type Kind,
  type Lead,
  leadsOfPage,
  leadsOfSheet,
  mayBePage,
  originOf,
  readAddress,
} from '../../core/ask/visit/index.js';
import { resolveAddress } from '../../core/base/addresses.js';
import { decodeAs, decodeFile, standardName } from '../files/encoding.js';
import { digestOf, FileKeeper, keptBytes } from './keeper.js';
import type { FileEntry, Manifest, PageEntry } from './manifest.js';
import { type Answer, NotHad, type Source, UsedUp } from './source.js';

const HOPS = 10;

export interface CrawlOptions {
  readonly root: string;
  readonly source: Source;
  readonly starts: readonly string[];
  /** Whether links are followed. */
  readonly follows: boolean;
  /** The most pages. */
  readonly most: number;
  readonly depth: number;
  readonly atOnce: number;
  /** Fonts and pictures too. */
  readonly all: boolean;
  readonly isWanted: (address: string) => boolean;
  /** The visit before, whose files are there. */
  readonly before: Manifest | undefined;
  /** Files that were brought at this time or later need not be asked for again. */
  readonly begun: string;
  /** The page as a browser shows it; as it is sent without. */
  readonly render?: ((address: string) => Promise<readonly RenderedPage[]>) | undefined;
  readonly onPage?: ((done: number, of: number) => void) | undefined;
  /** Hears when all pages of one distance from the start are there. */
  readonly onLevel: () => void;
}

export interface RenderedPage {
  /** Of the window in pixels, for one that is another page than at the first width. */
  readonly width: number | undefined;
  readonly html: string;
}

export interface Crawled {
  readonly pages: Map<string, PageEntry & { readonly canonical?: string | undefined }>;
  readonly files: Map<string, FileEntry>;
  readonly addresses: Map<string, string>;
  /** Address to why it could not be had. */
  readonly failed: Map<string, string>;
  /** Addresses that lead to others. */
  readonly led: Map<string, string>;
  unchanged: number;
  /** Pages that were found and not visited: the limit was reached. */
  left: number;
  /** What was allowed and is used up. */
  usedUp: string | undefined;
}

export class Crawl {
  readonly found: Crawled = {
    pages: new Map(),
    files: new Map(),
    addresses: new Map(),
    failed: new Map(),
    led: new Map(),
    unchanged: 0,
    left: 0,
    usedUp: undefined,
  };
  origin: string;
  readonly #options: CrawlOptions;
  readonly #names: FileNames;
  readonly #keeper: FileKeeper;
  readonly #limit: LimitFunction;
  readonly #files = new Map<string, Promise<void>>();
  readonly #known = new Map<string, PageEntry | FileEntry>();
  /** Addresses of pages that somebody brings or has brought. */
  readonly #seen = new Set<string>();
  /** Addresses as written that mean one file here and another there. */
  readonly #ambiguous = new Set<string>();

  constructor(options: CrawlOptions) {
    this.#options = options;
    this.origin = options.before?.origin ?? originOf(options.starts[0]!);
    const known = [...(options.before?.pages ?? []), ...(options.before?.files ?? [])];
    this.#names = new FileNames(known.map(({ address, file }) => [address, file]));
    for (const one of known) this.#known.set(one.address, one);
    this.#keeper = new FileKeeper(options.root);
    this.#limit = pLimit(options.atOnce);
    for (const start of options.starts) this.#seen.add(start);
  }

  /** What is there by now: what is still being written is not among it. */
  get kept(): Crawled {
    const isThere = ([, { file }]: readonly [string, { readonly file: string }]): boolean =>
      !this.#keeper.isWriting(file);
    const { pages, files } = this.found;
    return {
      ...this.found,
      pages: new Map([...pages].filter(isThere)),
      files: new Map([...files].filter(isThere)),
    };
  }

  async run(): Promise<Crawled> {
    const { most, depth, isWanted, follows, starts } = this.#options;
    const seen = this.#seen;
    let level = [...starts];
    let asked = 0;
    for (let at = 0; level.length > 0 && this.found.usedUp === undefined; at++) {
      const room = Math.max(0, most - asked);
      this.found.left += Math.max(0, level.length - room);
      const now = level.slice(0, room);
      asked += now.length;
      const of = Math.min(most, asked);
      const leads = await Promise.all(now.map((address) => this.#limit(() => this.#page(address, at, of))));
      this.#options.onLevel();
      level = [];
      if (!follows || at >= depth) continue;
      for (const address of leads.flat()) {
        if (seen.has(address) || originOf(address) !== this.origin) continue;
        seen.add(address);
        if (mayBePage(address) && isWanted(address)) level.push(address);
      }
    }
    // What is waited for may lead to more.
    for (let many = -1; many !== this.#files.size; ) {
      many = this.#files.size;
      await Promise.all(this.#files.values());
    }
    await this.#keeper.settle();
    return this.found;
  }

  /** Out: the addresses that the page links. */
  async #page(address: string, at: number, of: number): Promise<readonly string[]> {
    if (this.found.usedUp !== undefined) return [];
    try {
      const leads = await this.#bringPage(address, at === 0);
      this.#options.onPage?.(this.found.pages.size, of);
      return leads;
    } catch (error) {
      this.#note(address, error);
      return [];
    }
  }

  #note(address: string, error: unknown): void {
    if (error instanceof UsedUp) this.found.usedUp ??= error.message;
    else if (error instanceof NotHad) this.found.failed.set(address, error.message);
    else throw error;
  }

  async #bringPage(asked: string, isStart: boolean): Promise<readonly string[]> {
    let address = asked;
    let answer: Answer | undefined;
    for (let hop = 0; answer === undefined; hop++) {
      if (hop > HOPS) throw new NotHad('leads from one address to the next and never ends');
      // Brought by a visit that was cut short: read where it lies.
      const kept = this.#keptNow(address);
      if (kept !== undefined) return this.#readPage(address, kept, undefined);
      const got = await this.#options.source.get(address, this.#validators(address), isPageType);
      if (got.redirect === undefined) {
        answer = got;
        continue;
      }
      const next = readAddress(got.redirect, address);
      if (next === undefined) throw new NotHad('leads to no address');
      if (originOf(next) !== this.origin) {
        // The front door may lead to the real one, and nothing else leads out of the site.
        if (!isStart || this.found.pages.size > 0)
          throw new NotHad(`leads to another host, ${originOf(next)}`);
        this.origin = originOf(next);
      }
      this.found.led.set(asked, next);
      address = next;
      if (this.#seen.has(address)) return [];
      this.#seen.add(address);
    }
    const before = this.#known.get(address);
    if (answer.status === 304 && before !== undefined) {
      const bytes = keptBytes(this.#options.root, before.file);
      if (bytes !== undefined) {
        this.found.unchanged++;
        return this.#readPage(address, { bytes, entry: { ...before, time: now() } }, undefined);
      }
    }
    if (answer.status !== 200) throw new NotHad(`answered ${answer.status}`);
    if (!isPageType(answer.type)) {
      // A link to a document or a picture is no fault of anybody's.
      if (isStart) throw new NotHad(`is no page (${answer.type || 'no type'})`);
      return [];
    }
    const digest = digestOf(answer.bytes);
    if (before?.digest === digest) this.found.unchanged++;
    const file = this.#names.nameOf(address, 'page', this.origin);
    const { etag, modified } = answer;
    const entry: PageEntry = {
      ...{ address, file, status: answer.status, time: now(), digest },
      ...(etag === undefined ? {} : { etag }),
      ...(modified === undefined ? {} : { modified }),
    };
    return this.#readPage(address, { bytes: answer.bytes, entry }, answer.charset);
  }

  async #readPage(
    address: string,
    { bytes: sent, entry }: { readonly bytes: Buffer; readonly entry: PageEntry | FileEntry },
    charset: string | undefined,
  ): Promise<readonly string[]> {
    const { render } = this.#options;
    const isFresh = entry.time >= this.#options.begun && this.#keptNow(address) === undefined;
    let bytes = sent;
    if (isFresh) {
      const [first, ...others] = render === undefined ? [] : await render(address);
      bytes = first === undefined ? inOneReading(sent, charset) : Buffer.from(first.html, 'utf8');
      await this.#keeper.keep(entry.file, bytes);
      for (const { width, html } of others) await this.#keepNarrow(entry, width ?? 0, html);
    }
    const text = decodeFile(bytes)?.text ?? bytes.toString('latin1');
    const leads = leadsOfPage(text, address);
    const { address: _, ...rest } = entry;
    this.found.pages.set(address, { address, ...pageOnly(rest), canonical: leads.canonical });
    await this.#load(leads.sheets, 'sheet', entry.file);
    await this.#load(leads.scripts, 'script', entry.file);
    if (this.#options.all) await this.#load(leads.others, 'other', entry.file);
    return leads.pages;
  }

  /** The same page in a narrower window, where scripts make another of it. */
  async #keepNarrow(
    { address, file, ...entry }: PageEntry | FileEntry,
    width: number,
    html: string,
  ): Promise<void> {
    const own = file.replace(/(\.html?)$/i, `-at-${width}$1`);
    await this.#keeper.keep(own, Buffer.from(html));
    const at = `${address}#at-${width}`;
    this.found.pages.set(at, {
      address: at,
      ...pageOnly(entry),
      file: own,
      digest: digestOf(Buffer.from(html)),
    });
  }

  async #load(leads: readonly Lead[], kind: Exclude<Kind, 'page'>, holder: string): Promise<void> {
    for (const lead of leads) {
      let loading = this.#files.get(lead.address);
      if (loading === undefined) {
        loading = this.#bringFile(lead.address, kind).catch((error: unknown) =>
          this.#note(lead.address, error),
        );
        this.#files.set(lead.address, loading);
      }
      const file = this.#names.nameOf(lead.address, kind, this.origin);
      const plain = resolveAddress(lead.text, holder);
      if (plain.kind !== 'site' || plain.path !== file) this.#learn(lead.text, file);
      await loading;
    }
  }

  #learn(text: string, file: string): void {
    const { addresses, failed } = this.found;
    const known = addresses.get(text);
    if (known === undefined && !this.#ambiguous.has(text)) addresses.set(text, file);
    else if (known !== undefined && known !== file) {
      this.#ambiguous.add(text);
      addresses.delete(text);
      failed.set(text, 'means one file on one page and another on the next');
    }
  }

  async #bringFile(address: string, kind: Exclude<Kind, 'page'>): Promise<void> {
    const { source, root } = this.#options;
    const file = this.#names.nameOf(address, kind, this.origin);
    let bytes: Buffer | undefined;
    let entry = this.#keptNow(address)?.entry;
    if (entry === undefined) {
      let at = address;
      let answer: Answer | undefined;
      for (let hop = 0; answer === undefined; hop++) {
        if (hop > HOPS) throw new NotHad('leads from one address to the next and never ends');
        const got = await source.get(at, at === address ? this.#validators(address) : {}, () => true);
        const next = got.redirect === undefined ? undefined : readAddress(got.redirect, at);
        if (got.redirect !== undefined && next === undefined) throw new NotHad('leads to no address');
        if (next === undefined) answer = got;
        else at = next;
      }
      const before = this.#known.get(address);
      if (answer.status === 304 && before !== undefined && keptBytes(root, before.file) !== undefined)
        entry = { ...before, time: now() };
      else if (answer.status !== 200) throw new NotHad(`answered ${answer.status}`);
      else {
        // A browser takes nothing else for a sheet, on pages of the standard's mode.
        if (kind === 'sheet' && answer.type === 'text/html') throw new NotHad('is a page, not a sheet');
        const { etag, modified, charset } = answer;
        bytes = kind === 'other' ? answer.bytes : inOneReading(answer.bytes, charset);
        await this.#keeper.keep(file, bytes);
        entry = {
          ...{ address, file, status: 200, time: now(), digest: digestOf(answer.bytes) },
          ...(etag === undefined ? {} : { etag }),
          ...(modified === undefined ? {} : { modified }),
        };
      }
    }
    this.found.files.set(address, { ...fileOnly(entry), kind });
    if (kind !== 'sheet') return;
    bytes ??= keptBytes(root, entry.file);
    const text = bytes === undefined ? '' : (decodeFile(bytes)?.text ?? '');
    const { imports, others } = leadsOfSheet(text, address);
    // One that imports itself is waited for by nobody.
    await this.#load(
      imports.filter((one) => !this.#files.has(one.address)),
      'sheet',
      file,
    );
    for (const one of imports) this.#learnIfOther(one, file);
    if (this.#options.all) await this.#load(others, 'other', file);
  }

  #learnIfOther({ text, address }: Lead, holder: string): void {
    const file = this.#names.nameOf(address, 'sheet', this.origin);
    const plain = resolveAddress(text, holder);
    if (plain.kind !== 'site' || plain.path !== file) this.#learn(text, file);
  }

  #validators(address: string): { etag?: string | undefined; modified?: string | undefined } {
    const { etag, modified, file } = this.#known.get(address) ?? {};
    if (file === undefined || keptBytes(this.#options.root, file) === undefined) return {};
    return { etag, modified };
  }

  /** What this visit has brought before it was cut short. */
  #keptNow(address: string): { bytes: Buffer; entry: PageEntry | FileEntry } | undefined {
    const entry = this.#known.get(address);
    if (entry === undefined || this.#options.before?.begun === undefined || entry.time < this.#options.begun)
      return undefined;
    const bytes = keptBytes(this.#options.root, entry.file);
    return bytes === undefined ? undefined : { bytes, entry };
  }
}

function isPageType(type: string): boolean {
  return type === 'text/html' || type === 'application/xhtml+xml';
}

function now(): string {
  return new Date().toISOString();
}

function pageOnly(entry: object): Omit<PageEntry, 'address'> {
  const { kind: _, ...rest } = entry as FileEntry;
  return rest;
}

function fileOnly(entry: PageEntry | FileEntry): PageEntry {
  const {
    kind: _,
    also: __,
    canonical: ___,
    ...rest
  } = entry as FileEntry & PageEntry & { canonical?: string };
  return rest;
}

/**
 * Bytes that are read without a server as a browser reads them with the header: a byte order mark decides, then the header,
 * then what stands in the file (HTML standard, "determining the character encoding").
 */
function inOneReading(bytes: Buffer, charset: string | undefined): Buffer {
  const name = charset === undefined ? undefined : standardName(charset);
  if (name === undefined || (name === 'utf-8' && decodeFile(bytes)?.encoding.name === name)) return bytes;
  const hasMark = bytes[0] === 0xef || bytes[0] === 0xfe || bytes[0] === 0xff;
  if (hasMark && decodeFile(bytes)?.encoding.mark === true) return bytes;
  const text = decodeAs(bytes, { name, mark: false }) ?? new TextDecoder(name).decode(bytes);
  return Buffer.from(`\uFEFF${text}`, 'utf8');
}
