// The canonical text of outcomes: equal texts, equal looks.

import { interactionGroup } from '../read/sheets/index.js';
import type { Outcome, OutcomeList, Outcomes } from './outcome-model.js';
import { ALWAYS } from './truth.js';

/**
 * The list without entries that cannot change the result: those that give what the unconditional one below them gives.
 * Only for a longhand that no other name competes with.
 */
export function withoutIdle(list: OutcomeList): Outcome[] {
  const left: Outcome[] = [];
  for (const outcome of [...list].reverse()) {
    const below = left.at(-1);
    const idle =
      below?.condition === ALWAYS && below.value === outcome.value && below.important === outcome.important;
    if (!idle) left.push(outcome);
  }
  return inOrderOfConditions(left.reverse());
}

/** Which of several that follow each other and declare the same decides makes no difference. */
function inOrderOfConditions(list: Outcome[]): Outcome[] {
  const says = ({ value, important }: Outcome): string => `${important} ${value}`;
  for (let start = 0; start < list.length; ) {
    let end = start + 1;
    while (end < list.length && says(list[end]!) === says(list[start]!)) end++;
    if (end - start > 1) {
      const run = list.slice(start, end).sort((a, b) => Number(a.condition) - Number(b.condition));
      list.splice(start, run.length, ...run);
    }
    start = end;
  }
  return list;
}

/**
 * The canonical text of the outcomes of one target. Longhands stand alone, except where two names may set one computed
 * value (logical and physical, vendor variants): then their order in the cascade is part of the form.
 */
export function outcomesForm(outcomes: Outcomes, weightTells = true): string {
  const names = [...outcomes.keys()].sort();
  const parts = names.map((name) => `${name}=${listForm(outcomes.get(name)!, weightTells)}`);
  const all = outcomes.has('all');
  const groups = new Map<string, { kinds: Set<string>; members: string[] }>();
  for (const name of names) {
    const { name: group, kind } = all ? { name: 'all', kind: name } : interactionGroup(name);
    const known = groups.get(group);
    if (known === undefined) groups.set(group, { kinds: new Set([kind]), members: [name] });
    else {
      known.kinds.add(kind);
      known.members.push(name);
    }
  }
  for (const [group, { kinds, members }] of groups) {
    if (members.length < 2 || (kinds.size < 2 && !kinds.has('vendor'))) continue;
    parts.push(`~${group}=${cascadeOrder(members.flatMap((name) => outcomes.get(name)!))}`);
  }
  return parts.join(';');
}

function listForm(list: OutcomeList, weightTells: boolean): string {
  if (list.length === 1) return outcomeForm(list[0]!, weightTells);
  return withoutIdle(list)
    .map((one) => outcomeForm(one, weightTells))
    .join('|');
}

function outcomeForm({ value, important, condition }: Outcome, weightTells: boolean): string {
  return `${value}${important && weightTells ? '!' : ''}${condition === ALWAYS ? '' : `?${condition}`}`;
}

function cascadeOrder(outcomes: readonly Outcome[]): string {
  return [...outcomes]
    .sort((a, b) => a.rank - b.rank)
    .map((outcome) => `${outcome.longhand}:${outcomeForm(outcome, true)}`)
    .join('|');
}
