// Classes that were put on tags by hand where a position declares as much, and classes that no rule asks for any more: they leave
// the tags, and the rules count instead.

import { hasOneOf } from '../base/characters.js';
import { addTo } from '../base/group-by.js';
import { includesAny, startsWithAny } from '../base/phrases.js';
import { eachCompound, type SiteModel } from '../cascade/index.js';
import type { Page, PageElement } from '../read/markup/index.js';
import type { SiteScripts } from '../stock/index.js';
import type { Census, ElementGroup } from './census.js';
import { existingSelectorOf, existingSelectorsOf, partsOf } from './existing-selectors.js';
import { reachOf } from './reach.js';
import type { OwnRule } from './rules/index.js';
import { withoutClass, withPosition } from './rules/selectors.js';
import { PATTERNS, type Pattern, type SiblingPlace, siblingPlaces } from './sibling-places.js';

/** A class that leaves its tags. */
export interface ClassMove {
  readonly name: string;
  /** What stands in its place in selectors: `.card:nth-of-type(3n)`; `undefined` where no rule asks for it. */
  readonly instead: string | undefined;
  /** The rules that asked for it, with their new selectors. */
  readonly rules: readonly { readonly own: OwnRule; readonly selectors: readonly string[] }[];
  readonly tags: readonly { readonly page: Page; readonly element: PageElement }[];
}

/** A selector that is offered for a class: so many are tried. */
const MOST_BASES = 14;
/** So many of those that a position takes may lack the class, where it makes no difference to them. */
const MOST_EXCESS = 0.5;

export interface HelperOptions {
  readonly rules: readonly OwnRule[];
  readonly scripts: SiteScripts;
  /** Names of classes that rules asked for before this change. */
  readonly asked: ReadonlySet<string>;
}

export function helperClasses(model: SiteModel, census: Census, options: HelperOptions): ClassMove[] {
  const { rules, scripts, asked } = options;
  const foreign = foreignClasses(model, rules);
  const byClass = new Map<string, OwnRule[]>();
  for (const own of rules)
    for (const name of new Set(own.selectors.flatMap((one) => namesIn(one)))) addTo(byClass, name, own);
  const wearers = wearersOf(model, new Set([...byClass.keys(), ...asked]));
  const moves: ClassMove[] = [];
  for (const [name, tags] of [...wearers].sort(([a], [b]) => (a < b ? -1 : 1))) {
    if (tags === 'open' || foreign.has(name)) continue;
    if (tags.some(({ page }) => scripts.mentions(page, name))) continue;
    const own = byClass.get(name) ?? [];
    if (own.length === 0) {
      if (asked.has(name)) moves.push({ name, instead: undefined, rules: [], tags });
      continue;
    }
    const groups = census.byClass.get(name) ?? [];
    const worn = tags.reduce((all, { page, element }) => all + model.countOf(page, element), 0);
    if (groups.reduce((all, { count }) => all + count, 0) !== worn) continue;
    // Where a script puts elements in another order, a class goes with its element, and a position does not.
    if (tags.some(({ page }) => scripts.movesOn(page))) continue;
    const instead = positionOf(name, groups, census, (one) => byClass.has(one));
    if (instead === undefined) continue;
    const changed = own.map((rule) => ({ own: rule, selectors: rewritten(rule, name, instead) }));
    if (changed.every(({ selectors }) => selectors.length > 0))
      moves.push({ name, instead: instead.base + instead.pattern, rules: changed, tags });
  }
  return moves;
}

export function classMoveKey({ name, instead }: ClassMove): string {
  return `class ${name} ${instead ?? ''}`;
}

interface Instead {
  readonly base: string;
  readonly pattern: string;
}

function rewritten(own: OwnRule, name: string, { base, pattern }: Instead): string[] {
  const texts = own.selectors.map(({ text }) =>
    withoutClass(text, name) === undefined ? text : withPosition(text, name, base, pattern),
  );
  return texts.some((one) => one === undefined) ? [] : (texts as string[]);
}

/** Who has each class; `open` where template text or a template may add to them. */
function wearersOf(model: SiteModel, wanted: ReadonlySet<string>): Map<string, ClassMove['tags'] | 'open'> {
  const found = new Map<string, { page: Page; element: PageElement }[] | 'open'>();
  for (const page of model.pages) {
    for (const range of page.inertClasses)
      for (const name of page.text.slice(range.start, range.end).match(/[\w-]+/g) ?? [])
        found.set(name, 'open');
    for (const element of page.elements)
      for (const name of element.classes) {
        if (!wanted.has(name)) continue;
        const known = found.get(name);
        if (page.kind === 'component' || element.templated !== 'no' || element.tag === undefined)
          found.set(name, 'open');
        else if (known === undefined) found.set(name, [{ page, element }]);
        else if (known !== 'open') known.push({ page, element });
      }
  }
  return found;
}

function namesIn(selector: OwnRule['selectors'][number]): string[] {
  const names: string[] = [];
  eachCompound(selector, ({ classes }) => {
    names.push(...classes);
  });
  return names;
}

/** Classes that rules ask for which are not to be edited. */
function foreignClasses(model: SiteModel, rules: readonly OwnRule[]): Set<string> {
  const own = new Set(rules.map(({ rule }) => rule));
  const found = new Set<string>();
  const seen = new Set<unknown>();
  for (const page of model.pages)
    for (const { uses } of model.sheetOrdersOf(page))
      for (const { program } of uses) {
        if (seen.has(program)) continue;
        seen.add(program);
        for (const { rule, selector, scope } of program.rules)
          for (const one of [selector, ...(scope?.start ?? []), ...(scope?.end ?? [])])
            if (!own.has(rule)) for (const name of namesIn(one)) found.add(name);
      }
  return found;
}

/** The simplest position that takes those who wear the class, and nobody else. */
function positionOf(
  name: string,
  groups: readonly ElementGroup[],
  census: Census,
  isStyled: (name: string) => boolean,
): Instead | undefined {
  const [first, ...others] = groups;
  if (first === undefined) return undefined;
  const common = existingSelectorsOf(first).filter(
    (text) => !text.includes(`.${name}`) && !text.includes('>') && hasOneOf(text, '.#'),
  );
  const bases = common.filter((text) => others.every((group) => existingSelectorsOf(group).includes(text)));
  const within = withParents(bases, groups);
  let loose: { instead: Instead; excess: number } | undefined;
  for (const base of within.sort((a, b) => partsOf(a) - partsOf(b)).slice(0, MOST_BASES)) {
    const existingSelector = existingSelectorOf(base);
    if (existingSelector === undefined) continue;
    const reached = reachOf(existingSelector, census);
    if (reached.some(({ unsure }) => unsure)) continue;
    const places = siblingPlaces(
      census,
      reached.map(({ group }) => group),
      0,
    );
    if (places === undefined) continue;
    const own = places.filter(({ group }) => groups.includes(group));
    const rest = places.filter(({ group }) => !groups.includes(group));
    if (own.length < 3) continue;
    for (const pattern of PATTERNS) {
      if (!own.every(({ place, even }) => pattern.takes(place) && (!pattern.countsAll || even))) continue;
      const inTurn = (): boolean => haveClassesOfTheirOwn(own, rest, isStyled);
      if (!mayStand(pattern, own, name, inTurn)) continue;
      const excess = rest.filter(({ place }) => pattern.takes(place)).length;
      const instead = { base, pattern: pattern.text };
      if (excess === 0) return instead;
      if (excess <= own.length * MOST_EXCESS && (loose === undefined || excess < loose.excess))
        loose = { instead, excess };
    }
  }
  return loose?.instead;
}

/** `.times tr` is also `.times tbody tr` where all of them stand so. */
function withParents(bases: readonly string[], groups: readonly ElementGroup[]): string[] {
  const parents = new Set(groups.map(({ parent }) => parent?.element.name));
  const [parent] = parents;
  if (
    parents.size !== 1 ||
    parent === undefined ||
    !['tbody', 'thead', 'tfoot', 'ul', 'ol', 'dl'].includes(parent)
  )
    return [...bases];
  return bases.flatMap((text) => {
    const at = text.lastIndexOf(' ');
    return at < 0 ? [text] : [text, `${text.slice(0, at)} ${parent} ${text.slice(at + 1)}`];
  });
}

/** A class that declares for itself that it goes by turns. */
const TURN =
  /odd|even|alt|strip|zebra|turn|every|nth|first|second|third|last|one|two|three|left|right|middle|\d/i;
/** A row that goes round so often does not do so by chance. */
const OFTEN = 4;

/** A turn that no row goes round twice is chance; so is a place at an end, where the class does not say that it means it. */
function mayStand(
  { period, text }: Pattern,
  own: readonly SiblingPlace[],
  name: string,
  inTurn: () => boolean,
): boolean {
  if (period === 0)
    return (
      startsWithAny(text, [':first', ':last']) &&
      includesAny(name.toLowerCase(), ['first', 'last', 'start', 'end'])
    );
  const rows = new Set(own.filter(({ length }) => length >= 2 * period).map(({ row }) => row));
  if (rows.size === 0) return false;
  const often = rows.size > 1 || own.some(({ length }) => length >= OFTEN * period);
  return often || TURN.test(name) || inTurn();
}

/** Whether those that lack the class wear another in its place, so that all of a row go by turns. */
function haveClassesOfTheirOwn(
  own: readonly SiblingPlace[],
  rest: readonly SiblingPlace[],
  isStyled: (name: string) => boolean,
): boolean {
  const mine = new Set(own.flatMap(({ group }) => group.element.classes));
  return (
    rest.length > 0 &&
    rest.every(({ group }) => group.element.classes.some((name) => !mine.has(name) && isStyled(name)))
  );
}
