// Where the custom property is set that a value on the meant elements comes from.

import {
  type ComplexSelector,
  compileSelectors,
  NEVER,
  type SiteModel,
  type StyleReader,
  type Truth,
  undefeatedFor,
  type Weighed,
} from '../../cascade/index.js';
import { isHidden } from '../../proof/index.js';
import { everyLonghand } from '../../read/sheets/index.js';
import { variableAlone, variablesIn } from '../../read/sheets/variables.js';
import { holdsIn, type WrittenRule } from './written-rules.js';

export interface SettingRule {
  readonly written: WrittenRule;
  /** The selector by which it reaches the elements. */
  readonly selector: ComplexSelector;
}

/** The custom property that a value consists of. */
export function tokenIn(value: string | undefined): string | undefined {
  return variableAlone(value ?? '');
}

/**
 * In: who is meant, a property that names the token there, and the rules that may be changed.
 * Out: those that set it nearest above an element that is meant, in the medium.
 */
export function rulesSetting(
  model: SiteModel,
  selectors: readonly ComplexSelector[],
  { property, token, medium }: { property: string; token: string; medium: Truth },
  editable: readonly WrittenRule[],
): SettingRule[] {
  const found = new Map<string, SettingRule>();
  const [longhand = property] = everyLonghand(property);
  for (const page of model.pages) {
    for (const reader of model.readersOf(page)) {
      for (const { index } of page.elements) {
        const own = selectors.find((one) => {
          const matched = reader.matches(one, index);
          return matched !== NEVER && !isHidden(matched, model.table.truths);
        });
        if (own === undefined) continue;
        const said = undefeatedFor(
          reader.weighed(index).get(own.pseudoElement),
          longhand,
          model.table.truths,
        );
        if (!said.some(({ entry }) => tokenIn(entry.declaration.value) === token)) continue;
        for (const one of nearest(reader, index, token)) {
          const setting = settingRule(one, editable);
          if (setting !== undefined && holdsIn(model, setting.written, medium))
            found.set(
              `${setting.written.place.path} ${setting.written.place.line} ${setting.written.place.column} ${setting.selector.text}`,
              setting,
            );
        }
      }
    }
  }
  return [...found.values()];
}

/** How many elements beside those that are meant use a token where one of the rules sets it, by itself or in another. */
export function othersUsing(
  model: SiteModel,
  selectors: readonly ComplexSelector[],
  token: string,
  setting: readonly SettingRule[],
): number {
  const rules = new Set(setting.map(({ written }) => written.rule));
  const names = namesFrom(model, token);
  let count = 0;
  for (const page of model.pages) {
    const [reader] = model.readersOf(page);
    if (reader === undefined) continue;
    for (const { index } of page.elements) {
      if (selectors.some((one) => reader.matches(one, index) !== NEVER)) continue;
      const uses = [...reader.weighed(index).values()].some((lists) =>
        [...lists].some(
          ([longhand, list]) =>
            !longhand.startsWith('--') &&
            list.some(
              ({ beatenBy, entry }) => beatenBy === undefined && namesUsed(entry.declaration.value, names),
            ),
        ),
      );
      const isSet = ({ writtenIn }: Weighed): boolean =>
        writtenIn.kind === 'rule' && rules.has(writtenIn.rule.rule);
      if (uses && nearest(reader, index, token).some(isSet)) count++;
    }
  }
  return count;
}

function namesUsed(value: string, names: ReadonlySet<string>): boolean {
  return variablesIn(value).some((name) => names.has(name));
}

/** The token, and every custom property that is made of it. */
function namesFrom(model: SiteModel, token: string): ReadonlySet<string> {
  const names = new Set([token]);
  const made = [...model.sources.sheets.keys()].flatMap((path) =>
    (model.sheetAt(path)?.sheet.rules ?? []).flatMap(({ declarations }) =>
      declarations.filter(({ property }) => property.startsWith('--')),
    ),
  );
  for (let before = -1; before !== names.size; ) {
    before = names.size;
    for (const { property, value } of made) if (namesUsed(value, names)) names.add(property);
  }
  return names;
}

/** What sets the token on the element, or on the nearest above that declares anything of it. */
function nearest(reader: StyleReader, index: number, token: string): readonly Weighed[] {
  for (let at = index; at >= 0; at = reader.page.elements[at]!.parent) {
    const own = undefeatedFor(reader.weighed(at).get(''), token, reader.table.truths);
    if (own.length > 0) return own;
  }
  return [];
}

function settingRule({ writtenIn }: Weighed, editable: readonly WrittenRule[]): SettingRule | undefined {
  if (writtenIn.kind !== 'rule') return undefined;
  const { source } = writtenIn.use;
  const written = editable.find(
    ({ rule, path, offset, isBlock }) =>
      rule === writtenIn.rule.rule && path === source.path && (!isBlock || offset === source.offset),
  );
  const { nesting } = writtenIn.rule.rule;
  const list = compileSelectors(nesting);
  const whole = list.kind === 'list' && list.selectors.length === 1;
  // A rule in a rule has no text that a rule of its own could begin with.
  if (written === undefined || (!whole && nesting.length > 1)) return undefined;
  return { written: { ...written, whole }, selector: writtenIn.rule.selector };
}
