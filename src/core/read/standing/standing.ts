// Where the parts of a site stand: layouts, blocks and includes followed by the names that are written in them.

import { getOrInsert } from '../../base/get-or-insert.js';
import { endingOf } from '../kinds/index.js';
import { type Around, type Chain, type Page, type PageInclusion, parsePage } from '../markup/index.js';
import { type Filling, fillingsIn, withBrought } from './brought.js';
import { ANYWHERE, chainsOf, elementsAround, isOfHead, takesIn, type Way } from './chains.js';

/** Which files the names in templates mean: engine text is never edited, so this is so of every state of a site. */
export interface Mentions {
  /** By path, of each of its inclusions in order: the files that it may mean; none for all that code could name. */
  readonly targets: ReadonlyMap<string, readonly (readonly string[])[]>;
  /** Parts that something else may show, too: code names them. */
  readonly elsewhere: ReadonlySet<string>;
  /** Where code says the name of what is shown: each part of the same kind may be meant. */
  readonly computed: readonly Mention[];
}

/** A place in a file where others are shown. */
export interface Mention {
  readonly path: string;
  /** Number of the inclusion in its file. */
  readonly at: number;
}

export const NO_MENTIONS: Mentions = { targets: new Map(), elsewhere: new Set(), computed: [] };

/** In more ways than this a part is taken to stand anywhere. */
const MOST_WAYS = 24;
/** Layouts that fill more others fill each other. */
const DEEPEST = 16;
/** What shows where something would stand that came behind all of a file. */
const HERE = 'acervus-here';
/** By page as it is by itself, what came of it, by all that was added. */
const placed = new WeakMap<Page, Map<string, Page>>();

export class Standing {
  readonly #mentions: Mentions;
  readonly #pageAt: (path: string) => Page | undefined;
  /** By path of a part, who names it. */
  readonly #namedBy = new Map<string, Mention[]>();
  readonly #open = new Map<string, Way>();
  /** By path of a layout; see `#fillingsOf`. */
  readonly #filled = new Map<string, readonly Filling[]>();
  #anyLayout: readonly Mention[] | undefined;
  /** By path and offset; those that are being looked for stand in themselves. */
  readonly #ways = new Map<string, readonly Way[]>();

  /** In: the pages of one state, parsed, without what this finds out. */
  constructor(mentions: Mentions, pageAt: (path: string) => Page | undefined) {
    this.#mentions = mentions;
    this.#pageAt = pageAt;
    for (const [path, targets] of mentions.targets)
      for (const [at, files] of targets.entries())
        for (const file of files) getOrInsert(this.#namedBy, file, () => []).push({ path, at });
  }

  get isEmpty(): boolean {
    return this.#mentions.targets.size === 0;
  }

  /** A page with the sheets and scripts that its parts bring; itself without any. */
  bring(page: Page): Page {
    if (this.isEmpty) return page;
    const targetsOf = (path: string, at: number): readonly string[] => this.#targetsOf(path, at);
    const fillingsOf = (path: string): readonly Filling[] => this.#fillingsOf(path);
    return withBrought(page, { targetsOf, pageAt: this.#pageAt, fillingsOf });
  }

  /** The same, and a part with what is known of its surroundings. One and the same page where all of that is the same. */
  place(page: Page): Page {
    if (this.isEmpty) return page;
    const brought = this.bring(page);
    const around = page.kind === 'page' ? undefined : this.#aroundOf(page);
    if (brought === page && around === undefined) return page;
    const more = [...brought.sheets, ...brought.scripts].flatMap((one) =>
      one.broughtBy === undefined
        ? 'by' in one && one.by === 'engine at times'
          ? one.by
          : []
        : one.kind === 'link'
          ? one.address
          : `${one.broughtBy.path}\n${one.text}`,
    );
    const known = getOrInsert(placed, page, () => new Map<string, Page>());
    return getOrInsert(known, `${around?.key}\n\n${more.join('\n')}`, () =>
      around === undefined ? brought : { ...brought, around },
    );
  }

  #targetsOf(path: string, at: number): readonly string[] {
    return this.#mentions.targets.get(path)?.[at] ?? [];
  }

  /** The blocks that files fill which extend a layout, themselves or through others. */
  #fillingsOf(layout: string): readonly Filling[] {
    return getOrInsert(this.#filled, layout, () => {
      this.#anyLayout ??= this.#ofAnyLayout();
      const found = new Map<string, readonly Filling[]>([[layout, []]]);
      // A map takes in what comes up while it is gone through.
      for (const [path] of found)
        for (const { path: own, at } of [...(this.#namedBy.get(path) ?? []), ...this.#anyLayout]) {
          const page = this.#pageAt(own);
          if (page?.inclusions[at]?.kind === 'extends' && !found.has(own)) found.set(own, fillingsIn(page));
        }
      return [...found.values()].flat();
    });
  }

  /** What extends a layout that is not at hand or holds no markup, or that code names: it may be any, or hand on any. */
  #ofAnyLayout(): readonly Mention[] {
    const isNone = (file: string): boolean => this.#pageAt(file) === undefined;
    return [...this.#mentions.targets].flatMap(([path, targets]) =>
      targets.flatMap((files, at) =>
        files.every(isNone) && this.#pageAt(path)?.inclusions[at]?.kind === 'extends' ? { path, at } : [],
      ),
    );
  }

  #aroundOf(page: Page): Around | undefined {
    const ranges = this.#rangesOf(page).map(({ start, end }) => {
      const all = this.#waysFrom(page, start);
      const ways = all.map((way) => (takesIn(way, page) ? way : ANYWHERE));
      const isInHead = all.length > 0 && all.every(({ elements }) => elements.at(-1)?.name === 'head');
      const isKnown =
        ways.length <= MOST_WAYS &&
        ways.every(({ elements, root }) => root !== undefined || elements.length > 0);
      return { start, end, ways, isInHead, chains: isKnown ? chainsOf(ways, page) : NONE };
    });
    const roots = ranges.flatMap(({ ways }) => ways.map(({ root }) => root?.path));
    const isAll = roots.length > 0 && roots.every((one) => one !== undefined);
    const shownBy = isAll ? [...new Set(roots as string[])].sort() : undefined;
    const isInHead = ranges.length > 0 && ranges.every((one) => one.isInHead);
    if (shownBy === undefined && !isInHead && ranges.every(({ chains }) => chains.length === 0))
      return undefined;
    const known = ranges.filter(({ chains }) => chains.length > 0);
    const keys = known.map(
      ({ start, end, chains }) => `${start}-${end}:${chains.map(({ key }) => key).join('|')}`,
    );
    return {
      key: `${shownBy?.join() ?? '*'} ${isInHead}\n${keys.join('\n')}`,
      ranges: known.map(({ start, end, chains }) => ({ start, end, chains })),
      isInHead,
      shownBy,
    };
  }

  /** Parts of a file whose tops stand alike: what a block holds, what stands between two inclusions, or all of it. */
  #rangesOf(page: Page): { start: number; end: number }[] {
    const tops = page.inclusions.filter(({ element }) => element < 0);
    const isFilling = page.inclusions.some(({ kind }) => kind === 'extends');
    const blocks = isFilling ? tops.filter(({ kind, end, until }) => kind === 'block' && until > end) : [];
    const outer = blocks.filter(
      (one) => !blocks.some((other) => other.end < one.start && one.start < other.until),
    );
    const held = outer.map(({ end, until }) => ({ start: end, end: until }));
    const ends = [0, ...tops.flatMap(({ kind, end }) => (kind === 'include' ? [end] : [])), page.text.length];
    const between = ends.slice(0, -1).map((start, at) => ({ start, end: ends[at + 1]! }));
    const left = between.filter(({ start }) => !held.some((one) => one.start <= start && start < one.end));
    return [...held, ...left].filter(({ start, end }) => start < end).sort((a, b) => a.start - b.start);
  }

  /** The ways up from a place at the top of a part. */
  #waysFrom(page: Page, offset: number): readonly Way[] {
    const key = `${page.path}:${offset}`;
    const known = this.#ways.get(key);
    if (known !== undefined) return known;
    // What shows itself stands in itself, however often.
    this.#ways.set(key, [ANYWHERE]);
    const found = this.#findWays(page, offset);
    const ways = found.length > MOST_WAYS ? [ANYWHERE] : found;
    this.#ways.set(key, ways);
    return ways;
  }

  #findWays(page: Page, offset: number): readonly Way[] {
    const above = this.#waysOut(page, offset);
    // `header.php` opens what the tops of the file stand in.
    const [opener, ...others] = this.#openersBefore(page, offset);
    if (opener === undefined) return above;
    if (others.length > 0) return [ANYWHERE];
    return opener.flatMap((path): readonly Way[] => {
      const own = this.#openAtEnd(path);
      if (own.root !== undefined || own.elements.length === 0) return own === ANYWHERE ? [ANYWHERE] : [own];
      return above.map((way) => ({ ...way, elements: [...way.elements, ...own.elements] }));
    });
  }

  /** Inclusions in front of a place, at the top of a part, that leave something open: the files that each may mean. */
  #openersBefore(page: Page, offset: number): (readonly string[])[] {
    return page.inclusions.flatMap(({ kind, element, end }, at) => {
      if (kind !== 'include' || element >= 0 || end > offset) return [];
      const files = this.#targetsOf(page.path, at);
      return files.some((file) => {
        const { elements, root } = this.#openAtEnd(file);
        return elements.length > 0 || root !== undefined;
      })
        ? [files]
        : [];
    });
  }

  /** What a file opens and does not close: as a page, where it begins one that another file ends. */
  #openAtEnd(path: string): Way {
    return getOrInsert(this.#open, path, () => {
      const page = this.#pageAt(path);
      if (page === undefined || /<\/(?:body|html)\s*>/i.test(page.text))
        return { elements: [], root: undefined };
      const text = `${page.text}<${HERE}></${HERE}>`;
      const whole = parsePage(path, text, page.kind === 'component');
      const mark = whole.elements.findLast(({ name }) => name === HERE);
      if (mark === undefined) return ANYWHERE;
      const { elements, isSure } = elementsAround(whole, mark.parent, page.text.length);
      return { elements, root: isSure && page.kind === 'page' ? page : undefined };
    });
  }

  #waysOut(page: Page, offset: number): readonly Way[] {
    const layout = page.inclusions.findIndex(({ kind }) => kind === 'extends');
    if (layout >= 0) {
      const files = this.#targetsOf(page.path, layout);
      const block = page.inclusions.findLast(
        ({ kind, end, until }) => kind === 'block' && end <= offset && offset < until,
      );
      const found = files.flatMap((file) => this.#placesIn(file, block?.names[0], 0));
      return found.length === 0 ? [ANYWHERE] : found;
    }
    const named = this.#namedBy.get(page.path) ?? [];
    const ending = endingOf(page.path);
    // Sheets and scripts alone are shown by name: what is computed is something to look at.
    const mayBeMeant = named.length > 0 && !isOfHead(page);
    const computed = mayBeMeant ? this.#mentions.computed.filter((one) => endingOf(one.path) === ending) : [];
    const ways = [...named, ...computed].flatMap(({ path, at }) => this.#wayAt(path, at));
    if (ways.length === 0 || this.#mentions.elsewhere.has(page.path)) return [...ways, ANYWHERE];
    return ways;
  }

  /** Where a layout puts a block; what no block holds, where it puts all that it is filled with. */
  #placesIn(file: string, block: string | undefined, depth: number): readonly Way[] {
    const layout = this.#pageAt(file);
    if (layout === undefined || depth > DEEPEST) return [ANYWHERE];
    const own = layout.inclusions.flatMap((one, at) => (isPlaceOf(one, block) ? [at] : []));
    if (own.length > 0) return own.flatMap((at) => this.#wayAt(file, at));
    const above = layout.inclusions.findIndex(({ kind }) => kind === 'extends');
    if (above < 0) return [ANYWHERE];
    return this.#targetsOf(file, above).flatMap((one) => this.#placesIn(one, block, depth + 1));
  }

  #wayAt(path: string, at: number): readonly Way[] {
    const holder = this.#pageAt(path);
    const inclusion = holder?.inclusions[at];
    if (holder === undefined || inclusion === undefined) return [ANYWHERE];
    const { elements, isSure } = elementsAround(holder, inclusion.element, inclusion.start);
    if (!isSure) return [{ elements, root: undefined }];
    const [top] = elements;
    const start = top?.tag?.range.start ?? inclusion.start;
    // What a page includes at its top stands around all of its elements, or beside them.
    if (holder.kind === 'page') return [elements.length === 0 ? ANYWHERE : { elements, root: holder }];
    return this.#waysFrom(holder, start).map((way) => ({
      ...way,
      elements: [...way.elements, ...elements],
    }));
  }
}

const NONE: readonly Chain[] = [];

function isPlaceOf({ kind, names }: PageInclusion, block: string | undefined): boolean {
  return block === undefined ? kind === 'yield' : kind === 'block' && names[0] === block;
}
