// Rules that declare the same for two names that are to be one.

import { compileSelectorList, rangesOfClass } from '../../cascade/index.js';
import { applyEdits } from '../../edit/text/index.js';
import { canonicalProperty, type Declaration, normalValue, type StyleRule } from '../../read/sheets/index.js';

/** Rules for the old name that say what a rule for the new one says, under the same conditions in the same sheet. */
export function equalRules(
  rules: readonly { readonly rule: StyleRule; readonly key: string }[],
  from: string,
  to: string,
): Set<StyleRule> {
  const said = (list: readonly Declaration[]): string =>
    list
      .map(
        ({ property, value, important }) =>
          `${canonicalProperty(property)}:${normalValue(canonicalProperty(property), value, '')}${important ? '!' : ''}`,
      )
      .join(';');
  const form = (
    { nesting, conditions, layer, declarations }: StyleRule,
    key: string,
    renamed: boolean,
  ): string => {
    const text = nesting
      .map((one) => {
        const list = compileSelectorList(one);
        const own = list.kind === 'list' ? list.selectors.map((s) => s.text).join(', ') : one;
        return renamed
          ? applyEdits(
              own,
              rangesOfClass(own, from).map((token) => ({ ...token, text: to })),
            )
          : own;
      })
      .join(' / ');
    return `${key} ${text} ${conditions.map((one) => one.kind + one.text).join()} ${layer ?? ''} { ${said(declarations)} }`;
  };
  const standing = new Set(
    rules
      .filter(({ rule }) => rangesOfClass(rule.nesting.at(-1) ?? '', from).length === 0)
      .map(({ rule, key }) => form(rule, key, false)),
  );
  return new Set(
    rules
      .filter(
        ({ rule, key }) =>
          rangesOfClass(rule.nesting.at(-1) ?? '', from).length > 0 && standing.has(form(rule, key, true)),
      )
      .map(({ rule }) => rule),
  );
}
