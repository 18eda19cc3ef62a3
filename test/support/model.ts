// Site models from texts, for tests of the core.

import { OutcomeTable, SiteModel, StyleReader, TruthTable } from '../../src/core/cascade/index.js';
import { parsePage } from '../../src/core/markup/index.js';
import { type Vouched, vouch } from '../../src/core/proof/index.js';
import { readScript } from '../../src/core/scripts/index.js';
import { nameSharings, propose } from '../../src/core/search/index.js';
import { parseSheet } from '../../src/core/sheets/index.js';
import {
  inlineCarriers,
  mergeStock,
  SiteScripts,
  type StockData,
  StockTaker,
  type Survey,
  takeStock,
} from '../../src/core/stock/index.js';

type Texts = Readonly<Record<string, string>>;

/** Files ending in .css are sheets, .js scripts, .tpl components, all others pages. */
export function modelOf(files: Texts, table = new OutcomeTable(new TruthTable())): SiteModel {
  const pick = (test: (name: string) => boolean): Map<string, string> =>
    new Map(Object.entries(files).filter(([name]) => test(name)));
  const pages = pick((name) => !/\.(css|js)$/.test(name));
  const components = new Set([...pages.keys()].filter((name) => name.endsWith('.tpl')));
  return new SiteModel(
    { pages, components, sheets: pick((name) => name.endsWith('.css')), copies: new Map() },
    table,
  );
}

export function scriptsOf(files: Texts): SiteScripts {
  const scripts = new Map(Object.entries(files).filter(([name]) => name.endsWith('.js')));
  return new SiteScripts({ scripts, isLibrary: (path) => path.startsWith('vendor/') });
}

/** The survey of a site whose pages were read in so many books, as threads do. */
export function surveyOf(files: Texts, themes: readonly string[] = [], books = 1): Survey {
  const pages = Object.keys(files)
    .filter((name) => !/\.(css|js)$/.test(name))
    .sort();
  const stocks = Array.from({ length: books }, (_, book): StockData => {
    const taker = new StockTaker(() => undefined);
    pages.forEach((path, number) => {
      if (number % books === book)
        taker.addPage(parsePage(path, files[path]!, path.endsWith('.tpl')), number);
    });
    return structuredClone(taker.data);
  });
  const textOf = (path: string): string | undefined => files[path];
  return takeStock({
    stock: stocks.reduce(mergeStock),
    shelf: {
      sheetAt: (path) => (textOf(path) === undefined ? undefined : parseSheet(textOf(path)!)),
      copyOf: () => undefined,
    },
    themes,
    scriptWords: (path) => (textOf(path) === undefined ? undefined : readScript(textOf(path)!).words),
  });
}

/** A reader of the only page, and the index of the element with an id. */
export function readerOf(
  files: Texts,
  page = 'index.html',
): { reader: StyleReader; byId: (id: string) => number } {
  const model = modelOf(files);
  const found = model.page(page)!;
  const reader = new StyleReader(found, model.stackOf(found), model.table);
  return { reader, byId: (id) => found.elements.findIndex((element) => element.id === id) };
}

/** Searches, names and vouches, as `draft` does. */
export function adoptAll(
  files: Texts,
  shared = 'shared.css',
  atLeast = 2,
): Vouched & { readonly before: SiteModel } {
  const before = modelOf(files);
  const { sharings } = propose(inlineCarriers(before, scriptsOf(files)), atLeast);
  const names = nameSharings(sharings, { platform: new Set(), taken: new Set(), sensitive: [] });
  const styles = sharings.map(({ members }, at) => {
    const [first] = members;
    const written = first!.units.flatMap(({ declarations }) =>
      declarations.map((declaration) => ({ declaration, holder: first!.carrier.page.path })),
    );
    return { name: names[at]!, written, members };
  });
  return { before, ...vouch(before, styles, { shared, atLeast }) };
}
