// Taking an override away again, and what was written beside it for its sake.

import {
  ALWAYS,
  compileSelectorList,
  conditionTruth,
  type SiteModel,
  type Truth,
} from '../../cascade/index.js';
import {
  applyEdits,
  composeEdits,
  type DeclarationChange,
  type Edit,
  emptyPart,
  stateAfter,
} from '../../edit/text/index.js';
import { type IntentProof, prove, proveWishes, type Wish } from '../../proof/index.js';
import type { StyleRule } from '../../read/sheets/index.js';
import type { SharedSheet } from '../../read/sheets/shared-sheet.js';
import { selectorForm } from '../restyle/index.js';
import { changeRule } from '../rule-edits.js';
import { mediumOf, wishOf } from '../wish.js';
import { rulesOfPart } from './placing.js';

export interface Dropped {
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  readonly rules: readonly StyleRule[];
  readonly proof: IntentProof;
}

export interface DropAsked {
  readonly selector: string;
  /** None for all that the rule declares. */
  readonly properties: readonly string[];
  /** The one in this medium; `undefined` for the one outside all. */
  readonly medium: string | undefined;
}

/** A rule that goes, or loses some of its selectors or declarations. */
interface Going {
  readonly rule: StyleRule;
  /** Those of its selectors that are meant, as they are written. */
  readonly selectors: readonly string[];
  readonly whole: boolean;
}

/**
 * In: the sheet that holds the overrides; which of them. Out: `undefined` where none stands there. What was repeated for
 * its states and media goes with it: what declares nothing any more once it is gone.
 */
export function dropOverride(
  model: SiteModel,
  { path: shared, partNames }: SharedSheet,
  { selector, properties, medium }: DropAsked,
): Dropped | undefined {
  const rules = rulesOfPart(model, shared, partNames);
  const own = goingRules(model, rules, selector, mediumOf(medium, model.table.truths));
  if (own.length === 0) return undefined;
  const text = model.sources.sheets.get(shared) ?? '';
  const editsOf = (going: readonly Going[]): Edit[] =>
    going.flatMap((one) => changeRule({ ...one, text }, goneFrom(one, properties), one.selectors.join(', ')));
  const without = (going: readonly Going[]): SiteModel =>
    stateAfter(model, new Map([[shared, editsOf(going)]]));
  const all = [...own];
  let after = without(all);
  for (const one of companionsOf(rules, own)) {
    const further = without([...all, one]);
    if (prove(after, further).differences.length > 0) continue;
    all.push(one);
    after = further;
  }
  const edits = editsOf(all);
  const heading = emptyPart(applyEdits(text, edits), 'overrides', partNames);
  const done = new Map([[shared, heading === undefined ? edits : composeEdits(text, edits, [heading])]]);
  const proof = proveWishes(
    model,
    stateAfter(model, done),
    all.map((one) => wishFor(one, properties)),
  );
  return { edits: done, rules: all.map(({ rule }) => rule), proof };
}

/** Whatever a rule declared may change, on the elements that it matches and nowhere else. */
function wishFor(going: Going, properties: readonly string[]): Wish {
  const list = compileSelectorList(going.selectors.join(', '));
  const selectors = list.kind === 'list' ? list.selectors : [];
  return wishOf({ selectors, changes: goneFrom(going, properties), medium: ALWAYS });
}

function goneFrom({ rule }: Going, properties: readonly string[]): DeclarationChange[] {
  return rule.declarations
    .filter(({ property }) => properties.length === 0 || properties.includes(property))
    .map(({ property }) => ({ property, value: undefined, important: false }));
}

/** The rules under the very selector, in the medium; where there is none, those that were written for it. */
function goingRules(model: SiteModel, rules: readonly StyleRule[], selector: string, medium: Truth): Going[] {
  const wanted = selectorForm(selector) ?? [];
  const { truths } = model.table;
  const inMedium = rules.filter(
    ({ conditions }) => truths.and(...conditions.map((one) => conditionTruth(one, truths))) === medium,
  );
  const under = (form: (text: string) => string): Going[] =>
    inMedium.flatMap((rule) => {
      const all = selectorForm(rule.selector) ?? [];
      const selectors = all.filter((text) => wanted.map(form).includes(form(text)));
      return selectors.length === 0 ? [] : [{ rule, selectors, whole: selectors.length === all.length }];
    });
  const exact = under((text) => text);
  return exact.length > 0 ? exact : under(withoutStrength);
}

/** What may have been repeated for the sake of a rule: later rules whose selectors begin as its own do. */
function companionsOf(rules: readonly StyleRule[], own: readonly Going[]): Going[] {
  const going = new Set(own.map(({ rule }) => rule));
  const stems = own.flatMap(({ selectors }) => selectors.map((text) => withoutStrength(elementOf(text))));
  const first = Math.min(...own.map(({ rule }) => rules.indexOf(rule)));
  return rules.slice(first).flatMap((rule): Going[] => {
    if (going.has(rule)) return [];
    const all = selectorForm(rule.selector) ?? [];
    const isBeside = (text: string): boolean => {
      const element = withoutStrength(elementOf(text));
      return stems.some((stem) => element.startsWith(stem) && /^($|[:[])/.test(element.slice(stem.length)));
    };
    return all.length > 0 && all.every(isBeside) ? [{ rule, selectors: all, whole: true }] : [];
  });
}

function elementOf(selector: string): string {
  return selector.replace(/::[\w-]+(\([^()]*\))?$/, '');
}

/** The selector without what an override is made stronger, or weaker, by. */
function withoutStrength(selector: string): string {
  return selector
    .replace(/^((:root)+|html body|body|#[\w-]+) (?=\S)/, '')
    .replace(/^:where\((.*?)\)(?=$|[:[])/, '$1')
    .replace(/(\.[\w-]+)\1+/g, '$1');
}
