// What is broken in a site's styling: slips that a browser passes over in silence, each with its place.

import { closest, distance } from 'fastest-levenshtein';
import type { Program, SiteModel } from '../cascade/index.js';
import { attributeOf, hasTemplateText } from '../markup/index.js';
import {
  type Declaration,
  declarationValidity,
  isKnownProperty,
  knownPropertyNames,
  type Sheet,
} from '../sheets/index.js';
import { comparePlaces, type Place } from '../source.js';
import { type Carrier, valueOffset } from './inline.js';
import type { SiteScripts } from './site-scripts.js';
import type { Block, Places } from './written.js';

export type FindingKind =
  | 'doubled attribute'
  | 'id used twice'
  | 'class without a rule'
  | 'dot in a class attribute'
  | 'rule without a use'
  | 'unknown property'
  | 'unfitting value'
  | 'lost brace'
  | 'not a declaration'
  | 'invalid selector'
  | 'missing sheet'
  | 'late import';

export interface Finding {
  readonly kind: FindingKind;
  /** What is there, and what to do, in one breath. */
  readonly message: string;
  readonly place: Place;
  /** How often it stands on the site; `place` is the first. */
  readonly times: number;
}

export interface BrokenInput {
  readonly model: SiteModel;
  readonly scripts: SiteScripts;
  readonly themes: readonly string[];
  readonly blocks: readonly Block[];
  readonly carriers: readonly Carrier[];
  readonly places: Places;
}

/** All findings, by kind and place. Platform sheets are not searched: they are not the developer's. */
export function brokenThings(input: BrokenInput): Finding[] {
  const found = new FindingList();
  const vocabulary = classVocabulary(input);
  findInMarkup(input, vocabulary, found);
  for (const { page, range, value, declarations } of input.carriers) {
    if (hasTemplateText(value)) continue;
    const start = valueOffset(page, range, value) ?? range.start;
    for (const one of declarations)
      findInDeclaration(one, input.places.at(page.path, start + one.range.start), found);
  }
  for (const { page, offset, sheet } of input.blocks) findInSheet(sheet, page.path, offset, input, found);
  for (const path of input.themes) {
    const program = input.model.sheetAt(path);
    if (program === undefined) continue;
    findInSheet(program.sheet, path, 0, input, found);
    findUnused(program, vocabulary, input, found);
  }
  return found.sorted();
}

class FindingList {
  readonly #findings = new Map<string, Finding>();

  /** `key` names what is the same thing written again: it is shown once, with a count. */
  add(
    kind: FindingKind,
    message: string,
    place: Place,
    key = `${place.path}:${place.line}:${place.column}`,
  ): void {
    const id = `${kind}\0${message}\0${key}`;
    const known = this.#findings.get(id);
    if (known === undefined) this.#findings.set(id, { kind, message, place, times: 1 });
    else {
      const first = comparePlaces(known.place, place) <= 0 ? known.place : place;
      this.#findings.set(id, { ...known, place: first, times: known.times + 1 });
    }
  }

  sorted(): Finding[] {
    return [...this.#findings.values()].sort((a, b) =>
      a.kind < b.kind ? -1 : a.kind > b.kind ? 1 : comparePlaces(a.place, b.place),
    );
  }
}

interface Vocabulary {
  /** Names that rules of any sheet mention. */
  readonly ruled: { readonly classes: ReadonlySet<string>; readonly list: readonly string[] };
  /** Names that markup of any page carries. */
  readonly carried: {
    readonly classes: ReadonlySet<string>;
    readonly ids: ReadonlySet<string>;
    readonly types: ReadonlySet<string>;
  };
}

function classVocabulary({ model, themes }: BrokenInput): Vocabulary {
  const classes = new Set<string>();
  const programs = new Set<Program>();
  for (const page of model.pages) {
    if (page.kind === 'page') for (const { program } of model.stackOf(page).uses) programs.add(program);
  }
  for (const path of themes) {
    const program = model.sheetAt(path);
    if (program !== undefined) programs.add(program);
  }
  for (const { sheet } of programs) {
    for (const { selectors } of sheet.rules) {
      for (const text of selectors)
        for (const [, name] of text.matchAll(/\.(-?[_a-zA-Z\u0080-\uffff][\w\u0080-\uffff-]*)/g))
          classes.add(name!);
    }
  }
  const carried = { classes: new Set<string>(), ids: new Set<string>(), types: new Set<string>() };
  for (const page of model.pages) {
    for (const element of page.elements) {
      carried.types.add(element.name.toLowerCase());
      if (element.id !== undefined) carried.ids.add(element.id);
      for (const name of element.classes) carried.classes.add(name);
    }
  }
  return { ruled: { classes, list: [...classes].sort() }, carried };
}

function findInMarkup(
  { model, scripts, places }: BrokenInput,
  { ruled }: Vocabulary,
  found: FindingList,
): void {
  const nears = new Map<string, string | undefined>();
  for (const page of model.pages) {
    for (const { detail, range } of page.defects) {
      found.add(
        'doubled attribute',
        `${detail} stands twice in one tag; browsers read the first only`,
        places.at(page.path, range.start),
      );
    }
    const allRead = page.kind === 'page' && model.stackOf(page).unread.length === 0;
    const ids = new Map<string, number>();
    for (const element of page.elements) {
      const offset = element.tag?.range.start;
      if (offset === undefined) continue;
      if (element.id !== undefined && !hasTemplateText(element.id)) {
        const times = (ids.get(element.id) ?? 0) + 1;
        ids.set(element.id, times);
        if (times === 2)
          found.add(
            'id used twice',
            `#${element.id} names more than one element of the page`,
            places.at(page.path, offset),
          );
      }
      if (hasTemplateText(attributeOf(element.attributes, 'class') ?? '')) continue;
      for (const name of element.classes) {
        if (name.startsWith('.')) {
          found.add(
            'dot in a class attribute',
            `class="${name}" wants no dot: ${name.slice(1)}`,
            places.at(page.path, offset),
          );
        } else if (!ruled.classes.has(name) && !scripts.mentions(page, name)) {
          if (!nears.has(name)) nears.set(name, nearName(name, ruled.list));
          const near = nears.get(name);
          if (near !== undefined)
            found.add(
              'class without a rule',
              `.${name} has no rule; did you mean .${near}?`,
              places.at(page.path, offset),
              name,
            );
          else if (allRead)
            found.add(
              'class without a rule',
              `.${name} has no rule and no script that names it`,
              places.at(page.path, offset),
              name,
            );
        }
      }
    }
    if (page.kind !== 'page') continue;
    for (const { address, path = address, why, range } of model.stackOf(page).unread) {
      if (why === 'missing')
        found.add(
          'missing sheet',
          `${path} is linked and not there`,
          places.at(page.path, range.start),
          path,
        );
    }
  }
}

/** A known name one letter away, two for long names. */
function nearName(name: string, known: readonly string[]): string | undefined {
  if (name.length < 4 || known.length === 0) return undefined;
  const candidates = known.filter((other) => Math.abs(other.length - name.length) <= 1 && other.length >= 4);
  if (candidates.length === 0) return undefined;
  const near = closest(name, candidates);
  // `row-1` and `row-2` are neighbours, not a slip.
  const onlyDigits = near.replace(/\d/g, '') === name.replace(/\d/g, '');
  return distance(name, near) === 1 && !onlyDigits && name.length >= 6 ? near : undefined;
}

function findInSheet(
  sheet: Sheet,
  path: string,
  offset: number,
  { places }: BrokenInput,
  found: FindingList,
): void {
  for (const { kind, detail, range } of sheet.defects) {
    const place = places.at(path, offset + range.start);
    switch (kind) {
      case 'block never closed':
        found.add('lost brace', 'a { that is never closed takes in all rules behind it', place);
        break;
      case 'stray closing brace':
        found.add('lost brace', 'a } too many; the rule behind it is lost', place);
        break;
      case 'not a declaration':
      case 'rule without a block':
        found.add('not a declaration', `browsers skip «${shorten(detail)}»`, place);
        break;
      case 'empty selector':
        found.add('invalid selector', 'a block without a selector', place);
        break;
      case 'import too late':
        found.add(
          'late import',
          `@import ${shorten(detail)} stands behind rules, where browsers skip it`,
          place,
        );
        break;
    }
  }
  for (const { declarations } of sheet.rules) {
    for (const one of declarations) findInDeclaration(one, places.at(path, offset + one.range.start), found);
  }
}

function findInDeclaration({ property, value }: Declaration, place: Place, found: FindingList): void {
  const { complaint } = declarationValidity(property, value);
  if (complaint === 'unknown property') {
    // `*zoom` and `_height` were written for one old browser on purpose.
    if (!/^[a-z]/.test(property) || property === 'zoom' || property === 'filter') return;
    const near = closest(property, [...knownPropertyNames()]);
    const hint = distance(property, near) <= 2 && isKnownProperty(near) ? `; did you mean ${near}?` : '';
    found.add('unknown property', `${property} is no property${hint}`, place);
  } else if (complaint === 'unfitting value') {
    const british = BRITISH.get(value.toLowerCase());
    const hint = british === undefined ? '' : `; did you mean ${british}?`;
    found.add('unfitting value', `${property} does not take «${shorten(value)}»${hint}`, place);
  }
}

const BRITISH: ReadonlyMap<string, string> = new Map([
  ['centre', 'center'],
  ['capitalise', 'capitalize'],
  ['centred', 'center'],
  ['middel', 'middle'],
]);

/** Rules of theme sheets that name something no page has. Scripts and templates may still make it. */
function findUnused(
  program: Program,
  { carried }: Vocabulary,
  { model, scripts, places }: BrokenInput,
  found: FindingList,
): void {
  const mentioned = (name: string): boolean => model.pages.some((page) => scripts.mentions(page, name));
  const templated = (name: string): boolean =>
    model.pages.some(({ text }) => hasTemplateText(text) && text.includes(name));
  const seen = new Set<unknown>();
  for (const { rule, selector } of program.rules) {
    const missing = selector.compounds.flatMap(({ id, classes, type }) => [
      ...(id !== undefined && !carried.ids.has(id) ? [id] : []),
      ...classes.filter((name) => !carried.classes.has(name)),
      ...(type !== undefined && !carried.types.has(type) ? [type] : []),
    ]);
    const [first] = missing;
    if (first === undefined || seen.has(selector) || mentioned(first) || templated(first)) continue;
    seen.add(selector);
    found.add(
      'rule without a use',
      `${selector.text} matches nothing on any page`,
      places.at(program.holder, rule.selectorRange.start),
    );
  }
  for (const { rule, reason } of program.dropped) {
    found.add(
      'invalid selector',
      `browsers drop «${shorten(rule.selectors.at(-1) ?? '')}»: it ${reason}`,
      places.at(program.holder, rule.selectorRange.start),
    );
  }
}

function shorten(text: string): string {
  const line = text.replace(/\s+/g, ' ').trim();
  return line.length > 48 ? `${line.slice(0, 47)}…` : line;
}
