// A sheet compiled for matching: one entry per complex selector, declarations as longhands, rules in an index.

import { declarationValidity, expandDeclaration, type Declaration, type RuleCondition, type Sheet, type StyleRule } from '../sheets/index.js';
import { type ComplexSelector, compileSelectorList } from './selector.js';
import { ALWAYS, NEVER, type Truth, type TruthTable } from './truth.js';

/** One longhand that a declaration sets. */
export interface Entry {
  readonly longhand: string;
  readonly value: string;
  /** Open where some browsers may drop the declaration. */
  readonly kept: Truth;
  readonly declaration: Declaration;
}

/** The declarations of one rule or style attribute as longhands, in source order. */
export interface Block {
  readonly normal: readonly Entry[];
  readonly important: readonly Entry[];
}

export interface ProgramRule {
  readonly selector: ComplexSelector;
  readonly rule: StyleRule;
  /** Position of the rule in the sheet; the selectors of one list share it. */
  readonly order: number;
  readonly condition: Truth;
  readonly block: Block;
}

export interface DroppedRule {
  readonly rule: StyleRule;
  readonly reason: string;
}

export interface Program {
  readonly sheet: Sheet;
  /** Site path of the file the sheet stands in. */
  readonly holder: string;
  readonly rules: readonly ProgramRule[];
  /** Rules that browsers drop for their selector. */
  readonly dropped: readonly DroppedRule[];
  readonly index: RuleIndex;
}

export function compileSheet(sheet: Sheet, holder: string, table: TruthTable): Program {
  const rules: ProgramRule[] = [];
  const dropped: DroppedRule[] = [];
  const lists = new Map<string, ReturnType<typeof compileRuleSelectors>>();
  sheet.rules.forEach((rule, order) => {
    const key = rule.selectors.join('\0');
    let list = lists.get(key);
    if (list === undefined) {
      list = compileRuleSelectors(rule.selectors);
      lists.set(key, list);
    }
    if (list.kind === 'invalid') {
      dropped.push({ rule, reason: list.reason });
      return;
    }
    const parts = rule.conditions.map((condition) => conditionTruth(condition, table));
    if (list.unsure) parts.push(table.literal(`the browser knows every selector of ${rule.selectors.join(' / ')}`));
    const condition = table.and(...parts);
    if (condition === NEVER) return;
    const block = compileBlock(rule.declarations, holder, table);
    for (const selector of list.selectors) rules.push({ selector, rule, order, condition, block });
  });
  return { sheet, holder, rules, dropped, index: new RuleIndex(rules) };
}

function compileRuleSelectors(selectors: readonly string[]): ReturnType<typeof compileSelectorList> {
  let parent: readonly ComplexSelector[] | undefined;
  let unsure = false;
  for (const text of selectors) {
    const list = compileSelectorList(text, parent);
    if (list.kind === 'invalid') return list;
    unsure ||= list.unsure;
    parent = list.selectors;
  }
  return { kind: 'list', selectors: parent ?? [], unsure };
}

export function conditionTruth(condition: RuleCondition, table: TruthTable): Truth {
  const text = condition.text.replace(/\/\*[\s\S]*?\*\//g, ' ').replace(/\s+/g, ' ').trim().toLowerCase();
  if (condition.kind === 'media' && (text === '' || text === 'all')) return ALWAYS;
  return table.literal(`@${condition.kind} ${text}`.trim());
}

export function compileBlock(declarations: readonly Declaration[], holder: string, table: TruthTable): Block {
  const normal: Entry[] = [];
  const important: Entry[] = [];
  for (const declaration of declarations) {
    const { property, value } = declaration;
    const sure = declarationValidity(property, value).validity === 'certain';
    const kept = sure ? ALWAYS : table.literal(`the browser keeps ${property}: ${value.replace(/\s+/g, ' ')}`);
    const target = declaration.important ? important : normal;
    for (const { longhand, value: form } of expandDeclaration(property, value, holder)) {
      target.push({ longhand, value: form, kept, declaration });
    }
  }
  return { normal, important };
}

/** Finds the rules that could match an element by the rarest part of their last compound. */
export class RuleIndex {
  readonly #ids = new Map<string, number[]>();
  readonly #classes = new Map<string, number[]>();
  readonly #types = new Map<string, number[]>();
  readonly #rest: number[] = [];

  constructor(rules: readonly ProgramRule[]) {
    rules.forEach(({ selector }, at) => {
      const last = selector.compounds.at(-1)!;
      const only = last.rest.length === 1 && last.rest[0]!.kind === 'among' ? last.rest[0] : undefined;
      const [first] = last.classes;
      // Keys are folded, since quirks mode matches without case; the matcher compares exactly where it must.
      if (last.id !== undefined) add(this.#ids, last.id.toLowerCase(), at);
      else if (first !== undefined) add(this.#classes, first.toLowerCase(), at);
      else if (last.type !== undefined) add(this.#types, last.type, at);
      else if (only?.kind !== 'among' || only.negated || !this.#addChoices(only.selectors, at)) this.#rest.push(at);
    });
  }

  /** `:is(.a, .b)` and `&` are found under each of their choices, when each has a key. */
  #addChoices(choices: readonly ComplexSelector[], at: number): boolean {
    const lasts = choices.map(({ compounds }) => compounds.at(-1)!);
    if (lasts.some(({ id, classes, type }) => id === undefined && classes.length === 0 && type === undefined)) return false;
    for (const { id, classes, type } of lasts) {
      if (id !== undefined) add(this.#ids, id.toLowerCase(), at);
      else if (classes[0] !== undefined) add(this.#classes, classes[0].toLowerCase(), at);
      else add(this.#types, type!, at);
    }
    return true;
  }

  /** Calls `visit` with every rule number that could match, some of them more than once. */
  candidates(id: string | undefined, classes: readonly string[], type: string, visit: (rule: number) => void): void {
    if (id !== undefined) this.#ids.get(id.toLowerCase())?.forEach(visit);
    for (const name of classes) this.#classes.get(name.toLowerCase())?.forEach(visit);
    this.#types.get(type.toLowerCase())?.forEach(visit);
    this.#rest.forEach(visit);
  }

  /** Every rule number: for elements whose classes or id template text may add. */
  all(visit: (rule: number) => void): void {
    for (const bucket of [this.#ids, this.#classes, this.#types]) for (const rules of bucket.values()) rules.forEach(visit);
    this.#rest.forEach(visit);
  }
}

function add(bucket: Map<string, number[]>, key: string, rule: number): void {
  const rules = bucket.get(key);
  if (rules === undefined) bucket.set(key, [rule]);
  else if (rules.at(-1) !== rule) rules.push(rule);
}
