// What of a site's own sheets the next one begins with: rules for elements, and for classes that enough pages wear.

import { addTo, groupBy } from '../../base/group-by.js';
import { type Place, placeIn } from '../../base/source.js';
import { namesIn, type ProgramRule, type SiteModel } from '../../cascade/index.js';
import type { StyleRule } from '../../read/sheets/index.js';
import { mediaOf } from '../sampler/index.js';
import type { Wishes } from './wishes.js';

export type StarterPart = 'values' | 'elements' | 'helpers' | 'media';

export interface StarterRule {
  readonly part: StarterPart;
  /** Those of its selectors that are taken. */
  readonly selectors: readonly string[];
  /** From the brace on, as it stands in the sheet. */
  readonly body: string;
  /** The conditions around it, the outermost first. */
  readonly around: readonly string[];
  /** The classes that it names, with their dots. */
  readonly names: readonly string[];
  readonly place: Place;
}

export const REASONS = [
  'few pages',
  'nobody',
  'said so',
  'the platform',
  'an id',
  'its place alone',
] as const;
export type LeftReason = (typeof REASONS)[number];

export interface LeftOut {
  readonly reason: LeftReason;
  readonly name: string;
  readonly pages: number;
  readonly place: Place;
}

export interface Chosen {
  readonly rules: readonly StarterRule[];
  readonly left: readonly LeftOut[];
}

/** In: the site; its own sheets, in order; the classes that platform sheets name. */
export function chooseRules(
  model: SiteModel,
  themes: readonly string[],
  isPlatformClass: (name: string) => boolean,
  wishes: Wishes,
): Chosen {
  const pagesOf = wearersIn(model);
  const medium = mediaOf(model);
  const rules: StarterRule[] = [];
  const left = new Map<string, LeftOut>();
  const judge = (
    names: readonly string[],
    type: string | undefined,
  ): { reason: LeftReason; name: string } | undefined => {
    const shown = names.length === 0 && type !== undefined ? [type] : names;
    const unwanted = shown.find((name) => wishes.leave.includes(name));
    if (unwanted !== undefined) return { reason: 'said so', name: unwanted };
    for (const name of shown) {
      if (wishes.keep.includes(name)) continue;
      const pages = pagesOf.get(name)?.size ?? 0;
      if (name.startsWith('#')) return { reason: 'an id', name };
      if (name.startsWith('.') && isPlatformClass(name.slice(1))) return { reason: 'the platform', name };
      if (pages === 0) return { reason: 'nobody', name };
      if (name.startsWith('.') && pages < wishes['at-least']) return { reason: 'few pages', name };
    }
    return undefined;
  };
  for (const path of themes) {
    const program = model.sheetAt(path);
    if (program === undefined) continue;
    const { sheet } = program;
    const linkedFor = medium.get(path);
    const outside = linkedFor === undefined ? [] : [`@media ${linkedFor}`];
    for (const [rule, own] of groupBy(program.rules, (one) => one.rule)) {
      if (rule.declarations.length === 0 || isOfValues(rule)) continue;
      const place = placeIn(path, sheet.text, rule.selectorRange.start);
      // What stands in another rule, or within a scope, means something there only.
      const isMovable = rule.nesting.length === 1 && rule.scope === undefined && rule.layer === undefined;
      const taken: ProgramRule[] = [];
      for (const one of own) {
        const names = [...namesIn(one.selector)];
        const fault = isMovable
          ? judge(names, typeOf(one))
          : { reason: 'its place alone' as const, name: one.selector.text };
        if (fault === undefined) taken.push(one);
        else if (!left.has(fault.name))
          left.set(fault.name, { ...fault, pages: pagesOf.get(fault.name)?.size ?? 0, place });
      }
      if (taken.length === 0) continue;
      const names = [...new Set(taken.flatMap(({ selector }) => [...namesIn(selector)]))];
      rules.push({
        part:
          outside.length + rule.conditions.length > 0 ? 'media' : names.length > 0 ? 'helpers' : 'elements',
        selectors: taken.map(({ selector }) => selector.text.trim()),
        body: sheet.text.slice(rule.selectorRange.end, rule.range.end).trimStart(),
        around: [...outside, ...rule.conditions.map(({ kind, text }) => `@${kind} ${text}`)],
        names,
        place,
      });
    }
  }
  return { rules, left: [...left.values()].sort((a, b) => (a.name < b.name ? -1 : 1)) };
}

/** Custom properties of the root alone: the values have a part of their own. */
function isOfValues({ selector, declarations }: StyleRule): boolean {
  return (
    declarations.every(({ property }) => property.startsWith('--')) && [':root', 'html'].includes(selector)
  );
}

function typeOf({ selector }: ProgramRule): string | undefined {
  return selector.compounds.at(-1)?.type;
}

/** Pages by class, with its dot, and by type of element. */
function wearersIn(model: SiteModel): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>();
  for (const page of model.pages)
    for (const { name, classes } of page.elements)
      for (const one of [name, ...classes.map((own) => `.${own}`)]) {
        const pages = found.get(one) ?? new Set<string>();
        found.set(one, pages.add(page.path));
      }
  return found;
}

/** The rules of each part, in the order in which they stand in the sheets. */
export function byPart(rules: readonly StarterRule[]): Map<StarterPart, StarterRule[]> {
  const parts = new Map<StarterPart, StarterRule[]>();
  for (const one of rules) addTo(parts, one.part, one);
  return parts;
}
