// A change, outlast. In: a site, and the sheets of its platform after an update, with the markup too where that is
// known. Out: which overrides survive, what would mend the others, and which elements look different in spite of them.

import {
  ALWAYS,
  classesIn,
  compileSelectorList,
  placeInSource,
  type SiteModel,
  type Weighed,
  writtenClasses,
} from '../../cascade/index.js';
import { type Difference, describeElement, isHiddenOnly, prove } from '../../proof/index.js';
import { parseSheet, type StyleRule } from '../../read/sheets/index.js';
import { type Beaten, inspectRules, type OverrideState } from '../override/index.js';
import type { WrittenRule } from '../restyle/index.js';
import { fixFor } from './fix.js';
import { isOfPlatform, laterModel, type Update } from './later.js';
import { type Loss, lossesOf } from './losses.js';
import type { Fate, Outlasting } from './model.js';
import { pairElements } from './pairs.js';
import { findSuccessors, type Successor } from './successors.js';

export { laterModel, type Update } from './later.js';
export { type Mends, planMends } from './mend.js';
export type { Fate, Outlasting } from './model.js';
export type { Successor } from './successors.js';

export interface OutlastInput extends Update {
  readonly model: SiteModel;
  /** Rules that are the developer's: of the theme's sheets and of style blocks. */
  readonly rules: readonly WrittenRule[];
  readonly isPlatform: (path: string) => boolean;
}

export interface Outlast {
  /** Rules that lean on the platform: that name one of its classes, or beat one of its rules. */
  readonly rules: readonly Outlasting[];
  readonly gone: readonly Successor[];
}

export function outlast(input: OutlastInput): Outlast {
  const { model, sheets, pages, rules, isPlatform } = input;
  const later = laterModel(model, input);
  const old = [...sheets.keys()].map((path) => model.sources.sheets.get(path) ?? '');
  const gone = findSuccessors(old, [...sheets.values()]);
  const names = classesOfSheets(old);
  const list = rules.map(({ rule }) => rule);
  const [now, then] = [inspectRules(model, list, isPlatform), inspectRules(later, list, isPlatform)];
  const losses = lossesOf(model, later, new Map(rules.map(({ rule, path }) => [rule, path])));
  const found = rules.flatMap((written, at): Outlasting[] => {
    const [state, after] = [now[at]!, then[at]!];
    if (!leans(state, names)) return [];
    const lost = (losses.get(written.rule) ?? []).filter(({ by }) => isOfPlatform(by, isPlatform));
    const fate = fateOf(written, [state, after], lost, { pages, model, later, gone, isPlatform });
    return [{ written, fate, elements: state.elements, pages: state.pages }];
  });
  return { rules: found, gone };
}

/** The classes that the rules of sheets name. */
function classesOfSheets(texts: readonly string[]): Set<string> {
  return new Set(
    texts.flatMap((text) =>
      parseSheet(text).rules.flatMap(({ nesting }) =>
        nesting.flatMap((one) => writtenClasses(one).map(({ name }) => name)),
      ),
    ),
  );
}

function leans({ rule, declarations }: OverrideState, names: ReadonlySet<string>): boolean {
  if (namesIn(rule).some((name) => names.has(name))) return true;
  return declarations.some(({ beats, by }) => [...beats, ...by].some(({ isPlatform }) => isPlatform));
}

function namesIn({ selector }: StyleRule): string[] {
  const list = compileSelectorList(selector);
  return list.kind === 'invalid' ? [] : [...classesIn(list.selectors)];
}

/** The site before and after an update, the pages whose markup after it is known, and the names that are gone. */
interface Updated extends Pick<OutlastInput, 'pages' | 'model' | 'isPlatform'> {
  readonly later: SiteModel;
  readonly gone: readonly Successor[];
}

function fateOf(
  { rule }: WrittenRule,
  [now, then]: readonly [OverrideState, OverrideState],
  losses: readonly Loss[],
  { pages, model, later, gone, isPlatform }: Updated,
): Fate {
  const lost = gone.filter(({ old }) => namesIn(rule).includes(old));
  if (lost.length > 0 && !standsForBoth(rule, lost))
    return { kind: 'name gone', names: lost, likely: renamed(rule, lost) };
  if (now.elements > 0 && then.elements === 0)
    return { kind: 'matches nothing', likely: relaxed(rule, now, model, later, pages) };
  if (losses.length > 0) return beatenBy(rule, losses, isPlatform);
  if (now.verdict === 'needed' && then.verdict === 'not needed') return { kind: 'not needed' };
  return { kind: 'holds' };
}

/** Whether each selector with an old name has one with the new name beside it. */
function standsForBoth(rule: StyleRule, lost: readonly Successor[]): boolean {
  const form = (text: string | undefined): string[] => {
    const list = compileSelectorList(text ?? '');
    return list.kind === 'list' ? list.selectors.map((one) => one.text) : [];
  };
  const own = form(rule.selector);
  const fresh = form(renamed(rule, lost));
  return fresh.length > 0 && fresh.every((text) => own.includes(text));
}

/** The selectors with the new names for the old. */
function renamed({ selector }: StyleRule, lost: readonly Successor[]): string | undefined {
  let text = selector;
  for (const { old, likely } of lost) {
    if (likely === undefined) return undefined;
    text = text.replace(new RegExp(`\\.${old.replace(/[^\w-]/g, '\\$&')}(?![\\w-])`, 'g'), `.${likely}`);
  }
  return text;
}

/** `a > b` no longer holds where something came between: `a b`, if that picks out the elements that `a > b` did. */
function relaxed(
  { selector }: StyleRule,
  now: OverrideState,
  model: SiteModel,
  later: SiteModel,
  pages: ReadonlyMap<string, string>,
): string | undefined {
  const text = selector;
  const loose = text.replace(/\s*>\s*/g, ' ').replace(/:(first|last|only)-child/g, '');
  const list = compileSelectorList(loose);
  if (loose === text || list.kind === 'invalid' || pages.size === 0) return undefined;
  const hits = now.examples.every(({ page, element }) => {
    const [before, after] = [model.page(page), later.page(page)];
    if (before === undefined || after === undefined) return false;
    const own = pairElements(before, after).get(element);
    const [reader] = later.readersOf(after);
    return own !== undefined && list.selectors.some((one) => reader?.matches(one, own) === ALWAYS);
  });
  return hits ? loose : undefined;
}

/** In: at least one loss. */
function beatenBy(rule: StyleRule, losses: readonly Loss[], isPlatform: (path: string) => boolean): Fate {
  const times = new Map<string, Loss[]>();
  for (const one of losses) times.set(one.property, [...(times.get(one.property) ?? []), one]);
  const sorted = [...times.values()].sort((a, b) => b.length - a.length);
  const { by } = sorted[0]![0]!;
  const elements = new Set(losses.map(({ page, element }) => `${page} ${element}`)).size;
  const properties = sorted.map(([first]) => first!.property);
  return {
    kind: 'beaten',
    properties,
    by: asBeaten(by, isPlatform, elements),
    elements,
    fix: fixFor(rule, losses),
  };
}

function asBeaten(
  { writtenIn, entry }: Weighed,
  isPlatform: (path: string) => boolean,
  elements: number,
): Beaten {
  const { value, range } = entry.declaration;
  if (writtenIn.kind !== 'rule')
    return {
      selector: writtenIn.kind,
      value,
      place: { path: '', line: 0, column: 0 },
      isPlatform: false,
      elements,
    };
  const { source } = writtenIn.use;
  const place = placeInSource(source, range.start);
  return {
    selector: writtenIn.rule.selector.text,
    value,
    place,
    isPlatform: isPlatform(source.path),
    elements,
  };
}

/** What only template text could bring about is nothing that anybody has seen. */
function isSeen(one: Difference): boolean {
  return one.kind !== 'style' || !isHiddenOnly(one);
}

/** What looks different after the update. Pages as they are are compared in full; where the markup changes, element by element as far as they are the same. */
export function lookChanges(
  model: SiteModel,
  later: SiteModel,
  pages: ReadonlyMap<string, string>,
): Difference[] {
  const changed = new Set(
    [...pages].filter(([path, text]) => model.sources.pages.get(path) !== text).map(([path]) => path),
  );
  if (changed.size === 0)
    return prove(model, later, { perPage: Number.POSITIVE_INFINITY }).differences.filter(isSeen);
  const found: Difference[] = [];
  for (const path of later.paths) {
    const [before, after] = [model.page(path), later.page(path)];
    if (before === undefined || after === undefined) continue;
    const [first] = model.readersOf(before);
    const [second] = later.readersOf(after);
    if (first === undefined || second === undefined) continue;
    for (const [i, j] of pairElements(before, after))
      if (first.outcomeNumber(i) !== second.outcomeNumber(j))
        found.push(...describeElement(first, i, second, j).filter(isSeen));
  }
  return found;
}
