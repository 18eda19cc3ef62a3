// What styles a target, property by property; longhands that the same declarations decide are told once.

import { withoutStart } from '../../base/phrases.js';
import { beaterOf, edgeBetween, NEVER, type Weighed } from '../../cascade/index.js';
import { longhands } from '../../read/sheets/index.js';
import { settleIn } from './circumstances.js';
import {
  type DescribedDeclaration,
  describeDeclaration,
  type ExplainContext,
} from './describe-declaration.js';

export interface PropertyGroup {
  /** `padding`, `border-top-color`, `rest of background`. */
  readonly name: string;
  readonly longhands: readonly string[];
  /** Strongest first: what wins or could, then what is beaten. */
  readonly declarations: readonly DescribedDeclaration[];
}

/** In: every declaration of one target. Out: by name; what cannot apply in the circumstances is left out. */
export function groupProperties(
  weighed: ReadonlyMap<string, readonly Weighed[]>,
  context: ExplainContext,
): PropertyGroup[] {
  const groups = new Map<string, { longhands: string[]; list: readonly Weighed[] }>();
  for (const [longhand, all] of weighed) {
    const list = inCircumstances(all, context);
    if (list.length === 0) continue;
    const key = list.map((one) => `${identity(one)}${one.beatenBy === undefined ? '' : ' beaten'}`).join('|');
    const group = groups.get(key);
    if (group === undefined) groups.set(key, { longhands: [longhand], list });
    else group.longhands.push(longhand);
  }
  return [...groups.values()]
    .map((group) => ({
      name: groupName(group.longhands, group.list),
      longhands: group.longhands,
      declarations: group.list.map((one) => describeDeclaration(one, context)),
    }))
    .sort((a, b) => (sortKey(a) < sortKey(b) ? -1 : 1));
}

/** What the circumstances rule out goes, and what they decide is weighed anew. */
export function inCircumstances(
  list: readonly Weighed[],
  { reader, circumstances }: ExplainContext,
): Weighed[] {
  const { truths } = reader.table;
  const kept: Weighed[] = [];
  for (const one of list) {
    const condition = settleIn(one.condition, circumstances, truths);
    if (condition === NEVER) continue;
    const undefeated = kept.filter((other) => other.beatenBy === undefined);
    const stronger = beaterOf(condition, undefeated, truths);
    const edge = one.beatenBy?.edge;
    const beatenBy =
      stronger === undefined
        ? undefined
        : edge !== undefined && one.beatenBy?.winner.entry === stronger.entry
          ? { winner: stronger, edge }
          : { winner: stronger, edge: edgeBetween(stronger, one) };
    kept.push({ ...one, condition, beatenBy });
  }
  return kept;
}

const numbers = new WeakMap<object, number>();
let last = 0;

function identity({ entry, condition }: Weighed): string {
  let number = numbers.get(entry.declaration);
  if (number === undefined) {
    number = ++last;
    numbers.set(entry.declaration, number);
  }
  return `${number} ${condition}`;
}

function groupName(group: readonly string[], list: readonly Weighed[]): string {
  if (group.length === 1) return group[0]!;
  for (const { entry } of list) {
    const { set, reset, unsettled } = longhands(entry.declaration.property);
    if (set.length + reset.length + unsettled.length === group.length) return entry.declaration.property;
  }
  const whole = list[0]!.entry.declaration.property;
  return group.every((name) => longhands(whole).set.includes(name)) ? `rest of ${whole}` : group.join(', ');
}

function sortKey({ name, longhands: [first] }: PropertyGroup): string {
  return withoutStart(name, 'rest of ') + (name.startsWith('rest') ? `~${first}` : '');
}
