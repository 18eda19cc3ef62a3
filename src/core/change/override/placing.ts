// Where an override is written: in the overrides part of the shared sheet, or in style blocks of the pages it is for.

import type { SiteModel } from '../../cascade/index.js';
import {
  changeText,
  type Edit,
  editRule,
  partRange,
  planBlock,
  push,
  writeRules,
} from '../../edit/text/index.js';
import type { Declaration, StyleRule } from '../../read/sheets/index.js';
import type { PartNames } from '../../read/sheets/shared-sheet.js';
import type { SharedRule } from '../../search/index.js';
import { selectorForm } from '../restyle/index.js';
import { filesOf, type Home } from './within.js';

export type Did = 'written' | 'extended' | 'changed';

export interface Placing {
  readonly model: SiteModel;
  readonly shared: string;
  readonly partNames: PartNames;
}

/** Rules under the same selectors become one, and selectors that declare the same one list. */
export function joinEqual<Rule extends SharedRule>(rules: readonly Rule[]): Rule[] {
  const merge = (
    list: readonly Rule[],
    key: (rule: Rule) => string,
    join: (a: Rule, b: Rule) => Rule,
  ): Rule[] => {
    const found = new Map<string, Rule>();
    for (const rule of list) {
      const known = found.get(key(rule));
      found.set(key(rule), known === undefined ? rule : join(known, rule));
    }
    return [...found.values()];
  };
  const around = ({ conditions = [] }: Rule): string => conditions.join('|');
  const said = ({ declarations }: Rule): string =>
    declarations.map(({ declaration }) => changeText(declaration)).join(';');
  const bySelector = merge(
    rules,
    (rule) => `${rule.selectors.join()} in ${around(rule)}`,
    (a, b) => {
      const known = new Set(a.declarations.map(({ declaration }) => changeText(declaration)));
      const more = b.declarations.filter(({ declaration }) => !known.has(changeText(declaration)));
      return { ...a, declarations: [...a.declarations, ...more] };
    },
  );
  return merge(
    bySelector,
    (rule) => `${said(rule)} in ${around(rule)}`,
    (a, b) => ({ ...a, selectors: [...a.selectors, ...b.selectors] }),
  );
}

/** Where an override that declares the same, or stands under the same selector, is there already, it is extended. */
export function placeRules(
  rules: readonly SharedRule[],
  placing: Placing,
  home: Home,
  extend: boolean,
): { edits: Map<string, Edit[]>; did: Did[] } {
  const edits = new Map<string, Edit[]>();
  if (home.kind === 'blocks') {
    for (const path of home.pages) {
      const page = placing.model.page(path);
      if (page !== undefined) push(edits, path, planBlock(page, rules));
    }
    return { edits, did: rules.map(() => 'written') };
  }
  let did: Did[] = [];
  for (const sheet of filesOf(home)) did = placeInSheet(rules, { ...placing, shared: sheet }, extend, edits);
  return { edits, did };
}

function placeInSheet(
  rules: readonly SharedRule[],
  { model, shared, partNames }: Placing,
  extend: boolean,
  edits: Map<string, Edit[]>,
): Did[] {
  const text = model.sources.sheets.get(shared) ?? '';
  const known = extend ? rulesOfPart(model, shared, partNames) : [];
  const fresh: SharedRule[] = [];
  const did = rules.map((rule): Did => {
    const around = (rule.conditions ?? []).join();
    const standing = known.filter(
      (one) => one.conditions.map((c) => `@${c.kind} ${c.text}`).join() === around,
    );
    const form = selectorForm(rule.selectors.join(', '))?.join();
    const same = standing.findLast((one) => selectorForm(one.selector)?.join() === form);
    const wanted = rule.declarations.map(({ declaration }) => declaration);
    if (same !== undefined) {
      push(edits, shared, editRule(text, same, wanted));
      return 'changed';
    }
    // A list is longer by a selector only where it stands last: what is behind it might be as strong.
    const equal = standing.at(-1) === known.at(-1) ? standing.at(-1) : undefined;
    if (equal !== undefined && saysSame(equal, wanted)) {
      const { end } = equal.selectorRange;
      push(edits, shared, [{ start: end, end, text: `,\n${rule.selectors.join(',\n')}` }]);
      return 'extended';
    }
    fresh.push(rule);
    return 'written';
  });
  if (fresh.length > 0) push(edits, shared, writeRules(text, { path: shared, partNames }, fresh));
  return did;
}

function saysSame({ declarations }: StyleRule, wanted: readonly Declaration[]): boolean {
  const said = (list: readonly Declaration[]): string => list.map(changeText).sort().join(';');
  return said(declarations) === said(wanted);
}

/** The rules that stand in the overrides part of the shared sheet. */
export function rulesOfPart(model: SiteModel, shared: string, partNames: PartNames): StyleRule[] {
  const sheet = model.sheetAt(shared)?.sheet;
  const range = sheet === undefined ? undefined : partRange(sheet.text, 'overrides', partNames);
  if (sheet === undefined || range === undefined) return [];
  return sheet.rules.filter((rule) => rule.range.start >= range.start && rule.range.start < range.end);
}
