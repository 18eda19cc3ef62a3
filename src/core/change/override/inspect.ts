// What rules that override something do now: what each beats, whether it is still needed, and how far it reaches.

import type { Place } from '../../base/source.js';
import type { SiteModel } from '../../cascade/index.js';
import { ALWAYS, canWin, placeInSource, type TruthTable, type Weighed } from '../../cascade/index.js';
import { traceSite } from '../../cascade/trace-site.js';
import { isHidden } from '../../proof/index.js';
import type { StyleRule } from '../../read/sheets/index.js';

export interface Beaten {
  readonly selector: string;
  readonly value: string;
  readonly place: Place;
  readonly isPlatform: boolean;
  readonly elements: number;
}

export interface DeclarationState {
  readonly property: string;
  readonly value: string;
  readonly important: boolean;
  /** Longhands on elements where it wins, waits for a state or medium, or is beaten: elements. */
  readonly wins: number;
  readonly waits: number;
  readonly beaten: number;
  /** What it beats, most elements first. */
  readonly beats: readonly Beaten[];
  /** What it is beaten by, most elements first. */
  readonly by: readonly Beaten[];
  /** Elements that would look otherwise without it. */
  readonly needed: number;
}

export type Verdict = 'needed' | 'matches nothing' | 'beaten' | 'not needed';

export interface OverrideState {
  readonly rule: StyleRule;
  readonly elements: number;
  readonly pages: number;
  readonly declarations: readonly DeclarationState[];
  readonly verdict: Verdict;
  /** Page and index of the first elements that it matches. */
  readonly examples: readonly { readonly page: string; readonly element: number }[];
}

interface Count {
  wins: number;
  waits: number;
  beaten: number;
  needed: number;
  readonly beats: Map<string, Beaten>;
  readonly by: Map<string, Beaten>;
}

/** In: rules of the site's sheets. Out: the state of each, in the order given. */
export function inspectRules(
  model: SiteModel,
  rules: readonly StyleRule[],
  isPlatform: (path: string) => boolean,
): OverrideState[] {
  const counts = new Map(rules.map((rule) => [rule, rule.declarations.map(newCount)]));
  const reached = new Map<
    StyleRule,
    { elements: number; pages: Set<string>; examples: OverrideState['examples'][number][] }
  >();
  traceSite(model, ({ page, element, weighed }) => {
    const here = new Set<StyleRule>();
    for (const lists of weighed.values()) {
      const seen = new Map<StyleRule, Set<string>>();
      for (const list of lists.values())
        for (const one of list) {
          const rule = one.writtenIn.kind === 'rule' ? one.writtenIn.rule.rule : undefined;
          const own = rule === undefined ? undefined : counts.get(rule);
          if (rule === undefined || own === undefined || isHidden(one.condition, model.table.truths))
            continue;
          here.add(rule);
          const at = rule.declarations.indexOf(one.entry.declaration);
          const said = seen.get(rule) ?? new Set<string>();
          seen.set(rule, said);
          // Each declaration counts once an element, by the best of its longhands.
          const once = (what: string, then: () => void): void => {
            if (said.has(`${at} ${what}`)) return;
            said.add(`${at} ${what}`);
            then();
          };
          noteOne(own[at]!, one, list, { once, isPlatform, truths: model.table.truths });
        }
    }
    for (const rule of here) {
      const known = reached.get(rule) ?? { elements: 0, pages: new Set<string>(), examples: [] };
      known.elements++;
      known.pages.add(page.path);
      if (known.examples.length < 3) known.examples.push({ page: page.path, element: element.index });
      reached.set(rule, known);
    }
  });
  return rules.map((rule) => {
    const { elements, pages, examples } = reached.get(rule) ?? {
      elements: 0,
      pages: new Set(),
      examples: [],
    };
    const declarations = rule.declarations.map((one, at) => stateOf(one, counts.get(rule)![at]!));
    return {
      rule,
      elements,
      pages: pages.size,
      examples,
      declarations,
      verdict: verdictOf(elements, declarations),
    };
  });
}

function newCount(): Count {
  return { wins: 0, waits: 0, beaten: 0, needed: 0, beats: new Map(), by: new Map() };
}

interface Noting {
  /** Does something the first time that it is asked to for a declaration and an element. */
  readonly once: (what: string, then: () => void) => void;
  readonly isPlatform: (path: string) => boolean;
  readonly truths: TruthTable;
}

function noteOne(
  count: Count,
  one: Weighed,
  list: readonly Weighed[],
  { once, isPlatform, truths }: Noting,
): void {
  if (one.beatenBy !== undefined) {
    once('beaten', () => count.beaten++);
    // Another declaration of the same rule is no rival.
    const { winner } = one.beatenBy;
    if (winner.entry.declaration !== one.entry.declaration)
      once(`by ${nameOf(winner)}`, () => add(count.by, winner, isPlatform));
    return;
  }
  once(one.condition === ALWAYS ? 'wins' : 'waits', () =>
    one.condition === ALWAYS ? count.wins++ : count.waits++,
  );
  const without = list.filter((other) => other.entry.declaration !== one.entry.declaration);
  if (formThatCounts(list, truths) !== formThatCounts(without, truths)) once('needed', () => count.needed++);
  const below = without.filter(({ rank }) => rank > one.rank);
  const next = below.find(({ condition }) => truths.implies(one.condition, condition)) ?? below[0];
  if (next !== undefined) once(`beats ${nameOf(next)}`, () => add(count.beats, next, isPlatform));
}

/** What the list comes to: what can never win, or gives what stands below it anyway, leaves no trace. */
function formThatCounts(list: readonly Weighed[], truths: TruthTable): string {
  const seen: Weighed[] = [];
  for (const one of list) if (canWin(one, seen, truths)) seen.push(one);
  const form: string[] = [];
  let below: Weighed | undefined;
  for (const one of seen.reverse()) {
    if (below?.condition === ALWAYS && below.value === one.value && form.length === 1) continue;
    form.push(`${one.value}?${one.condition}`);
    below = one;
  }
  return form.join('|');
}

function nameOf({ writtenIn, entry }: Weighed): string {
  return writtenIn.kind === 'rule'
    ? `${writtenIn.use.source.path} ${writtenIn.rule.selector.text} ${entry.declaration.range.start}`
    : writtenIn.kind;
}

function add(into: Map<string, Beaten>, one: Weighed, isPlatform: (path: string) => boolean): void {
  const { writtenIn, entry } = one;
  if (writtenIn.kind !== 'rule') {
    const place = { path: '', line: 0, column: 0 };
    const known = into.get(writtenIn.kind);
    const elements = (known?.elements ?? 0) + 1;
    into.set(writtenIn.kind, {
      selector: writtenIn.kind,
      value: entry.declaration.value,
      place,
      isPlatform: false,
      elements,
    });
    return;
  }
  const key = nameOf(one);
  const known = into.get(key);
  into.set(key, {
    selector: writtenIn.rule.selector.text,
    value: entry.declaration.value,
    place: known?.place ?? placeInSource(writtenIn.use.source, entry.declaration.range.start),
    isPlatform: isPlatform(writtenIn.use.source.path),
    elements: (known?.elements ?? 0) + 1,
  });
}

function stateOf(
  { property, value, important }: StyleRule['declarations'][number],
  { wins, waits, beaten, needed, beats, by }: Count,
): DeclarationState {
  const most = (found: Map<string, Beaten>): Beaten[] =>
    [...found.values()].sort((a, b) => b.elements - a.elements);
  return { property, value, important, wins, waits, beaten, needed, beats: most(beats), by: most(by) };
}

function verdictOf(elements: number, declarations: readonly DeclarationState[]): Verdict {
  if (elements === 0) return 'matches nothing';
  if (declarations.some(({ needed }) => needed > 0)) return 'needed';
  return declarations.some(({ wins, waits }) => wins + waits > 0) ? 'not needed' : 'beaten';
}
