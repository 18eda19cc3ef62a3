// Site models from texts, for tests of the core.

import {
  OutcomeTable,
  type ScriptText,
  SiteModel,
  StyleReader,
  TruthTable,
} from '../../src/core/cascade/index.js';
import {
  type Consolidation,
  type ConsolidationInput,
  consolidate,
} from '../../src/core/change/consolidate/index.js';
import { parsePage } from '../../src/core/read/markup/index.js';
import { readScript } from '../../src/core/read/scripts/index.js';
import { parseSheet } from '../../src/core/read/sheets/index.js';
import {
  nameStyles,
  nameValue,
  type Style,
  selectorsOf,
  TASTES,
  USUAL,
  unnamed,
  usualSpelling,
} from '../../src/core/search/index.js';
import {
  mergeStock,
  SiteScripts,
  type StockData,
  StockTaker,
  type Survey,
  takeStock,
} from '../../src/core/stock/index.js';

type Texts = Readonly<Record<string, string>>;

/** Files ending in .css are sheets, .js scripts, .tpl and .vue components, .svg drawings, all others pages. */
export function modelOf(files: Texts, table = new OutcomeTable(new TruthTable())): SiteModel {
  const pick = (test: (name: string) => boolean): Map<string, string> =>
    new Map(Object.entries(files).filter(([name]) => test(name)));
  const pages = pick((name) => !/\.(css|js|svg)$/.test(name));
  const components = new Set([...pages.keys()].filter((name) => /\.(tpl|vue)$/.test(name)));
  return new SiteModel(
    {
      pages,
      components,
      sheets: pick((name) => name.endsWith('.css')),
      copies: new Map(),
      scripts: scriptTexts(files),
    },
    table,
  );
}

export function scriptsOf(files: Texts): SiteScripts {
  return new SiteScripts(scriptTexts(files));
}

function scriptTexts(files: Texts): Map<string, ScriptText> {
  return new Map(
    Object.entries(files)
      .filter(([name]) => name.endsWith('.js'))
      .map(([name, text]) => [name, { text, isLibrary: name.startsWith('vendor/') }]),
  );
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
    scriptText: textOf,
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
  const reader = new StyleReader(found, model.sheetOrderOf(found), model.table);
  return { reader, byId: (id) => found.elements.findIndex((element) => element.id === id) };
}

export interface Adopted extends Omit<Consolidation, 'after'> {
  readonly after: SiteModel;
  readonly before: SiteModel;
  /** The text of a file afterwards. */
  readonly text: (path: string) => string;
}

/** Searches, names and proves, as `draft` does. */
export function adoptAll(files: Texts, options: Partial<ConsolidationInput> = {}): Adopted {
  const before = modelOf(files);
  const themes = Object.keys(files).filter((name) => name.endsWith('.css') && !name.startsWith('platform/'));
  const input: ConsolidationInput = {
    model: before,
    scripts: scriptsOf(files),
    themes,
    shared: { path: 'shared.css', partNames: {} },
    styledTags: { pictureSizes: 'keep' },
    atLeast: 2,
    taste: TASTES.balanced,
    scope: 'site',
    ...options,
  };
  const rules = { platform: new Set<string>(), taken: new Set<string>(), sensitive: [], convention: USUAL };
  const used = new Set<string>();
  const result = consolidate(input, {
    values: [],
    isWanted: () => true,
    isWantedClass: () => true,
    isWantedPart: () => true,
    sections: (values) => values.map((value, at) => ({ ...value, name: `--ink-${at + 1}` })),
    idClasses: (found) => found.map((one, at) => ({ ...one, name: `shared-${at + 1}` })),
    styles: (styles) => {
      const fresh = styles.filter(({ home }) => home.kind === 'new class');
      const names = nameStyles(fresh.map(unnamed), rules);
      const nameOf = (style: Style): string | undefined =>
        style.home.kind === 'existing class' ? style.home.name : names[fresh.indexOf(style)];
      return { styles: styles.map((style) => ({ ...style, className: nameOf(style) })), kept: [] };
    },
    tokens: (values) =>
      values
        .filter(({ places }) => places.length >= 3)
        .map((value) => ({
          ...value,
          name: nameValue(value.kind, value.form, USUAL, used),
          text: usualSpelling(value.places),
        })),
  });
  const { pages, sheets } = result.after;
  const after = new SiteModel(result.after, before.table, before);
  return { ...result, before, after, text: (path) => pages.get(path) ?? sheets.get(path) ?? '' };
}

/** What each style says and where it goes, strongest first: `p, .a { top:0 }` or `given { … }`. */
export function homesOf({ styles }: Pick<Consolidation, 'styles'>): string[] {
  return styles.map((style) => {
    const where = selectorsOf(style).join(', ');
    const name = style.home.kind === 'existing class' ? `.${style.home.name} (exists)` : 'given';
    return `${where === '' ? name : where} { ${style.keys.join('; ')} } × ${style.members.length}`;
  });
}
