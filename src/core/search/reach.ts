// How far an existing selector reaches, and what it may declare there: on the elements that declare it themselves, and on others whose look
// does not change.

import { ALWAYS, NEVER, type ScriptStates } from '../cascade/index.js';
import { BECOMING } from '../read/hints/index.js';
import type { MovableDeclaration } from '../stock/index.js';
import { type Census, cellGroups, type ElementGroup, holds } from './census.js';
import { type ExistingSelector, isPassing } from './existing-selectors.js';
import type { Trial, Trials } from './trial.js';

export interface Reached {
  readonly group: ElementGroup;
  /** The fragment or template text around it may stand anywhere: it may be reached, or not. */
  readonly unsure: boolean;
}

/** The groups that an existing selector reaches. Positions in it must be asked element by element. */
export function reachOf({ selector }: ExistingSelector, census: Census): Reached[] {
  const last = selector.compounds.at(-1)!;
  const [first] = last.classes;
  const candidates =
    first !== undefined
      ? census.byClass.get(first)
      : last.type !== undefined
        ? census.byName.get(last.type)
        : census.groups;
  const reached: Reached[] = [];
  const type = first === undefined ? last.type : undefined;
  if (type !== undefined) for (const group of becoming(census, type)) reached.push({ group, unsure: true });
  const open = first === undefined ? [] : [...templated(census), ...givenByScripts(census, first)];
  for (const group of [...(candidates ?? []), ...open]) {
    const truth = group.readers[0]?.matches(selector, group.element.index) ?? NEVER;
    if (truth !== NEVER)
      reached.push({ group, unsure: truth !== ALWAYS || (type !== undefined && isPassing(group)) });
  }
  return reached;
}

/** Outdated elements that may get this name: wherever they stand, what is declared of it must leave them as they are. */
function becoming(census: Census, name: string): ElementGroup[] {
  return BECOMING.flatMap(([outdated, neutral]) =>
    neutral === name ? (census.byName.get(outdated) ?? []) : [],
  );
}

const templatedGroups = new WeakMap<Census, ElementGroup[]>();

/** Groups whose classes template text may add to. */
function templated(census: Census): ElementGroup[] {
  let found = templatedGroups.get(census);
  if (found === undefined) {
    found = census.groups.filter(({ element }) => element.templated !== 'no');
    templatedGroups.set(census, found);
  }
  return found;
}

interface Givers {
  /** What the scripts of the pages may do, each once. */
  readonly scripts: readonly ScriptStates[];
  readonly byName: Map<string, readonly ElementGroup[]>;
}

const givers = new WeakMap<Census, Givers>();

/** Groups that a script may give the class to. */
function givenByScripts(census: Census, name: string): readonly ElementGroup[] {
  let known = givers.get(census);
  if (known === undefined) {
    const scripts = census.groups.flatMap(({ readers }) =>
      readers.map(({ sheetOrder }) => sheetOrder.scripts),
    );
    known = { scripts: [...new Set(scripts)], byName: new Map() };
    givers.set(census, known);
  }
  let found = known.byName.get(name);
  if (found === undefined) {
    const giving = new Set(known.scripts.filter((scripts) => scripts.givesClass(name)));
    found =
      giving.size === 0
        ? NO_GROUPS
        : census.groups.filter(({ element, readers }) =>
            readers.some(
              ({ sheetOrder: { scripts } }) =>
                giving.has(scripts) && scripts.changesOf(element).givesClass(name),
            ),
          );
    known.byName.set(name, found);
  }
  return found;
}

const NO_GROUPS: readonly ElementGroup[] = [];

/** How strong a rule is: as its selector is, `:where()` around it, or its last class written several times. */
export type Strength = 'plain' | 'weak' | 'twice' | 'thrice';

export const STRENGTHS: readonly Strength[] = ['plain', 'weak', 'twice', 'thrice'];

/** What a rule with one movable declaration comes to on everything it reaches. */
export interface Say {
  readonly movable: MovableDeclaration;
  readonly strength: Strength;
  /** Groups whose own declaration the rule replaces. */
  readonly members: readonly ElementGroup[];
}

export type Refusal = { readonly group: ElementGroup };

export interface Saying {
  readonly reached: readonly Reached[];
  readonly specificity: (strength: Strength) => number | undefined;
  /** The rule's place among new rules. */
  readonly order: number;
  readonly trials: Trials;
}

/** New rules for one selector: what they say of the elements, and of the cells of tables among them. */
export interface NewRules {
  readonly own: readonly Trial[];
  readonly cells: readonly Trial[];
}

/** In: the movable declarations; the selector's specificity; the place among new rules. */
export function rulesFor(
  movables: readonly MovableDeclaration[],
  specificity: number,
  order: number,
  trials: Trials,
): NewRules {
  // `.x > * > tr > td`: two types more than the table's own selector.
  const weight = specificity === 0 ? 0 : specificity + 2;
  return {
    own: movables.map((movable) =>
      trials.rule(`own ${movable.key}`, movable.declarations, movable.holder, specificity, order),
    ),
    cells: movables.flatMap(({ key, cells, holder }) =>
      cells === undefined ? [] : trials.rule(`cells ${key}`, cells, holder, weight, order),
    ),
  };
}

/**
 * Tries a rule that declares one movable declaration wherever an existing selector reaches.
 * Out: the weakest strength that works and whose declarations it replaces; or the first group that would look different;
 * or `undefined` where too few declare it.
 */
export function tryRule(key: string, saying: Saying, atLeast: number): Say | Refusal | undefined {
  const carrying = saying.reached.flatMap(({ group, unsure }) => {
    const movable = unsure ? undefined : freeMovable(group, key);
    return movable === undefined ? [] : [{ group, movable }];
  });
  const [first] = carrying;
  const says = elementCount(carrying.map(({ group }) => group));
  if (first === undefined || says < atLeast) return undefined;
  // A rule that most of what it reaches has to be shielded from is no rule on these elements.
  if (says * 2 < elementCount(saying.reached.map(({ group }) => group))) return undefined;
  const onlyHints = carrying.every(({ movable }) => movable.from.kind !== 'style');
  let refusal: Refusal | undefined;
  for (const strength of STRENGTHS) {
    const specificity = saying.specificity(strength);
    if (specificity === undefined || (strength === 'weak' && !onlyHints)) continue;
    const rules = rulesFor([first.movable], specificity, saying.order, saying.trials);
    const members: ElementGroup[] = [];
    const refused = saying.reached.find(({ group, unsure }) => {
      const mine = unsure ? undefined : freeMovable(group, key);
      if (mine === undefined || !looksTheSame(group, [mine], rules)) return !looksTheSame(group, [], rules);
      members.push(group);
      return false;
    });
    if (refused !== undefined) refusal ??= { group: refused.group };
    else if (elementCount(members) >= atLeast) return { movable: first.movable, strength, members };
  }
  return refusal;
}

/** Whether a group looks the same without the movable declarations and with the rules; of a table its cells too. */
export function looksTheSame(
  group: ElementGroup,
  taken: readonly MovableDeclaration[],
  { own, cells }: NewRules,
): boolean {
  if (!holds(group, taken, own)) return false;
  if (group.element.name !== 'table' || (cells.length === 0 && taken.length === 0)) return true;
  return cellGroups(group).every((cell) => holds(cell, taken, cells));
}

/** Notes that the rules are there now, and the movable declarations gone. */
export function settle(
  group: ElementGroup,
  taken: readonly MovableDeclaration[],
  { own, cells }: NewRules,
): void {
  for (const movable of taken) group.left.delete(movable);
  group.trials.push(...own);
  if (cells.length > 0 && group.element.name === 'table')
    for (const cell of cellGroups(group)) cell.trials.push(...cells);
}

/** The movable declaration of a group that declares this, has no home yet and may move. */
export function freeMovable({ left }: ElementGroup, key: string): MovableDeclaration | undefined {
  for (const movable of left) if (movable.key === key && isFree(movable)) return movable;
  return undefined;
}

/** Whether a movable declaration may have another home at all; a name without declarations goes when nothing else is left to declare. */
export function isFree({ objection, declarations, cells }: MovableDeclaration): boolean {
  return objection === undefined && (declarations.length > 0 || cells !== undefined);
}

/** How many elements some groups have. */
export function elementCount(groups: readonly ElementGroup[]): number {
  return groups.reduce((count, group) => count + group.count, 0);
}
