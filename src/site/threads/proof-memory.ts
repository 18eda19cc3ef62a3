// Pages that were proven to look as before, by their content in both states: what a draft has proven is not proven again when
// it is adopted. Believed only while every sheet and script that the proof asked for says what it said, in either state.

import type { ProofPart } from '../../core/proof/index.js';
import { keyOf, PageCache } from '../cache/page-cache.js';
import { fromPlain } from '../plain.js';
import type { SiteReader } from '../rendering/reader.js';
import type { ProveResult } from './job-model.js';

type Readers = readonly [SiteReader, SiteReader];

/** What a proof asks for besides the pages. */
interface Around {
  readonly files: readonly (readonly [state: number, file: string, digest?: string])[];
}

const NOTHING: Around = { files: [] };
/** Under which it is kept. */
const AROUND = 'around';
/** In place of what a page came to that depends on all others. */
const LATE = 'late';

export class ProofMemory {
  readonly #cache: PageCache;
  readonly #readers: Readers;
  readonly #isValid: boolean;
  readonly #keys = new Map<number, string>();
  /** What is known of pages, by number. */
  readonly known = new Map<number, ProofPart>();
  /** Numbers of the pages that must be compared. */
  readonly open: number[] = [];

  private constructor(root: string, readers: Readers) {
    this.#cache = new PageCache(root, 'proof');
    this.#readers = readers;
    const around = this.#cache.get(AROUND);
    this.#isValid = around !== undefined && this.#around(JSON.parse(around)) === around;
  }

  /**
   * In: the site's folder; its pages; both states. Out: `undefined` where pages are not proven each by itself: components,
   * and tags with template text, depend on all others.
   */
  static of(root: string, paths: readonly string[], readers: Readers): ProofMemory | undefined {
    const memory = new ProofMemory(root, readers);
    for (const [number, path] of paths.entries()) {
      const [was = '', is = ''] = readers.map((reader) => reader.page(path));
      if (readers.some((reader) => reader.isComponent(path))) return undefined;
      if (!memory.#look(number, keyOf('proof', path, was, is))) return undefined;
    }
    return memory;
  }

  /** Out: whether the page is proven by itself, as far as is known. */
  #look(number: number, key: string): boolean {
    const known = this.#isValid ? this.#cache.get(key) : undefined;
    this.#keys.set(number, key);
    if (known === LATE) return false;
    if (known === undefined) this.open.push(number);
    else this.known.set(number, fromPlain(known) as ProofPart);
    return true;
  }

  /** What was found now. In: the paths of the pages, as before. */
  note(paths: readonly string[], results: readonly ProveResult[]): void {
    for (const path of results.flatMap(({ late }) => late))
      this.#cache.set(this.#keys.get(paths.indexOf(path))!, LATE);
    for (const { each } of results)
      for (const [number, found] of each ?? []) this.#cache.set(this.#keys.get(number)!, found);
    const { files: earlier } = this.#isValid ? (JSON.parse(this.#cache.get(AROUND)!) as Around) : NOTHING;
    const files = new Map(earlier.map(([state, file]) => [`${state} ${file}`, [state, file] as const]));
    for (const { asked } of results)
      for (const [state, own] of (asked ?? []).entries())
        for (const file of own) files.set(`${state} ${file}`, [state, file]);
    const inOrder = [...files].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, one]) => one);
    this.#cache.set(AROUND, this.#around({ files: inOrder }));
  }

  save(): void {
    this.#cache.save();
  }

  /** What these files say now, and how the site is configured. */
  #around({ files }: Around): string {
    return JSON.stringify({
      config: this.#readers.map(({ config }) => config),
      meant: this.#readers.map(({ copies }) => [...copies]),
      files: files.map(([state, file]) => [
        state,
        file,
        keyOf(String(this.#readers[state]?.textAt(file)), String(this.#readers[state]?.isPlatform(file))),
      ]),
    });
  }
}
