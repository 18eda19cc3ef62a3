// A question, explain. In: an element of a page and the sheets it uses. Out: everything that styles it and why, what of it
// does nothing, and what to write to change it.

import { hasOneOf } from '../../base/characters.js';
import type { Place } from '../../base/source.js';
import { chainsAround, NEVER, placeInSource, type Weighed } from '../../cascade/index.js';
import { strengthen } from '../../edit/text/index.js';
import { placeOf, showElement } from '../../proof/index.js';
import { settleIn } from './circumstances.js';
import { type ExplainContext, showSpecificity } from './describe-declaration.js';
import { groupProperties, inCircumstances, type PropertyGroup } from './groups.js';
import { containingBlock, hiddenBecause, type IdleFinding, idleFindings } from './idle.js';
import { type CustomSource, customSources, type InheritedValue, inheritedValues } from './inherited.js';
import { adviseSelectors, type SelectorAdvice } from './selectors.js';

export { ANY_CIRCUMSTANCES, type Circumstances, decideLiteral, settleIn } from './circumstances.js';
export {
  type DescribedDeclaration,
  describeDeclaration,
  type ExplainContext,
  type IsPlatform,
  showSpecificity,
  type Whose,
} from './describe-declaration.js';
export { groupProperties, inCircumstances, type PropertyGroup } from './groups.js';
export type { IdleFinding } from './idle.js';
export type { CustomSource, InheritedValue } from './inherited.js';
export { looksGenerated, matching, type ProposedSelector, type SelectorAdvice } from './selectors.js';

export interface MatchedRule {
  readonly selector: string;
  readonly place: Place;
  readonly target: string;
  readonly when: string;
}

export interface TargetExplained {
  /** `::before`, or empty for the element. */
  readonly target: string;
  readonly properties: readonly PropertyGroup[];
  /** Why nothing of it shows, if so. */
  readonly hidden: string | undefined;
}

export interface ToChange {
  /** The property, or empty for all of them. */
  readonly property: string;
  /** What must be beaten, as it is told. */
  readonly beat: string;
  readonly place: Place | undefined;
  /** The least specific selector that does it from a sheet behind all others; `undefined` where none can. */
  readonly selector: string | undefined;
  /** The same for this element alone. */
  readonly alone: string | undefined;
  /** Whether it takes `!important`. */
  readonly important: boolean;
}

export interface StandingPlace {
  readonly ancestors: readonly string[];
  /** The pages that show the part there; none where more may stand around it. */
  readonly pages: readonly string[];
}

export interface Explanation {
  readonly shown: string;
  readonly place: Place | undefined;
  /** From the root to the parent. */
  readonly ancestors: readonly string[];
  /** Of a part, what stands around it, from the root on. */
  readonly standsIn: readonly StandingPlace[];
  readonly targets: readonly TargetExplained[];
  readonly inherited: readonly InheritedValue[];
  readonly customProperties: readonly CustomSource[];
  readonly idle: readonly IdleFinding[];
  readonly containingBlock: string | undefined;
  readonly selectors: SelectorAdvice;
  readonly toChange: readonly ToChange[];
  readonly rules: readonly MatchedRule[];
}

/** In: the element; `property`, to be told of that alone (a shorthand stands for its longhands). */
export function explainElement(
  context: ExplainContext,
  property?: (longhand: string) => boolean,
): Explanation {
  const { reader, element } = context;
  const { page } = reader;
  const targets: TargetExplained[] = [];
  const idle: IdleFinding[] = [];
  const toChange: ToChange[] = [];
  const used: string[] = [];
  const selectors = adviseSelectors(reader, element);
  for (const [target, all] of [...reader.weighed(element)].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const weighed = new Map([...all].filter(([longhand]) => property?.(longhand) ?? true));
    const properties = groupProperties(weighed, context);
    if (properties.length === 0) continue;
    targets.push({ target, properties, hidden: hiddenBecause(target, context) });
    idle.push(...idleFindings(target, weighed, context));
    used.push(...properties.flatMap(({ declarations }) => declarations.map(({ value }) => value)));
    if (target === '')
      toChange.push(...changes(properties, weighed, context, selectors, property !== undefined));
  }
  const ancestors: string[] = [];
  for (let at = page.elements[element]!.parent; at >= 0; at = page.elements[at]!.parent)
    ancestors.unshift(showElement(page.elements[at]!));
  const inherited = inheritedValues(context).filter(({ longhand }) => property?.(longhand) ?? true);
  used.push(...inherited.flatMap(({ declarations }) => declarations.map(({ value }) => value)));
  return {
    shown: showElement(page.elements[element]!),
    place: placeOf(page, page.elements[element]),
    ancestors,
    standsIn: chainsAround(page, page.elements[element]!).map((chain) => ({
      ancestors: chain.page.elements.map(showElement),
      pages: [...chain.roots],
    })),
    targets,
    inherited,
    customProperties: customSources(context, used),
    idle,
    containingBlock: containingBlock(context),
    selectors,
    toChange,
    rules: matchedRules(context),
  };
}

function matchedRules({ reader, element, circumstances }: ExplainContext): MatchedRule[] {
  return reader.matched(element).flatMap(({ use, rule, truth }) => {
    const settled = settleIn(truth, circumstances, reader.table.truths);
    if (settled === NEVER) return [];
    const place = placeInSource(use.source, rule.rule.selectorRange.start);
    const when = reader.table.truths.text(settled);
    return [
      {
        selector: rule.selector.text,
        place,
        target: rule.selector.pseudoElement,
        when: when === 'always' ? '' : when,
      },
    ];
  });
}

/** One line for all properties, or one for each that was asked about. */
function changes(
  groups: readonly PropertyGroup[],
  weighed: ReadonlyMap<string, readonly Weighed[]>,
  context: ExplainContext,
  advice: SelectorAdvice,
  each: boolean,
): ToChange[] {
  const strongestOf = (longhands: readonly string[]): Weighed | undefined =>
    longhands
      .flatMap(
        (name) =>
          inCircumstances(weighed.get(name) ?? [], context).find(({ beatenBy }) => beatenBy === undefined) ??
          [],
      )
      .sort((a, b) => a.rank - b.rank)[0];
  const wanted = each
    ? groups.map(({ name, longhands }) => ({ name, strongest: strongestOf(longhands) }))
    : [{ name: '', strongest: strongestOf([...weighed.keys()]) }];
  return wanted.flatMap(({ name, strongest }) =>
    strongest === undefined ? [] : [toBeat(name, strongest, context, advice)],
  );
}

function toBeat(
  property: string,
  strongest: Weighed,
  context: ExplainContext,
  advice: SelectorAdvice,
): ToChange {
  const { writtenIn, important, weight, entry } = strongest;
  const declaration = `${entry.declaration.property}: ${entry.declaration.value}${important ? ' !important' : ''}`;
  const inline = writtenIn.kind === 'style attribute';
  const beat =
    writtenIn.kind === 'rule'
      ? `${declaration} of ${writtenIn.rule.selector.text} (${showSpecificity(weight.specificity)})`
      : `${declaration} of the ${writtenIn.kind}`;
  const write = (base: string | undefined): string | undefined => {
    // What is important in a style attribute, no sheet can beat.
    if (base === undefined || (inline && important)) return undefined;
    return strengthen(base, inline ? 0 : weight.specificity, idsAbove(context))?.selector;
  };
  const { page } = context.reader;
  const place =
    writtenIn.kind === 'rule'
      ? placeInSource(writtenIn.use.source, entry.declaration.range.start)
      : placeOf(page, page.elements[context.element]);
  const selector = write(kindFor(strongest, advice));
  const alone = write(advice.alone?.selector);
  return { property, beat, place, selector, alone, important: important || inline };
}

/** A bare element name is many kinds: what the strongest rule picks out is nearer to what is meant. */
function kindFor({ writtenIn }: Weighed, { kindOnPage, kindOnSite }: SelectorAdvice): string {
  const kind = kindOnPage?.selector ?? kindOnSite.selector;
  if (hasOneOf(kind, '.#[') || writtenIn.kind !== 'rule') return kind;
  const { text, compounds, pseudoElement } = writtenIn.rule.selector;
  const isPlain =
    pseudoElement === '' && compounds.every(({ rest }) => rest.every((simple) => simple.kind !== 'state'));
  return isPlain && writtenIn.rule.scope === undefined ? text : kind;
}

function idsAbove({ reader, element }: ExplainContext): string[] {
  const { elements } = reader.page;
  const ids: string[] = [];
  for (let at = elements[element]!.parent; at >= 0; at = elements[at]!.parent) {
    const { id } = elements[at]!;
    if (id !== undefined && /^[a-z][\w-]*$/i.test(id)) ids.push(id);
  }
  return ids;
}
