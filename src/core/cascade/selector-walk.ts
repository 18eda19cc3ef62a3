// What a selector is made of, for everybody who asks it something: every compound, wherever it stands, and the names in it.

import type { ProgramRule } from './rule-index.js';
import type { ComplexSelector, Compound } from './selector-model.js';

/**
 * `subject`: the last compound, which the selector's elements are; `before`: one in front of it; `inside`: in the argument
 * of `:is()`, `:where()`, `:not()`, `:has()`, `:nth-child(… of S)`, or the rule around a nested one.
 */
export type CompoundPlace = 'subject' | 'before' | 'inside';

/** Visits every compound of a selector, those of its arguments behind the one that holds them. */
export function eachCompound(
  { compounds }: ComplexSelector,
  visit: (compound: Compound, place: CompoundPlace) => void,
): void {
  compounds.forEach((compound, at) => {
    visit(compound, at === compounds.length - 1 ? 'subject' : 'before');
    visitInside(compound, visit);
  });
}

function visitInside({ rest }: Compound, visit: (compound: Compound, place: CompoundPlace) => void): void {
  for (const simple of rest) {
    const selectors =
      simple.kind === 'among' || simple.kind === 'has'
        ? simple.selectors
        : simple.kind === 'nth'
          ? (simple.of ?? [])
          : [];
    for (const selector of selectors) eachCompound(selector, (compound) => visit(compound, 'inside'));
  }
}

/** The same for a rule: its selector, and those of the scope around it. */
export function eachRuleCompound(
  { selector, scope }: Pick<ProgramRule, 'selector' | 'scope'>,
  visit: (compound: Compound, place: CompoundPlace) => void,
): void {
  eachCompound(selector, visit);
  for (const one of [...(scope?.start ?? []), ...(scope?.end ?? [])])
    eachCompound(one, (compound) => visit(compound, 'inside'));
}

/** The classes that selectors name. */
export function classesIn(selectors: Iterable<ComplexSelector>): Set<string> {
  const names = new Set<string>();
  for (const selector of selectors)
    eachCompound(selector, ({ classes }) => {
      for (const name of classes) names.add(name);
    });
  return names;
}

/** The classes and ids that a selector names, with their signs: `.kind`, `#top`. */
export function namesIn(selector: ComplexSelector): Set<string> {
  const names = new Set<string>();
  eachCompound(selector, ({ id, classes }) => {
    if (id !== undefined) names.add(`#${id}`);
    for (const name of classes) names.add(`.${name}`);
  });
  return names;
}

/** `.kind` or `#top`, where that is all a selector declares. */
export function onlyName({ compounds, pseudoElement }: ComplexSelector): string | undefined {
  const [only] = compounds;
  if (only === undefined || compounds.length > 1 || pseudoElement !== '') return undefined;
  const { type, id, classes, rest } = only;
  if (type !== undefined || rest.length > 0 || classes.length + (id === undefined ? 0 : 1) !== 1)
    return undefined;
  return id === undefined ? `.${classes[0]}` : `#${id}`;
}

/** The class of a selector that declares nothing else, without its dot. */
export function onlyClass(selector: ComplexSelector): string | undefined {
  const name = onlyName(selector);
  return name?.startsWith('.') ? name.slice(1) : undefined;
}

/** Whether a selector asks for anything but names and their order: a state, a position, an attribute, a choice. */
export function asksMoreThanNames({ compounds, pseudoElement }: ComplexSelector): boolean {
  return pseudoElement !== '' || compounds.some(({ rest }) => rest.length > 0);
}
