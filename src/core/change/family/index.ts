// A change, family. In: a table of rows and rules. Out: the section of a sheet that declares it in plain CSS, and the proof
// that only what the table mentions changed. And the other way round: tables for what was copied out by hand.

import { startsWithOneOf } from '../../base/characters.js';
import {
  ALWAYS,
  type ComplexSelector,
  compileSelectorList,
  conditionTruth,
  NEVER,
  type SiteModel,
  type TruthTable,
} from '../../cascade/index.js';
import {
  addLinks,
  applyEdits,
  composeEdits,
  type Edit,
  stateAfter,
  withoutRule,
} from '../../edit/text/index.js';
import {
  type Difference,
  type IntentProof,
  isHiddenOnly,
  prove,
  proveWishes,
  type Wish,
} from '../../proof/index.js';
import { parseDeclarations, parseSheet } from '../../read/sheets/index.js';
import { type Typed, wishOf } from '../wish.js';
import type { CopiedFamily } from './find.js';
import { declarationsOf, generateRules, partSelector, rowSelector, rowsWith } from './generate.js';
import { negated } from './off.js';
import { findSection, planSection, type SectionPlan } from './section.js';
import type { FamilyTable } from './table.js';

export { type CopiedFamily, findFamilies } from './find.js';
export { generateRules } from './generate.js';
export { negated } from './off.js';
export { type FamilyTable, selectorProblem, tableProblem } from './table.js';

export interface FamilyPlan extends Omit<SectionPlan, 'edits'> {
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  readonly proof: IntentProof;
  /** The sheet ends in the middle of something, so that what is written behind it is no rule. */
  readonly isOpen: boolean;
  /** Rows that no element of the site belongs to. */
  readonly empty: readonly string[];
}

/** In: `path`, of the sheet that the rules stand in; `source`, how the table's file is named in it. */
export function planFamily(model: SiteModel, path: string, table: FamilyTable, source: string): FamilyPlan {
  const rules = generateRules(table);
  const text = model.sources.sheets.get(path) ?? '';
  const { edits: section, ...plan } = planSection(text, table, source, rules);
  const edits = new Map<string, Edit[]>(section.length === 0 ? [] : [[path, [...section]]]);
  const rows = [...table.rows.keys()].map((row) => ({
    row,
    pages: pagesWith(model, rowSelector(table, row)),
  }));
  const wanted = new Set(rows.flatMap(({ pages }) => pages));
  if (section.length > 0)
    addLinks(model, path, (file) => wanted.has(file) && !uses(model, file, path), edits);
  const after = stateAfter(model, edits);
  const proof = proveWishes(model, after, [
    ...wishesOf(table, path, model.table.truths),
    // What stood there before loses what the table says no more.
    ...(findSection(text, table.name)?.standing ?? []).flatMap(({ text: own }) => goneWith(own)),
  ]);
  return {
    ...plan,
    edits,
    proof,
    isOpen: endsOpen(text),
    empty: rows.filter(({ pages }) => pages.length === 0).map(({ row }) => row),
  };
}

/** What each row sets, and what each rule comes to in each row that has its values. */
function wishesOf(table: FamilyTable, holder: string, truths: TruthTable): Wish[] {
  const wishes: Wish[] = [];
  const wish = (selector: string, declarations: readonly string[], more: Partial<Typed>): void => {
    const { selectors } = selectorsOf(selector);
    const changes = parseDeclarations(declarations.join(';')).declarations;
    wishes.push(wishOf({ selectors, changes, medium: ALWAYS, holders: [holder], ...more }));
  };
  const off = table.off === undefined ? [] : (negated(table.off) ?? []);
  const medium = truths.and(...off.map((query) => conditionTruth({ kind: 'media', text: query }, truths)));
  for (const { key, selector, declarations } of generateRules(table))
    if (key.startsWith('row ')) wish(selector, declarations, { serves: true });
  // An element may be in two rows: then it has what the later one sets.
  const ofRows = wishes.splice(0).map((one) => ({ ...one, values: new Map(one.values) }));
  for (const one of ofRows)
    for (const [longhand, wished] of one.values) {
      const others = ofRows.flatMap(({ values }) => values.get(longhand)?.value ?? []);
      one.values.set(longhand, { ...wished, or: new Set(others) });
    }
  wishes.push(...ofRows);
  for (const [part, declarations] of table.rules)
    for (const row of rowsWith(table, declarations))
      wish(partSelector(table, [row], part), declarationsOf(table, declarations), { medium });
  return wishes;
}

function selectorsOf(text: string): { selectors: readonly ComplexSelector[] } {
  const list = compileSelectorList(text);
  return { selectors: list.kind === 'list' ? list.selectors : [] };
}

/** What a rule that stood there declared may be declared no more. */
function goneWith(text: string): Wish[] {
  return parseSheet(text).rules.map(({ selector, declarations }) =>
    wishOf({
      ...selectorsOf(selector),
      changes: declarations.map((one) => ({ ...one, value: undefined })),
      medium: ALWAYS,
    }),
  );
}

/** Whether what is written behind a sheet's text would be a rule of its own. */
function endsOpen(text: string): boolean {
  const probe = '.probe { color: red }';
  const last = parseSheet(`${text}\n${probe}`).rules.at(-1);
  return last?.nesting.join() !== '.probe' || last.conditions.length > 0 || last.layer !== undefined;
}

function pagesWith(model: SiteModel, selector: string): string[] {
  const list = compileSelectorList(selector);
  if (list.kind === 'invalid') return [];
  return model.pages
    .filter((page) =>
      model
        .readersOf(page)
        .some((reader) =>
          page.elements.some(({ index }) =>
            list.selectors.some((one) => reader.matches(one, index) !== NEVER),
          ),
        ),
    )
    .map((page) => page.path);
}

function uses(model: SiteModel, file: string, sheet: string): boolean {
  const page = model.page(file);
  return (
    page !== undefined &&
    model
      .sheetOrdersOf(page)
      .some((sheetOrder) => sheetOrder.uses.some(({ source }) => source.path === sheet))
  );
}

export interface Replaced {
  readonly edits: readonly Edit[];
  readonly table: FamilyTable;
  /** What would look different: none, in what is written. */
  readonly differences: readonly Difference[];
  /** Whether components are taken to stand in one row at a time. */
  readonly assumed: boolean;
  readonly places: { readonly before: number; readonly after: number };
}

/** Puts a family's own rules in the place of those copied out by hand, and proves that nothing looks different. */
export function replaceCopies(
  model: SiteModel,
  { path, table, rules }: CopiedFamily,
  source: string,
): Replaced {
  const text = model.sources.sheets.get(path) ?? '';
  const gone = rules.map((rule) => withoutRule(text, rule));
  const without = applyEdits(text, gone);
  const made = generateRules(table);
  const section = planSection('', table, source, made).edits[0]!.text.trimEnd();
  const last = rules.reduce((a, b) => (a.range.start > b.range.start ? a : b));
  const removed = gone
    .filter(({ start }) => start <= last.range.start)
    .reduce((sum, { start, end }) => sum + end - start, 0);
  const at = last.range.end - removed;
  const eol = /\r\n|\n|\r/.exec(text)?.[0] ?? '\n';
  const lead = without.slice(0, at).trim() === '' ? '' : eol + eol;
  const body = section.replace(/\r\n|\n|\r/g, eol);
  const tail = without.slice(at).trim() === '' && !startsWithOneOf(without.slice(at), '\r\n') ? eol : '';
  const edits = composeEdits(text, gone, [{ start: at, end: at, text: lead + body + tail }]);
  const after = stateAfter(model, new Map([[path, edits]]));
  const places = {
    before: rules.reduce((sum, { declarations }) => sum + declarations.length, 0),
    after: made.reduce((sum, { declarations }) => sum + declarations.length, 0),
  };
  const { differences } = prove(model, after, { perPage: Number.POSITIVE_INFINITY });
  // What is around a component, or template text gives it, is taken to be one row at a time.
  const isSeen = (one: Difference): boolean =>
    one.kind !== 'style' || model.page(one.page)?.kind === 'page' || !isHiddenOnly(one);
  const seen = differences.filter(isSeen);
  return { edits, table, differences: seen, assumed: seen.length < differences.length, places };
}
