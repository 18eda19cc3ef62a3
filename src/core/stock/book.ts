// What a survey keeps of each page, so that no page has to be kept: counts, distinct texts, and the first places they
// stand at. Plain data: books that several threads wrote are merged into one.

import { folderOf, holdsAddress, resolveAddress, sheetPath } from '../addresses.js';
// Not through the stage's entry: threads that only count need not load what maps.
import { writtenHints } from '../hints/counted.js';
import {
  hasTemplateText,
  isPlainLink,
  type Page,
  type PageElement,
  templateWords,
  valueOffset,
} from '../markup/index.js';
import { readScript } from '../scripts/index.js';
import { comparePlaces, LineIndex, type Place } from '../source.js';
import { type ChosenName, chosenInMarkup, chosenInScript } from './chosen.js';
import { stylesFromSelf } from './policy.js';

/** How often something stands on a site, and where first. */
export interface Sighting {
  times: number;
  /** The first two places, in order. */
  places: Place[];
}

export interface PagedSighting extends Sighting {
  /** Numbers of the pages it stands on, each once. */
  pages: number[];
}

export interface StyleSighting extends PagedSighting {
  readonly style: string;
  /** Path of a page it stands in: addresses in it mean the same in every page of the sighting. */
  readonly holder: string;
  /** Where the value begins, for the first place; the attribute itself where references hide it. */
  start: Place;
}

export interface ChosenSighting extends Sighting, Omit<ChosenName, 'offset'> {}

export interface BlockSighting extends PagedSighting {
  readonly text: string;
  readonly holder: string;
}

/** What pages with the same links share. */
export interface Links {
  readonly kind: Page['kind'];
  readonly holder: string;
  /** Linked sheets in order: their address, their path when it is in the site, and the first place. */
  readonly sheets: {
    readonly address: string;
    readonly path: string | undefined;
    readonly place: Place;
    /** In force at once and in every medium. */
    readonly plain: boolean;
  }[];
  /** Style blocks that import others. */
  readonly importing: string[];
  readonly scripts: string[];
  pages: number;
}

export interface StockData {
  pages: number;
  components: number;
  elements: number;
  hinted: number;
  /** Pages whose styles all come from sheets of the site. */
  fromSelf: number;
  readonly styles: Map<string, StyleSighting>;
  readonly blocks: Map<string, BlockSighting>;
  readonly hints: Map<string, number>;
  readonly links: Map<string, Links>;
  /** Class names that no inline script of their page mentions, under the key of the page's links. */
  readonly classes: Map<string, Map<string, Sighting>>;
  readonly carried: { readonly classes: Set<string>; readonly ids: Set<string>; readonly types: Set<string> };
  readonly doubled: { readonly name: string; readonly place: Place }[];
  readonly repeatedIds: { readonly id: string; readonly place: Place }[];
  /** Class names that expressions choose, by what they are chosen instead of. */
  readonly chosen: Map<string, ChosenSighting>;
  /** Words of inline scripts, and of pages with template text: they may stand for classes and ids. */
  readonly words: Set<string>;
}

export function emptyStock(): StockData {
  return {
    pages: 0,
    components: 0,
    elements: 0,
    hinted: 0,
    fromSelf: 0,
    styles: new Map(),
    blocks: new Map(),
    hints: new Map(),
    links: new Map(),
    classes: new Map(),
    carried: { classes: new Set(), ids: new Set(), types: new Set() },
    doubled: [],
    repeatedIds: [],
    chosen: new Map(),
    words: new Set(),
  };
}

/** Fills one book. Pages must come in order of their paths for the first places to be the first. */
export class StockTaker {
  #data: StockData = emptyStock();
  readonly #copyOf: (address: string) => string | undefined;
  readonly #scriptWords = new Map<string, ReadonlySet<string>>();

  constructor(copyOf: (address: string) => string | undefined) {
    this.#copyOf = copyOf;
  }

  get data(): StockData {
    return this.#data;
  }

  /** What was found since the last time. */
  take(): StockData {
    const taken = this.#data;
    this.#data = emptyStock();
    return taken;
  }

  /** In: a page, and its number among all pages of the site in order of their paths. */
  addPage(page: Page, number: number): void {
    const { data } = this;
    if (page.kind === 'page') data.pages++;
    else data.components++;
    if (page.kind === 'page' && stylesFromSelf(page)) data.fromSelf++;
    data.elements += page.elements.length;
    let lines: LineIndex | undefined;
    const placeAt = (offset: number): Place => {
      lines ??= new LineIndex(page.path, page.text);
      return lines.placeAt(offset);
    };
    const linksKey = this.#addLinks(page, placeAt);
    const inlineWords = this.#wordsOf(page);
    for (const { detail, range } of page.defects)
      data.doubled.push({ name: detail, place: placeAt(range.start) });
    for (const word of templateWords(page.text)) data.words.add(word);
    if (page.hasTemplatedTags) for (const one of chosenInMarkup(page)) this.#addChosen(one, placeAt);
    this.#addChosenByScripts(page, placeAt);
    const ids = new Map<string, number>();
    const seen = new Set<unknown>();
    for (const element of page.elements) {
      this.#addNames(element, linksKey, inlineWords, ids, placeAt);
      this.#addHints(element);
      if (element.style === undefined || element.tag === undefined || seen.has(element.tag)) continue;
      const range = element.tag.attributes.get('style');
      seen.add(element.tag);
      if (range === undefined) continue;
      this.#addStyle(page, number, element.style, range, placeAt);
    }
    for (const { style, range } of page.inert) this.#addStyle(page, number, style, range, placeAt);
    for (const reference of page.sheets) {
      if (reference.kind === 'block' && reference.offset !== undefined)
        this.#addBlock(page, number, reference.text, reference.offset, placeAt);
    }
  }

  #addLinks(page: Page, placeAt: (offset: number) => Place): string {
    const sheets = page.sheets.flatMap((one) =>
      one.kind === 'link'
        ? [{ ...one, path: sheetPath(one.address, page.path, this.#copyOf), plain: isPlainLink(one) }]
        : [],
    );
    const importing = page.sheets.flatMap((one) =>
      one.kind === 'block' && /@import/i.test(one.text) ? [one.text] : [],
    );
    const scripts = page.scripts.flatMap((one) => {
      const resolved = one.kind === 'link' ? resolveAddress(one.address, page.path) : undefined;
      return resolved?.kind === 'site' ? [resolved.path] : [];
    });
    const folder = importing.length > 0 ? folderOf(page.path) : '';
    const key = [
      page.kind,
      ...sheets.map(({ path, address, plain }) => `${path ?? address}${plain ? '' : ' at times'}`),
      folder,
      ...importing,
      ...scripts,
    ].join('\0');
    const known = this.data.links.get(key);
    if (known !== undefined) known.pages++;
    else {
      this.data.links.set(key, {
        kind: page.kind,
        holder: page.path,
        sheets: sheets.map(({ address, path, plain, range }) => ({
          address,
          path,
          plain,
          place: placeAt(range.start),
        })),
        importing,
        scripts,
        pages: 1,
      });
    }
    return key;
  }

  #wordsOf(page: Page): ReadonlySet<string>[] {
    const found: ReadonlySet<string>[] = [];
    for (const reference of page.scripts) {
      if (reference.kind !== 'inline') continue;
      let words = this.#scriptWords.get(reference.text);
      if (words === undefined) {
        words = readScript(reference.text).words;
        // A page's own data may stand in a script: not every text is worth keeping.
        if (this.#scriptWords.size < 1000) this.#scriptWords.set(reference.text, words);
        for (const word of words) this.data.words.add(word);
      }
      found.push(words);
    }
    return found;
  }

  #addChosenByScripts(page: Page, placeAt: (offset: number) => Place): void {
    for (const script of page.scripts) {
      // What no script chooses classes by has no such word in it.
      if (script.kind !== 'inline' || script.how !== 'script' || !/class/i.test(script.text)) continue;
      for (const one of chosenInScript(script.text))
        this.#addChosen(one, (offset) => placeAt(script.offset + offset));
    }
  }

  #addChosen({ name, dotted, partners, offset }: ChosenName, placeAt: (offset: number) => Place): void {
    const key = `${dotted ? '.' : ''}${name} ${partners.join(' ')}`;
    const known = this.data.chosen.get(key);
    if (known !== undefined) known.times++;
    else this.data.chosen.set(key, { name, dotted, partners, times: 1, places: [placeAt(offset)] });
  }

  #addNames(
    element: PageElement,
    linksKey: string,
    inlineWords: readonly ReadonlySet<string>[],
    ids: Map<string, number>,
    placeAt: (offset: number) => Place,
  ): void {
    const { carried, classes, repeatedIds } = this.data;
    carried.types.add(element.name.toLowerCase());
    const offset = element.tag?.range.start;
    if (element.id !== undefined) {
      carried.ids.add(element.id);
      if (offset !== undefined && !hasTemplateText(element.id)) {
        const times = (ids.get(element.id) ?? 0) + 1;
        ids.set(element.id, times);
        if (times === 2) repeatedIds.push({ id: element.id, place: placeAt(offset) });
      }
    }
    if (element.classes.length === 0) return;
    const templated = element.templated !== 'no' && element.classes.some((name) => /[{}%?$<>]/.test(name));
    for (const name of element.classes) {
      carried.classes.add(name);
      if (templated || offset === undefined || inlineWords.some((words) => words.has(name))) continue;
      const byLinks = classes.get(name) ?? new Map<string, Sighting>();
      if (byLinks.size === 0) classes.set(name, byLinks);
      const known = byLinks.get(linksKey);
      if (known === undefined) byLinks.set(linksKey, { times: 1, places: [placeAt(offset)] });
      else known.times++;
    }
  }

  #addHints(element: PageElement): void {
    const hints = writtenHints(element);
    if (hints.length === 0) return;
    this.data.hinted += hints.length;
    for (const written of hints) this.data.hints.set(written, (this.data.hints.get(written) ?? 0) + 1);
  }

  #addStyle(
    page: Page,
    number: number,
    style: string,
    range: { start: number; end: number },
    placeAt: (offset: number) => Place,
  ): void {
    const key = holdsAddress(style) ? `${style}\0${folderOf(page.path)}` : style;
    const known = this.data.styles.get(key);
    if (known !== undefined) {
      sight(known, number, () => placeAt(range.start));
      return;
    }
    const place = placeAt(range.start);
    const start = placeAt(valueOffset(page, range, style) ?? range.start);
    this.data.styles.set(key, {
      style,
      holder: page.path,
      start,
      times: 1,
      pages: [number],
      places: [place],
    });
  }

  #addBlock(
    page: Page,
    number: number,
    text: string,
    offset: number,
    placeAt: (offset: number) => Place,
  ): void {
    const key = holdsAddress(text) ? `${text}\0${folderOf(page.path)}` : text;
    const known = this.data.blocks.get(key);
    if (known !== undefined) sight(known, number, () => placeAt(offset));
    else {
      const first = { times: 1, pages: [number], places: [placeAt(offset)] };
      this.data.blocks.set(key, { text, holder: page.path, ...first });
    }
  }
}

function sight(sighting: PagedSighting, page: number, place: () => Place): void {
  sighting.times++;
  if (sighting.pages.at(-1) !== page) sighting.pages.push(page);
  if (sighting.places.length < 2) sighting.places.push(place());
}

/** A book of one page, which is the first, as that of the page with another number. Out: `data`, changed. */
export function numbered(data: StockData, number: number): StockData {
  for (const sighting of [...data.styles.values(), ...data.blocks.values()]) sighting.pages = [number];
  return data;
}

/** Adds what another book holds of other pages. Out: `into`, changed. */
export function mergeStock(into: StockData, from: StockData): StockData {
  into.pages += from.pages;
  into.components += from.components;
  into.elements += from.elements;
  into.hinted += from.hinted;
  into.fromSelf += from.fromSelf;
  for (const [key, style] of from.styles) {
    const known = into.styles.get(key);
    if (known === undefined) into.styles.set(key, style);
    else {
      if (comparePlaces(style.places[0]!, known.places[0]!) < 0) known.start = style.start;
      addPaged(known, style);
    }
  }
  for (const [key, block] of from.blocks) {
    const known = into.blocks.get(key);
    if (known === undefined) into.blocks.set(key, block);
    else addPaged(known, block);
  }
  for (const [key, times] of from.hints) into.hints.set(key, (into.hints.get(key) ?? 0) + times);
  for (const [key, links] of from.links) {
    const known = into.links.get(key);
    if (known === undefined) into.links.set(key, links);
    else {
      const first = comparePlacesOf(links, known) < 0 ? links : known;
      into.links.set(key, { ...first, pages: known.pages + links.pages });
    }
  }
  for (const [name, byLinks] of from.classes) {
    const known = into.classes.get(name);
    if (known === undefined) into.classes.set(name, byLinks);
    else {
      for (const [key, sighting] of byLinks) {
        const same = known.get(key);
        if (same === undefined) known.set(key, sighting);
        else addSighting(same, sighting);
      }
    }
  }
  for (const part of ['classes', 'ids', 'types'] as const)
    for (const name of from.carried[part]) into.carried[part].add(name);
  for (const [key, sighting] of from.chosen) {
    const known = into.chosen.get(key);
    if (known === undefined) into.chosen.set(key, sighting);
    else addSighting(known, sighting);
  }
  into.doubled.push(...from.doubled);
  into.repeatedIds.push(...from.repeatedIds);
  for (const word of from.words) into.words.add(word);
  return into;
}

function addPaged(into: PagedSighting, from: PagedSighting): void {
  for (const page of from.pages) into.pages.push(page);
  addSighting(into, from);
}

function addSighting(into: Sighting, from: Sighting): void {
  into.times += from.times;
  into.places = [...into.places, ...from.places].sort(comparePlaces).slice(0, 2);
}

function comparePlacesOf(a: Links, b: Links): number {
  return a.holder < b.holder ? -1 : a.holder > b.holder ? 1 : 0;
}
