// Rules that name the same ids one by one: what all of these are gets a class, and the next one of them needs no rule.

import { addTo } from '../../base/group-by.js';
import { ONE_ID, type SiteModel } from '../../cascade/index.js';
import type { Page, PageElement } from '../../read/markup/index.js';
import { CLASS_WRITTEN } from '../../read/scripts/index.js';
import type { SiteScripts } from '../../stock/index.js';
import { type Census, holds } from '../census.js';
import { existingSelectorOf } from '../existing-selectors.js';
import type { Trials } from '../trial.js';
import { hitsOf, lostBy, trialsOf, truthOf } from './candidate-check.js';
import type { OwnRule } from './own-rules.js';

/** A class in place of ids. */
export interface IdClass {
  /** Sorted. */
  readonly ids: readonly string[];
  readonly rules: readonly OwnRule[];
  /** The selector of what has the class, with `NAME` for it: `main .NAME`. */
  readonly form: string;
  readonly tags: readonly { readonly page: Page; readonly element: PageElement }[];
}

export interface NamedIdClass extends IdClass {
  readonly name: string;
}

export interface IdClassSearch {
  readonly scripts: SiteScripts;
  readonly trials: Trials;
  readonly isRefused: (selector: string) => boolean;
}

/** Two ids are named sooner than what they have in common. */
const FEWEST = 3;
/** A name is one more thing to know. */
const WORTH = 0.5;
const NAME = 'acervus-new';

export function idClasses(
  model: SiteModel,
  census: Census,
  rules: readonly OwnRule[],
  search: IdClassSearch,
): IdClass[] {
  const byIds = new Map<string, OwnRule[]>();
  for (const own of rules) {
    const ids = own.sheet === undefined ? [] : idsOf(own);
    if (ids.length >= FEWEST) addTo(byIds, ids.join(), own);
  }
  return [...byIds].flatMap(([key, own]): IdClass[] => {
    const ids = key.split(',');
    const tags = wearersOf(model, ids, search.scripts);
    if (tags === undefined || ids.some((id) => search.isRefused(`#${id}`))) return [];
    const saved = own.reduce((all, { bases }) => all + (bases.length - bases.length / ids.length) / 2, 0);
    if (saved < tags.length / 4 + WORTH) return [];
    const form = formsFor(tags).find((one) => own.every((rule) => works(rule, one, model, census, search)));
    return form === undefined ? [] : [{ ids, rules: own, form, tags }];
  });
}

export function idClassKey({ ids }: IdClass): string {
  return `ids ${ids.join()}`;
}

/** `box` of `box-101` and `box-102`. */
export function wordOf({ ids }: IdClass): string | undefined {
  const [word, ...others] = ids.map((id) => /^[a-zA-Z]{3,}(?=[-_\d])/.exec(id)?.[0]);
  return others.every((one) => one === word) ? word?.toLowerCase() : undefined;
}

/** The selectors of a rule once the class is there. */
export function classSelectors(own: OwnRule, form: string, name: string): string[] {
  const written = form.replaceAll('NAME', name);
  return [...new Set(own.bases.map((base) => restOf(base)!.rest))].map((rest) => written + rest + own.suffix);
}

/** The ids that every selector of a rule begins with, where each of them is declared of all that the others are; sorted. */
function idsOf({ bases }: OwnRule): string[] {
  const byRest = new Map<string, string[]>();
  for (const base of bases) {
    const parts = restOf(base);
    if (parts === undefined) return [];
    addTo(byRest, parts.rest, parts.id);
  }
  const [first, ...others] = [...byRest.values()].map((ids) => [...new Set(ids)].sort().join());
  return first !== undefined && others.every((one) => one === first) ? first.split(',') : [];
}

/** `#tide h2` is `tide`, and ` h2` below it. */
function restOf(base: string): { readonly id: string; readonly rest: string } | undefined {
  const match = /^#([a-zA-Z_][\w-]*)((?:[.:[ >][^#]*)?)$/.exec(base);
  return match === null ? undefined : { id: match[1]!, rest: match[2]! };
}

/** Everything with one of the ids; `undefined` where nobody knows what that is. */
function wearersOf(
  model: SiteModel,
  ids: readonly string[],
  scripts: SiteScripts,
): IdClass['tags'] | undefined {
  const wanted = new Set(ids);
  const found: { page: Page; element: PageElement }[] = [];
  for (const page of model.pages) {
    for (const element of page.elements) {
      if (element.id === undefined || !wanted.has(element.id)) continue;
      if (page.kind !== 'page' || page.isMail || element.templated !== 'no' || element.tag === undefined)
        return undefined;
      // Of an element that a script names it may change the class, or make another.
      if (scripts.mentions(page, element.id)) return undefined;
      if (scripts.objection(page, element, CLASS_WRITTEN) !== undefined) return undefined;
      found.push({ page, element });
    }
  }
  return new Set(found.map(({ element }) => element.id)).size === ids.length ? found : undefined;
}

/** The plainest first: by itself, in the part of the page, beside a class that all of them have, twice. */
function formsFor(tags: IdClass['tags']): string[] {
  const [first, ...others] = tags.map(({ element }) => element.classes);
  const common = first!.filter(
    (name) => /^[a-zA-Z_][\w-]*$/.test(name) && others.every((own) => own.includes(name)),
  );
  const inMain = tags.every(({ page, element }) => isInMain(page, element));
  return [
    '.NAME',
    ...(inMain ? ['main .NAME'] : []),
    ...common.map((name) => `.${name}.NAME`),
    ...(inMain ? common.map((name) => `main .${name}.NAME`) : []),
    '.NAME.NAME',
  ];
}

function isInMain(page: Page, { parent }: PageElement): boolean {
  for (let at = parent; at >= 0; at = page.elements[at]!.parent)
    if (page.elements[at]!.name === 'main') return true;
  return false;
}

/** Whether everything looks the same when a rule asks for the class in place of the ids. */
function works(
  own: OwnRule,
  form: string,
  model: SiteModel,
  census: Census,
  { trials }: IdClassSearch,
): boolean {
  const { truths } = model.table;
  const hits = hitsOf({ ...own, origin: 'own', said: new Map() }, census, (all) => truthOf(all, truths));
  if (hits === undefined) return false;
  // A class stands where the id stood.
  const lighter = (existingSelectorOf(form.replaceAll('NAME', NAME))?.selector.specificity ?? 0) - ONE_ID;
  const reached = trialsOf(
    new Map(
      [...hits].map(([group, own]) => [
        group,
        own.map(({ truth, selector }) => ({
          truth,
          selector: { ...selector, specificity: selector.specificity + lighter },
        })),
      ]),
    ),
    own.said.map(({ movable }) => movable),
    { sheet: own.sheet!, order: own.order + 0.01 },
    trials,
  );
  const lost = lostBy(own.said);
  return [...reached].every(([group, rules]) => holds(group, [], rules, lost));
}
