// A question, reach. In: a site, and a selector, a value, a custom property or a rule. Out: where it has effect: which
// declarations win, are beaten or wait for a state, on how many elements of which pages, and who else declares the same.

import { comparePaths, type Place, placeIn } from '../../base/source.js';
import {
  type ComplexSelector,
  mayStandOn,
  NEVER,
  namesIn,
  onlyName,
  type ProgramRule,
  placeInSource,
  type SheetOrder,
  type SheetUse,
  type SiteModel,
  type Weighed,
} from '../../cascade/index.js';
import { byDeclaration, type Lot, lotOf, type Traced, traceSite } from '../../cascade/trace-site.js';
import type { Page, PageElement } from '../../read/markup/index.js';
import {
  canonicalProperty,
  type Declaration,
  normalValue,
  parseDeclarations,
} from '../../read/sheets/index.js';
import { declarationKey } from '../../stock/index.js';
import { type Asked, holdsValue } from './asked.js';

export { type Asked, readAsked } from './asked.js';

export type Holder = 'platform' | 'theme' | 'page' | 'style attribute' | 'old attribute';

export interface ReachedDeclaration {
  readonly property: string;
  readonly value: string;
  readonly important: boolean;
  readonly holder: Holder;
  /** Empty for style and old attributes. */
  readonly selector: string;
  /** The first place; style attributes that declare the same are one. */
  readonly place: Place;
  /** Elements on which it wins, waits for a state or a medium, is beaten. */
  readonly wins: number;
  readonly waits: number;
  readonly beaten: number;
  /** Pages on which it wins or waits. */
  readonly pages: number;
  /** Other places that declare the same. */
  readonly shared: { readonly times: number; readonly places: readonly Place[] };
}

export interface Reach {
  /** Elements that match, or on which something asked about counts. */
  readonly elements: number;
  /** Most elements first. */
  readonly pages: readonly { readonly path: string; readonly elements: number }[];
  readonly declarations: readonly ReachedDeclaration[];
}

interface Record {
  readonly declaration: Declaration;
  readonly holder: Holder;
  readonly selector: string;
  readonly place: Place;
  readonly lots: { [lot in Lot]: number };
  readonly pages: Set<string>;
}

/** Sheets may stand on one line. */
const LONGEST_LINE = 1e9;

/** In: `isPlatform`, whether a sheet is the platform's; `onElement`, who hears of each element that counts. */
export function reachOf(
  model: SiteModel,
  asked: Asked,
  isPlatform: (path: string) => boolean,
  onElement: (page: Page, element: PageElement) => void = () => {},
): Reach {
  const records = new Map<string, Record>();
  const touched = new Map<string, number>();
  const picks = picker(asked);
  let elements = 0;
  const isWanted = pageFilter(model, asked, picks);
  const trace = ({ page, element, reader, weighed }: Traced): void => {
    let has =
      asked.kind === 'selector' &&
      asked.selectors.some((one) => reader.matches(one, element.index) !== NEVER);
    for (const [, lists] of weighed) {
      for (const parts of byDeclaration(lists).values()) {
        const [first] = parts as [Weighed, ...Weighed[]];
        if (!picks(first)) continue;
        if (asked.kind !== 'selector') has = true;
        const record = recordOf(records, first, page, element, isPlatform);
        const lot = lotOf(parts);
        record.lots[lot]++;
        if (lot !== 'beaten') record.pages.add(page.path);
      }
    }
    if (!has) return;
    elements++;
    onElement(page, element);
    touched.set(page.path, (touched.get(page.path) ?? 0) + 1);
  };
  traceSite(model, trace, isWanted);
  const everywhere = writtenPlaces(model);
  return {
    elements,
    pages: [...touched]
      .map(([path, count]) => ({ path, elements: count }))
      .sort((a, b) => b.elements - a.elements || comparePaths(a.path, b.path)),
    declarations: [...records.values()]
      .map((record) => reachedOf(record, everywhere))
      .sort(
        (a, b) =>
          b.wins - a.wins ||
          b.waits - a.waits ||
          comparePaths(a.place.path, b.place.path) ||
          a.place.line - b.place.line,
      ),
  };
}

/** Whether a page may hold anything that is asked about, told without looking into it where its outline is known. */
function pageFilter(
  model: SiteModel,
  asked: Asked,
  picks: (one: Picked) => boolean,
): (page: Page) => boolean {
  const selectors = asked.kind === 'selector' ? asked.selectors : [];
  const bySheetOrder = new Map<string, readonly ComplexSelector[]>();
  const pickedIn = (sheetOrder: SheetOrder): readonly ComplexSelector[] => {
    const known = bySheetOrder.get(sheetOrder.ownKey);
    if (known !== undefined) return known;
    const found = sheetOrder.uses.flatMap((use) =>
      use.program.rules
        .filter((rule) =>
          [...rule.block().normal, ...rule.block().important].some((entry) =>
            picks({ writtenIn: { kind: 'rule', use, rule }, entry }),
          ),
        )
        .map(({ selector }) => selector),
    );
    bySheetOrder.set(sheetOrder.ownKey, found);
    return found;
  };
  const isSaid = (style: string): boolean =>
    parseDeclarations(style).declarations.some((declaration) =>
      picks({ writtenIn: { kind: 'style attribute' }, entry: { declaration } }),
    );
  return (page) => {
    const { outline } = page;
    if (outline === undefined) return true;
    // What old attributes declare is asked of the elements.
    if (asked.kind !== 'selector' && asked.kind !== 'rule')
      if (outline.hasHints || outline.styles.some(([style]) => isSaid(style))) return true;
    const sheetOrder = model.sheetOrderOf(page);
    return [...selectors, ...pickedIn(sheetOrder)].some((one) => mayStandOn(page, sheetOrder, one));
  };
}

/** What of a weighed declaration tells whether it is asked about. */
interface Picked {
  readonly writtenIn:
    | { readonly kind: 'rule'; readonly use: SheetUse; readonly rule: ProgramRule }
    | { readonly kind: Exclude<Weighed['writtenIn']['kind'], 'rule'> };
  readonly entry: { readonly declaration: Declaration };
}

function picker(asked: Asked): (one: Picked) => boolean {
  switch (asked.kind) {
    case 'custom property': {
      const use = new RegExp(`var\\(\\s*${asked.name}\\s*[,)]`);
      return ({ entry }) => entry.declaration.property === asked.name || use.test(entry.declaration.value);
    }
    case 'value':
      return ({ entry }) => holdsValue(entry.declaration.value, asked.form);
    case 'declaration':
      return ({ entry: { declaration } }) =>
        canonicalProperty(declaration.property) === asked.property &&
        normalValue(asked.property, declaration.value, '') === asked.form;
    case 'rule':
      return ({ writtenIn, entry }) => {
        if (writtenIn.kind !== 'rule' || writtenIn.use.source.path !== asked.path) return false;
        const rankOf = ({ line, column }: Pick<Place, 'line' | 'column'>): number =>
          asked.column === undefined ? line : line * LONGEST_LINE + column;
        const at = rankOf({ line: asked.line, column: asked.column ?? 0 });
        const isBehind = (offset: number): boolean =>
          at >= rankOf(placeInSource(writtenIn.use.source, offset));
        const isUpTo = (offset: number): boolean => at <= rankOf(placeInSource(writtenIn.use.source, offset));
        const { range, selectorRange } = writtenIn.rule.rule;
        if (!isBehind(range.start) || !isUpTo(range.end - 1)) return false;
        const { start, end } = entry.declaration.range;
        // A line of a declaration means that one; any other line of the rule means all of it.
        const inSelector = isUpTo(selectorRange.end) || isBehind(range.end - 1);
        return inSelector || (isBehind(start) && isUpTo(end));
      };
    case 'selector': {
      const [only, ...others] = asked.selectors;
      const name = only === undefined || others.length > 0 ? undefined : onlyName(only);
      const texts = new Set(asked.selectors.map(({ text }) => text));
      return ({ writtenIn }) =>
        writtenIn.kind === 'rule' &&
        (name === undefined
          ? texts.has(writtenIn.rule.selector.text)
          : namesIn(writtenIn.rule.selector).has(name));
    }
  }
}

function recordOf(
  records: Map<string, Record>,
  { writtenIn, entry }: Weighed,
  page: Page,
  element: PageElement,
  isPlatform: (path: string) => boolean,
): Record {
  const { declaration } = entry;
  const said = `${declaration.property}: ${declaration.value}${declaration.important ? '!' : ''}`;
  let key = `${writtenIn.kind} ${said}`;
  let holder: Holder = 'style attribute';
  let selector = '';
  let at: Place | undefined;
  if (writtenIn.kind === 'rule') {
    const { source, program } = writtenIn.use;
    selector = writtenIn.rule.selector.text;
    holder = source.isBlock ? 'page' : isPlatform(source.path) ? 'platform' : 'theme';
    key = `${source.isBlock ? `block ${program.sheet.text}` : source.path} ${declaration.range.start} ${selector}`;
    at = placeInSource(source, declaration.range.start);
  } else {
    if (writtenIn.kind === 'old attribute') holder = 'old attribute';
    const range = element.tag?.attributes.get('style') ?? element.tag?.range;
    at = range && placeIn(page.path, page.text, range.start);
  }
  const place = at ?? { path: page.path, line: 1, column: 1 };
  let record = records.get(key);
  if (record === undefined) {
    record = {
      declaration,
      holder,
      selector,
      place,
      lots: { wins: 0, waits: 0, beaten: 0 },
      pages: new Set(),
    };
    records.set(key, record);
  }
  return record;
}

/** Every place where a declaration is written, by what it says; style blocks that say the same are one. */
function writtenPlaces(model: SiteModel): Map<string, Place[]> {
  const found = new Map<string, Place[]>();
  const add = (declarations: readonly Declaration[], place: (one: Declaration) => Place): void => {
    for (const one of declarations) {
      const key = declarationKey(one, '');
      const known = found.get(key);
      if (known === undefined) found.set(key, [place(one)]);
      else known.push(place(one));
    }
  };
  for (const [path, text] of model.sources.sheets) {
    const program = model.sheetAt(path);
    for (const { declarations } of program?.sheet.rules ?? [])
      add(declarations, ({ range }) => placeIn(path, text, range.start));
  }
  const styles = new Map<string, Declaration[]>();
  for (const page of model.pages) {
    for (const reference of page.sheets) {
      if (reference.kind !== 'block') continue;
      for (const { declarations } of model.block(reference.text, page).sheet.rules)
        add(declarations, ({ range }) =>
          placeIn(page.path, page.text, (reference.offset ?? 0) + range.start),
        );
    }
    for (const [style, offset] of stylesOf(page)) {
      let declarations = styles.get(style);
      if (declarations === undefined) {
        declarations = parseDeclarations(style).declarations;
        styles.set(style, declarations);
      }
      add(declarations, () => placeIn(page.path, page.text, offset));
    }
  }
  return found;
}

/** Every style attribute of a page with its offset. */
function stylesOf(page: Page): readonly (readonly [style: string, offset: number])[] {
  if (page.outline !== undefined) return page.outline.styles;
  return page.elements.flatMap(({ style, tag }) => {
    const range = tag?.attributes.get('style');
    return style === undefined || range === undefined ? [] : [[style, range.start] as const];
  });
}

function reachedOf(record: Record, everywhere: ReadonlyMap<string, readonly Place[]>): ReachedDeclaration {
  const { declaration, holder, selector, place, lots, pages } = record;
  const others = (everywhere.get(declarationKey(declaration, '')) ?? []).filter(
    (one) => one.path !== place.path || one.line !== place.line || one.column !== place.column,
  );
  return {
    property: declaration.property,
    value: declaration.value,
    important: declaration.important,
    holder,
    selector,
    place,
    wins: lots.wins,
    waits: lots.waits,
    beaten: lots.beaten,
    pages: pages.size,
    shared: { times: others.length, places: others.slice(0, 5) },
  };
}
