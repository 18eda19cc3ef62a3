// How far a hook reaches, and what it may say there: on the elements that say it themselves, and on others whose look
// does not change.

import { ALWAYS, NEVER, OUTDATED_ELEMENTS } from '../cascade/index.js';
import type { CarriedUnit } from '../stock/index.js';
import { type Census, cellKinds, holds, type Kind } from './census.js';
import { type Hook, isPassing } from './hooks.js';
import type { Trial, Trials } from './trial.js';

export interface Reached {
  readonly kind: Kind;
  /** The fragment or template text around it may stand anywhere: it may be reached, or not. */
  readonly unsure: boolean;
}

/** The kinds that a hook reaches. Positions in it must be asked element by element. */
export function reachOf({ selector }: Hook, census: Census): Reached[] {
  const last = selector.compounds.at(-1)!;
  const [first] = last.classes;
  const candidates =
    first !== undefined
      ? census.byClass.get(first)
      : last.type !== undefined
        ? census.byName.get(last.type)
        : census.kinds;
  const reached: Reached[] = [];
  const type = first === undefined ? last.type : undefined;
  if (type !== undefined) for (const kind of becoming(census, type)) reached.push({ kind, unsure: true });
  for (const kind of [...(candidates ?? []), ...(first === undefined ? [] : templated(census))]) {
    const truth = kind.readers[0]?.matches(selector, kind.element.index) ?? NEVER;
    if (truth !== NEVER)
      reached.push({ kind, unsure: truth !== ALWAYS || (type !== undefined && isPassing(kind)) });
  }
  return reached;
}

/** Outdated elements that may get this name: wherever they stand, what is said of it must leave them as they are. */
function becoming(census: Census, name: string): Kind[] {
  return [...OUTDATED_ELEMENTS].flatMap(([outdated, { neutral }]) =>
    neutral === name ? (census.byName.get(outdated) ?? []) : [],
  );
}

const templatedKinds = new WeakMap<Census, Kind[]>();

/** Kinds whose classes template text may add to. */
function templated(census: Census): Kind[] {
  let found = templatedKinds.get(census);
  if (found === undefined) {
    found = census.kinds.filter(({ element }) => element.templated !== 'no');
    templatedKinds.set(census, found);
  }
  return found;
}

/** How strong a rule is: as its selector is, `:where()` around it, or its last class written several times. */
export type Strength = 'plain' | 'weak' | 'twice' | 'thrice';

export const STRENGTHS: readonly Strength[] = ['plain', 'weak', 'twice', 'thrice'];

/** What a rule with one unit comes to on everything it reaches. */
export interface Say {
  readonly unit: CarriedUnit;
  readonly strength: Strength;
  /** Kinds whose own declaration the rule replaces. */
  readonly members: readonly Kind[];
}

export type Refusal = { readonly kind: Kind };

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

/** In: the units; the selector's specificity; the place among new rules. */
export function rulesFor(
  units: readonly CarriedUnit[],
  specificity: number,
  order: number,
  trials: Trials,
): NewRules {
  // `.x > * > tr > td`: two types more than the table's own selector.
  const weight = specificity === 0 ? 0 : specificity + 2;
  return {
    own: units.map((unit) =>
      trials.rule(`own ${unit.key}`, unit.declarations, unit.holder, specificity, order),
    ),
    cells: units.flatMap(({ key, cells, holder }) =>
      cells === undefined ? [] : trials.rule(`cells ${key}`, cells, holder, weight, order),
    ),
  };
}

/**
 * Tries a rule that says one unit wherever a hook reaches.
 * Out: the weakest strength that works and whose declarations it replaces; or the first kind that would look different;
 * or `undefined` where too few say it.
 */
export function trySaying(key: string, saying: Saying, atLeast: number): Say | Refusal | undefined {
  const carrying = saying.reached.flatMap(({ kind, unsure }) => {
    const unit = unsure ? undefined : freeUnit(kind, key);
    return unit === undefined ? [] : [{ kind, unit }];
  });
  const [first] = carrying;
  const says = sum(carrying.map(({ kind }) => kind));
  if (first === undefined || says < atLeast) return undefined;
  // A rule that most of what it reaches has to be shielded from is no rule on these elements.
  if (says * 2 < sum(saying.reached.map(({ kind }) => kind))) return undefined;
  const onlyHints = carrying.every(({ unit }) => unit.from.kind !== 'style');
  let refusal: Refusal | undefined;
  for (const strength of STRENGTHS) {
    const specificity = saying.specificity(strength);
    if (specificity === undefined || (strength === 'weak' && !onlyHints)) continue;
    const rules = rulesFor([first.unit], specificity, saying.order, saying.trials);
    const members: Kind[] = [];
    const refused = saying.reached.find(({ kind, unsure }) => {
      const mine = unsure ? undefined : freeUnit(kind, key);
      if (mine === undefined || !bears(kind, [mine], rules)) return !bears(kind, [], rules);
      members.push(kind);
      return false;
    });
    if (refused !== undefined) refusal ??= { kind: refused.kind };
    else if (sum(members) >= atLeast) return { unit: first.unit, strength, members };
  }
  return refusal;
}

/** Whether a kind looks the same without the units and with the rules; of a table its cells too. */
export function bears(kind: Kind, taken: readonly CarriedUnit[], { own, cells }: NewRules): boolean {
  if (!holds(kind, taken, own)) return false;
  if (kind.element.name !== 'table' || (cells.length === 0 && taken.length === 0)) return true;
  return cellKinds(kind).every((cell) => holds(cell, taken, cells));
}

/** Notes that the rules are there now, and the units gone. */
export function settle(kind: Kind, taken: readonly CarriedUnit[], { own, cells }: NewRules): void {
  for (const unit of taken) kind.left.delete(unit);
  kind.trials.push(...own);
  if (cells.length > 0 && kind.element.name === 'table')
    for (const cell of cellKinds(kind)) cell.trials.push(...cells);
}

/** The unit of a kind that says this, has no home yet and may move. */
export function freeUnit({ left }: Kind, key: string): CarriedUnit | undefined {
  for (const unit of left) if (unit.key === key && isFree(unit)) return unit;
  return undefined;
}

/** Whether a unit may have another home at all; a name without declarations goes when nothing else is left to say. */
export function isFree({ objection, declarations, cells }: CarriedUnit): boolean {
  return objection === undefined && (declarations.length > 0 || cells !== undefined);
}

export function sum(kinds: readonly Kind[]): number {
  return kinds.reduce((count, kind) => count + kind.count, 0);
}
