// Selectors that only an element and its ancestors decide, and what is left of others without their siblings and positions.

import type { ProgramRule } from './rule-index.js';
import type { ComplexSelector, Compound, Simple } from './selector-model.js';

/** What a selector asks of the element and its ancestors alone: it matches wherever the selector matches. */
export function relax(selector: ComplexSelector): ComplexSelector {
  const cut = selector.combinators.findLastIndex((one) => one === '+' || one === '~') + 1;
  const compounds = selector.compounds
    .slice(cut)
    .map((compound) => ({ ...compound, rest: compound.rest.filter(isLocalSimple) }));
  return {
    ...selector,
    compounds,
    combinators: selector.combinators.slice(cut),
    leading: selector.leading.slice(cut),
    pseudoStates: '',
  };
}

/** A local rule is the selector it is asked by; of another, what it asks is less than the whole. */
export function isLocalRule({ selector, scope }: ProgramRule): boolean {
  return isLocal(selector) && (scope === undefined || [...scope.start, ...scope.end].every(isLocal));
}

/** Only the element and its ancestors decide. */
function isLocal(selector: ComplexSelector): boolean {
  return (
    selector.combinators.every((one) => one === ' ' || one === '>') &&
    selector.compounds.every(isLocalCompound)
  );
}

function isLocalCompound({ rest }: Compound): boolean {
  return rest.every(isLocalSimple);
}

function isLocalSimple(simple: Simple): boolean {
  switch (simple.kind) {
    case 'attribute':
    case 'any-link':
    case 'state':
    case 'root':
    case 'scope root':
      return true;
    case 'among':
      return simple.selectors.every(isLocal);
    case 'has':
    case 'nth':
    case 'empty':
    case 'static':
      return false;
  }
}
