// A sheet compiled for matching: one entry per complex selector, declarations as longhands, rules in an index.

import { inOneLine, withSingleSpaces } from '../base/phrases.js';
import {
  canonicalProperty,
  type Declaration,
  declarationValidity,
  expandDeclaration,
  type LonghandValue,
  type RuleCondition,
  type ScopePrelude,
  type Sheet,
} from '../read/sheets/index.js';
import { ProgramMatches } from './program-matches.js';
import type { Block, Entry, ProgramRule, RuleScope } from './rule-index.js';
import { compileSelectorList } from './selector.js';
import type { ComplexSelector, SelectorContext } from './selector-model.js';
import { supportsTruth } from './supports.js';
import { ALWAYS, NEVER, type Truth, type TruthTable } from './truth.js';
import { isWrittenByEngine } from './written-style.js';

export interface Program {
  readonly sheet: Sheet;
  /** Site path of the file the sheet stands in. */
  readonly holder: string;
  readonly rules: readonly ProgramRule[];
  readonly matches: ProgramMatches;
}

/** What a build takes for more than a name of a class: see CSS modules. */
const OPEN_SHEET = /\bcomposes\s*:|@value\b|:(?:global|local)\b(?!\()/;
const OPEN_RULE = /:(?:global|local)\(/;

/** In: how much more specific its rules are than they are written; whether a build gives its classes names of their own. */
export function compileSheet(
  sheet: Sheet,
  holder: string,
  table: TruthTable,
  { more = 0, isModule = false }: { readonly more?: number; readonly isModule?: boolean } = {},
): Program {
  const isOpen = isModule && OPEN_SHEET.test(sheet.text);
  const rules: ProgramRule[] = [];
  const lists = new Map<string, ReturnType<typeof compileSelectors>>();
  const { namespaces } = sheet;
  sheet.rules.forEach((rule, order) => {
    const key = `${rule.scope === undefined ? '' : '@scope'}\0${rule.nesting.join('\0')}`;
    let list = lists.get(key);
    if (list === undefined) {
      const local = isModule
        ? { sheet: holder, isOpen: isOpen || rule.nesting.some((text) => OPEN_RULE.test(text)) }
        : undefined;
      list = compileSelectors(rule.nesting, { scoped: rule.scope !== undefined, namespaces, local });
      lists.set(key, list);
    }
    const scope = compileScope(rule.scope, namespaces);
    // Browsers drop such a rule.
    if (scope === 'invalid' || list.kind === 'invalid') return;
    const parts = rule.conditions.map((condition) => conditionTruth(condition, table));
    if (list.unsure)
      parts.push(table.literal(`the browser knows every selector of ${rule.nesting.join(' / ')}`));
    const condition = table.and(...parts);
    if (condition === NEVER) return;
    // Most rules of a framework match nothing on a site: their declarations are read when one does.
    let compiled: Block | undefined;
    const block = (): Block => {
      compiled ??= compileBlock(rule.declarations, holder, table);
      return compiled;
    };
    for (const one of list.selectors) {
      const selector = more === 0 ? one : { ...one, specificity: one.specificity + more };
      rules.push({ selector, scope, rule, order, condition, block });
    }
  });
  return { sheet, holder, rules, matches: new ProgramMatches(rules) };
}

/** In: the selectors of a rule, those it is nested in first. */
export function compileSelectors(
  selectors: readonly string[],
  context: SelectorContext = {},
): ReturnType<typeof compileSelectorList> {
  let parent: readonly ComplexSelector[] | undefined;
  let unsure = false;
  for (const text of selectors) {
    const list = compileSelectorList(text, { ...context, parent });
    if (list.kind === 'invalid') return list;
    unsure ||= list.unsure;
    parent = list.selectors;
  }
  return { kind: 'list', selectors: parent ?? [], unsure };
}

function compileScope(
  scope: ScopePrelude | undefined,
  namespaces: ReadonlyMap<string, string>,
): RuleScope | 'invalid' | undefined {
  if (scope === undefined) return undefined;
  const start = compileSelectorList(scope.start, { namespaces });
  const end =
    scope.end === undefined ? undefined : compileSelectorList(scope.end, { namespaces, scoped: true });
  if (start.kind === 'invalid' || end?.kind === 'invalid') return 'invalid';
  return { start: start.selectors, end: end?.selectors ?? [] };
}

export function conditionTruth(condition: RuleCondition, table: TruthTable): Truth {
  const text = inOneLine(condition.text.replace(/\/\*[\s\S]*?\*\//g, ' '));
  if (condition.kind === 'supports') return supportsTruth(text, table);
  // Names of containers and what a style query asks for keep their case (CSS Conditional 5 §5, §6).
  const form = condition.kind === 'media' ? text.toLowerCase() : text;
  if (condition.kind === 'media' && (form === '' || form === 'all')) return ALWAYS;
  return table.literal(`@${condition.kind} ${form}`.trim());
}

export function compileBlock(declarations: readonly Declaration[], holder: string, table: TruthTable): Block {
  const normal: Entry[] = [];
  const important: Entry[] = [];
  for (const declaration of declarations) {
    const { property, value } = declaration;
    const sure = declarationValidity(property, value).validity === 'certain';
    const supported = sure
      ? ALWAYS
      : table.literal(`the browser keeps ${property}: ${withSingleSpaces(value)}`);
    const target = declaration.important ? important : normal;
    for (const { longhand, value: form, unsettled } of expanded(declaration, holder)) {
      const resets = unsettled ? table.literal(`the browser resets ${longhand} with ${property}`) : ALWAYS;
      target.push({ longhand, value: form, supported: table.and(supported, resets), declaration });
    }
  }
  return { normal, important };
}

/** A value that an engine writes is not taken apart: each longhand is its part of that text. */
function expanded(declaration: Declaration, holder: string): LonghandValue[] {
  const { property, value } = declaration;
  if (!isWrittenByEngine(declaration)) return expandDeclaration(property, value, holder);
  const text = `${canonicalProperty(property)}: ${withSingleSpaces(value)}`;
  return expandDeclaration(property, 'var(--engine)', holder).map((one) => ({
    ...one,
    value: `part of ${text}`,
  }));
}
