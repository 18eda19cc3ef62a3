// What a survey keeps of each page, so that no page has to be kept: counts, distinct texts, and the first places they
// stand at. Plain data: books that several threads wrote are merged into one.

import { fileAt, folderOf, holdsAddress } from '../base/addresses.js';
import { INVISIBLE_MARK } from '../base/engine-marks.js';
import { LineIndex, type Place, placeIn } from '../base/source.js';
// Not through the stage's entry: threads that only count need not load what maps.
import { writtenHints } from '../read/hints/counted.js';
import { isComponentFile } from '../read/kinds/index.js';
import {
  hasTemplateText,
  isAgain,
  isGiven,
  isPlainLink,
  type Page,
  type PageElement,
  SOURCE_MARK,
  styleAsWritten,
  templateWords,
  valueOffset,
} from '../read/markup/index.js';
import { readScript } from '../read/scripts/index.js';
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
    /** Said to be there by the configuration: it may be still to come. */
    readonly given: boolean;
  }[];
  /** Style blocks that import others. */
  readonly importing: string[];
  readonly scripts: string[];
  /** Whether a template engine puts something in between the tags. */
  readonly filled: boolean;
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
/** A style that code makes: nothing of it is written. */
const ALL_COMPUTED = new RegExp(`^(?:;?${INVISIBLE_MARK}[^${INVISIBLE_MARK}]*${INVISIBLE_MARK})+$`);

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
    if (page.elements.some(({ templated }) => templated !== 'no'))
      for (const one of chosenInMarkup(page)) this.#addChosen(one, placeAt);
    this.#addChosenByScripts(page, placeAt);
    const isCode = isComponentFile(page.path);
    const isBuilt = page.text.includes(SOURCE_MARK);
    const ids = new Map<string, number>();
    const seen = new Set<unknown>();
    for (const element of page.elements) {
      // What a framework names in code, and rules that only a build reads, are not told here.
      if (!isCode) this.#addNames(element, linksKey, inlineWords, ids, page.isFilled, placeAt);
      // A build makes several tags of one, which is kept up in one place.
      if (isBuilt && isAgain(page, element.tag)) continue;
      this.#addHints(element);
      const style = styleAsWritten(element);
      if (style === undefined || element.tag === undefined || seen.has(element.tag)) continue;
      const range = element.tag.attributes.get('style');
      seen.add(element.tag);
      if (range === undefined || ALL_COMPUTED.test(style)) continue;
      this.#addStyle(page, number, style, range, placeAt);
    }
    for (const { style, range } of page.inert) this.#addStyle(page, number, style, range, placeAt);
    for (const reference of page.sheets) {
      if (reference.kind !== 'block' || reference.broughtBy !== undefined) continue;
      if (isBuilt && isAgain(page, page.elements[reference.element]?.tag)) continue;
      const offset = reference.offset ?? reference.madeAt;
      if (offset !== undefined && reference.isFilled !== true)
        this.#addBlock(page, number, reference.text, offset, placeAt);
    }
  }

  #addLinks(page: Page, placeAt: (offset: number) => Place): string {
    const sheets = page.sheets.flatMap((one) =>
      one.kind === 'link'
        ? [
            {
              ...one,
              path: fileAt(one.address, page.path, this.#copyOf),
              plain: isPlainLink(one),
              given: isGiven(one),
            },
          ]
        : [],
    );
    const importing = page.sheets.flatMap((one) =>
      one.kind === 'block' && one.text.toLowerCase().includes('@import') ? [one.text] : [],
    );
    const scripts = page.scripts.flatMap((one) => {
      return one.kind === 'link' ? (fileAt(one.address, page.path, this.#copyOf) ?? []) : [];
    });
    const folder = importing.length > 0 ? folderOf(page.path) : '';
    const key = [
      `${page.kind} ${page.isFilled}`,
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
        sheets: sheets.map(({ address, path, plain, given, range, broughtBy }) => ({
          address,
          path,
          plain,
          given,
          place:
            broughtBy === undefined
              ? placeAt(range.start)
              : placeIn(broughtBy.path, broughtBy.text, range.start),
        })),
        importing,
        scripts,
        filled: page.isFilled,
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
      if (script.kind !== 'inline' || script.how !== 'script' || !script.text.toLowerCase().includes('class'))
        continue;
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
    isFilled: boolean,
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
        // Of two branches one comes.
        if (times === 2 && !isFilled) repeatedIds.push({ id: element.id, place: placeAt(offset) });
      }
    }
    for (const name of element.engine?.mayHave ?? []) carried.classes.add(name);
    if (element.classes.length === 0) return;
    const written = element.templated === 'no' ? /[{}$]/ : /[{}%?$<>]/;
    const templated = element.classes.some((name) => written.test(name));
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
