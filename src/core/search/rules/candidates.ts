// Selectors for one rule in place of several: those that the rules have, what they have in common, and existing selectors of the
// elements that they match.

import { addTo, groupBy } from '../../base/group-by.js';
import { isFallback } from '../../read/sheets/index.js';
import type { ElementGroup } from '../census.js';
import { existingSelectorsOf, saysNothing } from '../existing-selectors.js';
import type { Candidate } from './candidate-check.js';
import { mirrors } from './mirrored.js';
import type { OwnRule, Said } from './own-rules.js';
import { commonSelector } from './selectors.js';

/** Of so many elements that a rule matches, the existing selectors are looked at. */
const MOST_GROUPS = 30;
/** So many rules that declare the same are compared one by one for a list of selectors. */
const MOST_COMPARED = 60;

export function candidatesFor(rules: readonly OwnRule[], atLeast: number): Candidate[] {
  const found: Candidate[] = [];
  for (const own of groupBy(rules, ({ context }) => context).values()) {
    const repeated = repeatedIn(own, atLeast);
    found.push(...joins(own), ...mirrors(own), ...wider(repeated, own), ...lists(repeated, own));
  }
  return [...found, ...states(rules)];
}

/** What is declared in several places under one context, by key. */
function repeatedIn(rules: readonly OwnRule[], atLeast: number): Map<string, Said[]> {
  const byKey = groupBy(
    rules.flatMap(({ said }) => said),
    ({ movable }) => movable.key,
  );
  for (const [key, said] of byKey) {
    const times = said.reduce((all, { own }) => all + own.times, 0);
    const leaves = atLeast === 1 && said.some(({ own }) => own.sheet === undefined);
    if (times < Math.max(2, atLeast) && !leaves) byKey.delete(key);
  }
  return byKey;
}

/** Rules of one selector: all that they say may stand in one of them. */
function joins(rules: readonly OwnRule[]): Candidate[] {
  const found: Candidate[] = [];
  for (const same of groupBy(rules, ({ bases, sheet }) => `${sheet ?? ''}|${bases.join()}`).values())
    if (same.length > 1 && same[0]!.sheet !== undefined)
      found.push(
        candidateOf(
          same[0]!,
          same[0]!.bases,
          'own',
          same.flatMap(({ said }) => said),
        ),
      );
  return found;
}

/** `.go:hover` and `.go:focus` that declare the same. */
function states(rules: readonly OwnRule[]): Candidate[] {
  const inStates = rules.filter(({ sheet, suffix }) => sheet !== undefined && /^(?::[\w-]+)+$/.test(suffix));
  const alike = groupBy(inStates, ({ bases, conditions }) => `${conditions.join(' ')}|${bases.join()}`);
  return [...alike.values()].flatMap((same): Candidate[] => {
    const bySuffix = groupBy(same, ({ suffix }) => suffix);
    if (bySuffix.size < 2) return [];
    const said = groupBy(
      same.flatMap((own) => own.said),
      ({ movable }) => movable.key,
    );
    for (const [key, own] of said)
      if (new Set(own.map((one) => one.own.suffix)).size < bySuffix.size) said.delete(key);
    const { bases, conditions } = same[0]!;
    const whole = [...bySuffix.keys()].flatMap((suffix) => bases.map((base) => base + suffix));
    const context = `${conditions.join(' ')}|`;
    return said.size === 0 ? [] : [{ bases: whole, suffix: '', conditions, context, origin: 'own', said }];
  });
}

/** One selector that takes the place of several, or of one that is pasted. */
function wider(repeated: ReadonlyMap<string, readonly Said[]>, rules: readonly OwnRule[]): Candidate[] {
  const byText = new Map<string, Said[]>();
  const known = new Set<string>();
  const existingSelectors = new Map<OwnRule, ReadonlySet<string>>();
  for (const said of repeated.values()) {
    const texts = new Map<string, number>();
    const count = (text: string): void => void texts.set(text, (texts.get(text) ?? 0) + 1);
    for (const { own } of said) {
      let mine = existingSelectors.get(own);
      if (mine === undefined) {
        mine = new Set([...existingSelectorsAround(own)]);
        existingSelectors.set(own, mine);
      }
      for (const text of mine) count(text);
      for (const base of own.bases) known.add(base);
    }
    const common = said.length > 1 ? commonSelector(said.flatMap(({ own }) => own.bases)) : undefined;
    // What one block says that is pasted may stand under a scope of its pages.
    const pasted = said.length === 1 && said[0]!.own.sheet === undefined;
    for (const [text, times] of texts)
      if (times > 1 || (pasted && said[0]!.own.bases.some((base) => text.endsWith(` ${base}`))))
        for (const one of said) addTo(byText, text, one);
    if (common !== undefined && !(texts.get(common)! > 1)) for (const one of said) addTo(byText, common, one);
    for (const base of new Set(said.flatMap(({ own }) => (own.bases.length === 1 ? own.bases : []))))
      if (!(texts.get(base)! > 1) && base !== common) for (const one of said) addTo(byText, base, one);
  }
  const isScoped = (text: string): boolean => {
    const at = text.indexOf(' ');
    return text.startsWith('.') && at > 0 && known.has(text.slice(at + 1));
  };
  return [...byText].map(([text, said]) =>
    candidateOf(rules[0]!, [text], known.has(text) ? 'own' : isScoped(text) ? 'scoped' : 'found', said),
  );
}

/** Hooks of what a rule matches, but for bare names of elements: those say what stands there by chance. */
function existingSelectorsAround({ matched, bases }: OwnRule): string[] {
  const own = bases.filter(() => bases.length === 1);
  const found = new Set(own);
  for (const group of [...matched].slice(0, MOST_GROUPS)) {
    for (const name of sectionClasses(group)) for (const base of own) found.add(`.${name} ${base}`);
    for (const text of existingSelectorsOf(group)) {
      if (!/[.#[]| /.test(text) || text.includes('>') || saysNothing(text)) continue;
      found.add(text);
      // A scope that adds no strength leaves what is an exception where it is.
      const at = text.lastIndexOf(' ');
      if (at > 0) found.add(`:where(${text.slice(0, at)}) ${text.slice(at + 1)}`);
    }
  }
  return [...found];
}

/** Classes of the body around a group. */
function sectionClasses(group: ElementGroup): readonly string[] {
  let root: ElementGroup | undefined = group;
  while (root !== undefined && root.element.name !== 'body') root = root.parent;
  return root === undefined || root === group
    ? []
    : root.element.classes.filter((name) => /^[a-zA-Z_][\w-]*$/.test(name));
}

/** Several selectors for what their rules have in common. */
function lists(repeated: ReadonlyMap<string, readonly Said[]>, rules: readonly OwnRule[]): Candidate[] {
  const keysOf = new Map<OwnRule, string[]>();
  for (const [key, said] of repeated)
    for (const { own } of said) if (own.sheet !== undefined) addTo(keysOf, own, key);
  const found = new Map<string, Candidate>();
  for (const sheet of groupBy(keysOf.keys(), ({ sheet }) => sheet).values()) {
    const own = sheet.slice(0, 2000);
    own.forEach((one, at) => {
      const partners = own
        .slice(at + 1)
        .filter((other) => keysOf.get(other)!.some((key) => keysOf.get(one)!.includes(key)))
        .slice(0, MOST_COMPARED);
      for (const other of partners) {
        const common = keysOf.get(one)!.filter((key) => keysOf.get(other)!.includes(key));
        const all = own.filter((third) => common.every((key) => keysOf.get(third)!.includes(key)));
        // Those that declare nothing else are one thing by themselves, whoever declares it among other things.
        const whole = all.filter(({ said }) => said.length === common.length);
        for (const some of new Set([all, whole])) {
          const id = `${some.map(({ order }) => order).join()}|${common.join()}`;
          if (some.length < 2 || found.has(id) || !isWorthAList(some, common)) continue;
          const said = some.flatMap((rule) =>
            rule.said.filter(({ movable }) => common.includes(movable.key)),
          );
          const bases = [...new Set(some.flatMap((rule) => rule.bases))];
          found.set(id, candidateOf(rules[0]!, bases, 'own', said));
        }
      }
    });
  }
  return [...found.values()];
}

/** From so much in common on, rules are alike whatever they are about. */
const MUCH = 4;

/** A list of selectors is one thought where its rules declare the same, or are kin and declare much alike. */
function isWorthAList(rules: readonly OwnRule[], keys: readonly string[]): boolean {
  const whole = rules.every(({ said }) => said.length === keys.length);
  if (whole && keys.length >= 2) return true;
  const inOrder = [...rules].sort((a, b) => a.order - b.order);
  const neighbours = inOrder.every(
    (rule, at) =>
      at === 0 || (rule.order === inOrder[at - 1]!.order + 1 && (!rule.apart || rule.conditions.length > 0)),
  );
  if (isSetForBrowsers(rules, keys)) return true;
  if (keys.length < 2) return whole && neighbours;
  return neighbours || keys.length >= MUCH || haveNameInCommon(rules);
}

/** So many lines, in so many rules, are no chance. */
const SET = 3;

/** Whether what rules have in common is one set with prefixes or fallbacks: whoever wants to change it has to find them all. */
function isSetForBrowsers(rules: readonly OwnRule[], keys: readonly string[]): boolean {
  const set = rules[0]!.said.flatMap(({ movable }) =>
    keys.includes(movable.key) ? movable.declarations : [],
  );
  if (rules.length < SET || set.length < SET) return false;
  return set.some((one, at) => set.slice(at).some((later) => isFallback(one, later)));
}

/** Whether all are about one part of the page: a class, an id or a stem of these stands in each of them. */
function haveNameInCommon(rules: readonly OwnRule[]): boolean {
  let common: Set<string> | undefined;
  for (const { bases } of rules) {
    const own = new Set(
      bases.flatMap((base) =>
        (base.match(/[.#][\w-]+/g) ?? []).flatMap((name) => [name.slice(1), name.slice(1).split(/[-_]/)[0]!]),
      ),
    );
    common = common === undefined ? own : new Set([...common].filter((name) => own.has(name)));
  }
  return (common?.size ?? 0) > 0;
}

function candidateOf(
  { conditions, suffix, context }: OwnRule,
  bases: readonly string[],
  origin: Candidate['origin'],
  said: readonly Said[],
): Candidate {
  return { bases, suffix, conditions, context, origin, said: groupBy(said, ({ movable }) => movable.key) };
}

/** Elements of the groups. */
export function elementsIn(groups: Iterable<ElementGroup>): number {
  let count = 0;
  for (const group of groups) count += group.count;
  return count;
}
