// Which rules a change is written into, one declaration after the other: where it is declared on a page, or would be.

import type { Place } from '../../base/source.js';
import type { ComplexSelector, SiteModel, Truth } from '../../cascade/index.js';
import { concerns, type DeclarationChange } from '../../edit/text/index.js';
import { rulesSetting, type SettingRule, tokenIn } from './tokens.js';
import type { WrittenRule } from './written-rules.js';

export interface Asked {
  readonly selectors: readonly ComplexSelector[];
  readonly changes: readonly DeclarationChange[];
  readonly medium: Truth;
  /** Change the custom property that a value names, not the value. */
  readonly token: boolean;
}

/** What one rule is to say. */
export interface RuleChange {
  readonly written: WrittenRule;
  /** The selector that a rule of its own would get. */
  readonly selector: string;
  readonly changes: readonly DeclarationChange[];
}

/** A custom property that is changed in place of a value. */
export interface TokenChange {
  readonly name: string;
  readonly change: DeclarationChange;
  readonly setting: readonly SettingRule[];
}

export interface Plan {
  readonly rules: readonly RuleChange[];
  readonly throughTokens: readonly TokenChange[];
  /** Custom properties that a changed value named until now, and names no more. */
  readonly tokens: readonly { readonly name: string; readonly rule: Place }[];
}

/** In: `candidates`, the rules under the typed selector in the medium; `editable`, every rule of the theme. */
export function planChanges(
  model: SiteModel,
  candidates: readonly WrittenRule[],
  editable: readonly WrittenRule[],
  selector: string,
  asked: Asked,
): Plan {
  const { selectors, changes, medium, token } = asked;
  const wanted = new Map<string, { written: WrittenRule; selector: string; changes: DeclarationChange[] }>();
  const tokens: { name: string; rule: Place }[] = [];
  const throughTokens: TokenChange[] = [];
  const onPages = candidatesByPage(model, candidates);
  const want = (written: WrittenRule, own: string, change: DeclarationChange): void => {
    const key = `${written.path} ${written.offset + written.rule.range.start} ${own}`;
    const known = wanted.get(key) ?? { written, selector: own, changes: [] };
    // Of two that come to one name, as two properties of one token do, the later is meant.
    const others = known.changes.filter(({ property }) => property !== change.property);
    wanted.set(key, { ...known, changes: [...others, change] });
  };
  for (const change of changes) {
    for (const written of new Set(onPages.flatMap((own) => rulesFor(own, change)))) {
      const own = written.rule.declarations.findLast(({ property }) => property === change.property);
      const name = tokenIn(own?.value);
      const setting =
        token && name !== undefined
          ? rulesSetting(model, selectors, { property: change.property, token: name, medium }, editable)
          : [];
      if (name === undefined || setting.length === 0) {
        if (name !== undefined) tokens.push({ name, rule: written.place });
        want(written, selector, { ...change, important: change.important || isImportant(written, change) });
        continue;
      }
      throughTokens.push({ name, change, setting });
      for (const one of setting) {
        const set = { ...change, property: name };
        want(one.written, one.selector.text, {
          ...set,
          important: change.important || isImportant(one.written, set),
        });
      }
    }
  }
  return { rules: [...wanted.values()], throughTokens, tokens };
}

/** The candidates that each page reads, weakest first; one list for pages that read the same. */
function candidatesByPage(model: SiteModel, candidates: readonly WrittenRule[]): WrittenRule[][] {
  const lists = new Map<string, WrittenRule[]>();
  for (const page of model.pages) {
    const { uses } = page.kind === 'page' ? model.sheetOrderOf(page) : { uses: [] };
    const own = candidates.flatMap((one, at) => {
      const isBlockHere = one.isBlock && one.path === page.path;
      const used = uses.findLastIndex(
        ({ source }) =>
          source.path === one.path &&
          source.isBlock === one.isBlock &&
          (!one.isBlock || source.offset === one.offset),
      );
      return used >= 0 || isBlockHere ? [{ one, at, used }] : [];
    });
    if (own.length === 0) continue;
    own.sort((a, b) => a.used - b.used || a.at - b.at);
    lists.set(
      own.map(({ at }) => at).join(),
      own.map(({ one }) => one),
    );
  }
  // Nobody links the sheet yet: what it says is changed all the same.
  return lists.size === 0 ? [[...candidates]] : [...lists.values()];
}

/** Every rule on a page that says something of the property; what none says is added to the last, sheets before blocks. */
function rulesFor(onPage: readonly WrittenRule[], change: DeclarationChange): WrittenRule[] {
  const saying = onPage.filter(({ rule }) =>
    rule.declarations.some(({ property }) => concerns(property, change.property)),
  );
  if (saying.length === 0) {
    if (change.value === undefined) return [];
    return [onPage.findLast(({ isBlock }) => !isBlock) ?? onPage.at(-1)!];
  }
  const saysIt = ({ rule }: WrittenRule): boolean =>
    rule.declarations.some(({ property }) => property === change.property);
  // What is taken out is taken where it is written. What the last one declares under its very name needs no more.
  return change.value === undefined || saysIt(saying.at(-1)!) ? saying.filter(saysIt) : saying;
}

/** What the rule declares with importance stays important: else it would not be declared at all. */
function isImportant({ rule }: WrittenRule, { property: asked }: DeclarationChange): boolean {
  return rule.declarations.some(({ property, important }) => important && concerns(property, asked));
}
