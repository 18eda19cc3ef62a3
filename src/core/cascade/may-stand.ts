// Whether an element that a selector picks out may stand on a page, told by the names on it: most pages of a large site
// are not looked into for most questions.

import type { Page } from '../markup/index.js';
import type { Program } from './program.js';
import type { ScriptStates } from './script-states.js';
import type { ComplexSelector } from './selector-model.js';
import type { Stack } from './stack.js';

/** False only where nothing on the page could match: by its own names, and by those that its scripts may give. */
export function mayStandOn(page: Page, { scripts }: Stack, selector: ComplexSelector): boolean {
  const { outline } = page;
  if (outline === undefined) return true;
  return selector.compounds.every(
    ({ type, id, classes }) =>
      (type === undefined || outline.names.has(type.toLowerCase())) &&
      (id === undefined || outline.names.has(`#${id.toLowerCase()}`) || mayGive(scripts, 'id', id)) &&
      classes.every((name) => outline.names.has(`.${name.toLowerCase()}`) || mayGive(scripts, 'class', name)),
  );
}

function mayGive(scripts: ScriptStates, kind: 'id' | 'class', name: string): boolean {
  return kind === 'id' ? scripts.anywhere.givesId(name) : scripts.anywhere.givesClass(name);
}

/**
 * Selectors of the rules that one stack has and the other has not, as far as both hold the same sheets in the same order.
 * Out: `undefined` where anything else differs.
 */
export function changedSelectors(before: Stack, after: Stack): readonly ComplexSelector[] | undefined {
  if (before.uses.length !== after.uses.length || before.layersKey !== after.layersKey) return undefined;
  const changed: ComplexSelector[] = [];
  for (const [at, was] of before.uses.entries()) {
    const is = after.uses[at]!;
    if (was.condition !== is.condition || was.layer !== is.layer || was.source.path !== is.source.path)
      return undefined;
    const middle = changedRules(was.program, is.program);
    // Where a scope begins is asked of other elements.
    if (middle.some(({ scope }) => scope !== undefined)) return undefined;
    for (const { selector } of middle) changed.push(selector);
  }
  return changed;
}

const NONE: readonly Told[] = [];
/** Pages by the thousand load the same two sheets. */
const known = new WeakMap<Program, WeakMap<Program, readonly Told[]>>();

/** The rules between the first and the last that differ, of both sheets. */
function changedRules(was: Program, is: Program): readonly Told[] {
  if (was === is) return NONE;
  const others = known.get(was) ?? new WeakMap<Program, readonly Told[]>();
  known.set(was, others);
  const found = others.get(is) ?? compareRules(was, is);
  others.set(is, found);
  return found;
}

function compareRules(was: Program, is: Program): readonly Told[] {
  const [old, fresh] = [was, is].map(({ rules, sheet }) =>
    rules.map(({ selector, rule, condition, scope }) => ({
      selector,
      scope,
      form: `${selector.text}\0${condition}\0${sheet.text.slice(rule.range.start, rule.range.end)}`,
    })),
  ) as [Told[], Told[]];
  let [start, end] = [0, 0];
  const least = Math.min(old.length, fresh.length);
  while (start < least && old[start]!.form === fresh[start]!.form) start++;
  while (end < least - start && old.at(-1 - end)!.form === fresh.at(-1 - end)!.form) end++;
  return [...old.slice(start, old.length - end), ...fresh.slice(start, fresh.length - end)];
}

interface Told {
  readonly selector: ComplexSelector;
  readonly scope: unknown;
  readonly form: string;
}
