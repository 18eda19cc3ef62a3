// What is broken in a site's styling: slips that a browser passes over in silence, each with its place.

import { closest, distance } from 'fastest-levenshtein';
import { hasOneOf, LOWER, startsWithOneOf } from '../base/characters.js';
import { addTo } from '../base/group-by.js';
import { inOneLine } from '../base/phrases.js';
import { type Place, placeWithin } from '../base/source.js';
import { type ComplexSelector, type Compound, compileSelectors, writtenClasses } from '../cascade/index.js';
import { hasTemplateText } from '../read/markup/index.js';
import {
  type Declaration,
  declarationValidity,
  isKnownProperty,
  knownPropertyNames,
  type Sheet,
  type StyleRule,
} from '../read/sheets/index.js';
import { type ChosenName, chosenInScript } from './chosen.js';
import { type Finding, FindingList } from './findings.js';
import type { Reached } from './links.js';
import { nearName } from './near-name.js';
import type { StockData } from './statistics.js';
import type { SurveyInput } from './survey-input.js';
import type { Everything, WrittenSheet } from './written.js';

export interface BrokenInput extends Omit<SurveyInput, 'themes'>, Everything {
  /** What the links of the pages lead to, by key. */
  readonly reached: ReadonlyMap<string, Reached>;
}

/** All findings, by kind and place. Platform sheets are not searched: they are not the developer's. */
export function brokenThings(input: BrokenInput): Finding[] {
  const found = new FindingList();
  findInMarkup(input, found);
  findChosenNames(input, found);
  findMissingSheets(input, found);
  for (const { declarations, templated, start, style, times } of input.styles) {
    if (templated) continue;
    for (const one of declarations)
      findInDeclaration(one, placeWithin(start, style, one.range.start), times, 'style', found);
  }
  for (const { sheet, places, times } of input.blocks) findInSheet(sheet, places[0]!, times, found);
  for (const theme of input.themes) {
    findInSheet(theme.sheet, { path: theme.path, line: 1, column: 1 }, 1, found);
    if (!isFilledWith(theme.path, input)) findUnused(theme, input, found);
  }
  return found.sorted();
}

/** Class names that rules of any sheet mention, in order. */
function ruledClasses({ shelf, themes, blocks, reached }: BrokenInput): string[] {
  const paths = new Set([...reached.values()].flatMap((one) => [...one.paths]));
  const sheets = [...paths].flatMap((path) => shelf.sheetAt(path) ?? []);
  const names = new Set<string>();
  const texts = new Set<string>();
  for (const { rules } of [...sheets, ...themes.map(({ sheet }) => sheet), ...blocks.map((one) => one.sheet)])
    for (const { nesting } of rules) for (const text of nesting) texts.add(text);
  for (const text of texts) for (const { name } of writtenClasses(text)) names.add(name);
  return [...names].sort();
}

function findInMarkup(input: BrokenInput, found: FindingList): void {
  const { stock, reached, scriptWords } = input;
  for (const { name, place } of stock.doubled)
    found.add('doubled attribute', `${name} stands twice in one tag; browsers read the first only`, place);
  for (const { id, place } of stock.repeatedIds)
    if (!isWritten(id)) found.add('id used twice', `#${id} names more than one element of the page`, place);
  const list = ruledClasses(input);
  const ruled = new Set(list);
  const isStyled =
    input.blocks.length > 0 ||
    [...reached.values()].some(({ paths }) => paths.size > 0) ||
    [...stock.links.values()].some(({ sheets }) => sheets.some(({ given }) => given));
  const isStyledWhole = styledWhole(input, ruled);
  // In a sheet of the site's own that nobody finds may be what a name is.
  const isSomeMissing = [...reached.values()].some(({ unread }) =>
    unread.some(({ address }) => address.startsWith('engine:') || hasTemplateText(address)),
  );
  for (const [name, byLinks] of stock.classes) {
    const dotted = name.startsWith('.');
    if ((!dotted && ruled.has(name)) || isWritten(name)) continue;
    const near = dotted ? undefined : nearName(name, list);
    for (const [key, { times, places }] of byLinks) {
      const [place] = places;
      if (place === undefined) continue;
      if (dotted) {
        const message = `class="${name}" wants no dot: ${name.slice(1)}`;
        found.add('dot in a class attribute', message, place, times, name);
        continue;
      }
      const links = stock.links.get(key);
      if (links?.scripts.some((path) => scriptWords(path)?.has(name))) continue;
      if (!isStyled) {
        found.add(
          'no sheet found',
          'no page leads to a sheet that is here: classes are not looked up',
          place,
          1,
          '',
        );
        continue;
      }
      if (near !== undefined && !isSomeMissing) {
        const message = `.${name} has no rule; did you mean .${near}?`;
        found.add('class without a rule', message, place, times, name);
      } else if (links?.kind === 'page' && !links.filled && isStyledWhole(key)) {
        const message = `.${name} has no rule and no script that names it`;
        found.add('class without a rule', message, place, times, name);
      }
    }
  }
}

/** Whether a name is one that some engine is still to write: `{$ key $}`, `fa-$icon$`. */
function isWritten(name: string): boolean {
  return hasOneOf(name, '{}<>$');
}

/**
 * Whether pages have sheets, and all of them are read: a part that some page takes in does not mention those of that page. Where most
 * of its classes have no rule, the sheets that have them are somewhere else. In: class names that have a rule. Out: by links.
 */
function styledWhole({ stock, reached }: BrokenInput, ruled: ReadonlySet<string>): (key: string) => boolean {
  const classes = new Map<string, boolean[]>();
  for (const [name, byLinks] of stock.classes)
    for (const key of byLinks.keys()) addTo(classes, key, ruled.has(name));
  return (key) => {
    const own = reached.get(key);
    if (own === undefined || own.paths.size === 0 || own.unread.length > 0) return false;
    return isMostlyRuled(classes.get(key) ?? []);
  };
}

/** So many classes without a rule are slips, however few have one. */
const FEW = 3;

/** In: of each class, whether it has a rule. */
function isMostlyRuled(classes: readonly boolean[]): boolean {
  const ruled = classes.filter((one) => one).length;
  return classes.length - ruled <= Math.max(FEW, ruled);
}

/** Names that templates and scripts choose by an expression: a slip in one shows only in one state. */
function findChosenNames(input: BrokenInput, found: FindingList): void {
  const list = ruledClasses(input);
  const ruled = new Set(list);
  const reached = [...input.reached.values()];
  const isReadWhole =
    reached.every(({ unread }) => unread.length === 0) &&
    (input.blocks.length > 0 || reached.some(({ paths }) => paths.size > 0)) &&
    isMostlyRuled([...input.stock.classes.keys()].map((name) => ruled.has(name)));
  const scripts = new Set([...input.stock.links.values()].flatMap((links) => links.scripts));
  const check = (
    { name, dotted, partners }: Omit<ChosenName, 'offset'>,
    place: Place,
    times: number,
    isExistingSelector: boolean,
  ): void => {
    if (dotted) {
      const message = `an expression chooses ".${name}", which wants no dot: ${name}`;
      found.add('dot in a class attribute', message, place, times, `.${name}`);
    }
    if (ruled.has(name)) return;
    const near = nearName(name, list);
    const other = partners.find((partner) => ruled.has(partner));
    if (near !== undefined)
      found.add('name in an expression', `.${name} has no rule; did you mean .${near}?`, place, times, name);
    else if (other !== undefined)
      found.add(
        'half a state pair',
        `.${other} has a rule, and .${name}, chosen instead of it, has none`,
        place,
        times,
        name,
      );
    else if (isReadWhole && !isExistingSelector)
      found.add(
        'name in an expression',
        `.${name} is chosen by an expression and has no rule`,
        place,
        times,
        name,
      );
  };
  // A name that a script asks for needs no rule.
  for (const one of input.stock.chosen.values())
    check(
      one,
      one.places[0]!,
      one.times,
      [...scripts].some((path) => input.scriptWords(path)?.has(one.name)),
    );
  for (const path of scripts) {
    const text = input.scriptText(path);
    if (text === undefined) continue;
    for (const one of chosenInScript(text))
      check(one, placeWithin({ path, line: 1, column: 1 }, text, one.offset), 1, false);
  }
}

function findMissingSheets({ stock, reached, shelf }: BrokenInput, found: FindingList): void {
  for (const [key, { kind, pages }] of stock.links) {
    if (kind !== 'page') continue;
    for (const { path, place } of reached.get(key)?.unread ?? []) {
      if (path !== undefined && shelf.isElsewhere?.(path) !== true)
        found.add('missing sheet', `${path} is linked and not there`, place, pages, path);
    }
  }
}

function findInSheet(sheet: Sheet, start: Place, times: number, found: FindingList): void {
  for (const { kind, detail, range } of sheet.defects) {
    const place = placeWithin(start, sheet.text, range.start);
    switch (kind) {
      case 'block never closed':
        found.add('lost brace', 'a { that is never closed takes in all rules behind it', place, times);
        break;
      case 'stray closing brace':
        found.add('lost brace', 'a } too many; the rule behind it is lost', place, times);
        break;
      case 'not a declaration':
      case 'rule without a block':
        found.add('not a declaration', `browsers skip «${shorten(detail)}»`, place, times);
        break;
      case 'empty selector':
        found.add('invalid selector', 'a block without a selector', place, times);
        break;
      case 'import too late': {
        const message = `@import ${shorten(detail)} stands behind rules, where browsers skip it`;
        found.add('late import', message, place, times);
        break;
      }
    }
  }
  for (const { declarations } of sheet.rules) {
    for (const one of declarations)
      findInDeclaration(one, placeWithin(start, sheet.text, one.range.start), times, undefined, found);
  }
}

/** `key` joins equal findings; without it each place is one. */
function findInDeclaration(
  { property, value }: Declaration,
  place: Place,
  times: number,
  key: string | undefined,
  found: FindingList,
): void {
  const { complaint } = declarationValidity(property, value);
  if (complaint === 'unknown property') {
    // `*zoom` and `_height` were written for one old browser on purpose.
    if (!startsWithOneOf(property, LOWER) || property === 'zoom' || property === 'filter') return;
    const near = closest(property, [...knownPropertyNames()]);
    const hint = distance(property, near) <= 2 && isKnownProperty(near) ? `; did you mean ${near}?` : '';
    found.add('unknown property', `${property} is no property${hint}`, place, times, key);
  } else if (complaint === 'unfitting value') {
    const british = BRITISH.get(value.toLowerCase());
    const hint = british === undefined ? '' : `; did you mean ${british}?`;
    found.add('unfitting value', `${property} does not take «${shorten(value)}»${hint}`, place, times, key);
  }
}

const BRITISH: ReadonlyMap<string, string> = new Map([
  ['centre', 'center'],
  ['capitalise', 'capitalize'],
  ['centred', 'center'],
  ['middel', 'middle'],
]);

/** Rules of theme sheets that name something no page has. Scripts and templates may still make it. */
function findUnused({ path, sheet }: WrittenSheet, input: BrokenInput, found: FindingList): void {
  const { stock } = input;
  const linked = new Set([...stock.links.values()].flatMap(({ scripts }) => scripts));
  const mentioned = (name: string): boolean =>
    stock.words.has(name) || [...linked].some((script) => input.scriptWords(script)?.has(name));
  const placeOf = (rule: StyleRule): Place =>
    placeWithin({ path, line: 1, column: 1 }, sheet.text, rule.selectorRange.start);
  const seen = new Set<string>();
  for (const rule of sheet.rules) {
    const list = compileSelectors(rule.nesting);
    if (list.kind === 'invalid') {
      const what = shorten(rule.nesting.at(-1) ?? '');
      found.add('invalid selector', `browsers drop «${what}»: it ${list.reason}`, placeOf(rule));
      continue;
    }
    const isUsed = list.selectors.some((one) => missingName(one, stock) === undefined);
    for (const selector of list.selectors) {
      // Kinds of elements are listed for what may be written one day: headings, cells.
      if (isUsed && namesElementsAlone(selector)) continue;
      const first = missingName(selector, stock);
      const key = `${selector.text}\0${rule.selectorRange.start}`;
      if (first === undefined || seen.has(key) || mentioned(first)) continue;
      seen.add(key);
      found.add('rule without a use', `${selector.text} matches nothing on any page`, placeOf(rule));
    }
  }
}

function namesElementsAlone({ compounds }: ComplexSelector): boolean {
  return compounds.every(({ id, classes }) => id === undefined && classes.length === 0);
}

/** Whether a sheet styles pages that a template engine fills: with what, no file says. */
function isFilledWith(path: string, { stock, reached }: BrokenInput): boolean {
  return [...stock.links].some(
    ([key, { filled, kind }]) =>
      filled && (kind === 'component' || reached.get(key)?.paths.has(path) === true),
  );
}

/** A name without which the selector matches nothing, and that no page carries. */
function missingName({ compounds }: ComplexSelector, stock: StockData): string | undefined {
  for (const compound of compounds) {
    const missing = missingIn(compound, stock);
    if (missing !== undefined) return missing;
  }
  return undefined;
}

function missingIn({ id, classes, type, rest }: Compound, stock: StockData): string | undefined {
  const { carried } = stock;
  if (id !== undefined && !carried.ids.has(id)) return id;
  const name = classes.find((one) => !carried.classes.has(one));
  if (name !== undefined) return name;
  if (type !== undefined && !carried.types.has(type)) return type;
  for (const simple of rest) {
    // Of a choice every part must be missing; what must not be there, may be.
    if (simple.kind !== 'among' || simple.negated || simple.selectors.length === 0) continue;
    const missing = simple.selectors.map((one) => missingName(one, stock));
    if (missing.every((one) => one !== undefined)) return missing[0];
  }
  return undefined;
}

function shorten(text: string): string {
  const line = inOneLine(text);
  return line.length > 48 ? `${line.slice(0, 47)}…` : line;
}
