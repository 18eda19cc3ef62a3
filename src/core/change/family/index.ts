// A change, family. In: a table of rows and rules. Out: the section of a sheet that says it in plain CSS, and the proof
// that only what the table speaks of changed. And the other way round: tables for what was copied out by hand.

import { compileSelectorList, NEVER, type SiteModel } from '../../cascade/index.js';
import { addLinks, applyEdits, composeEdits, type Edit, stateAfter, withoutRule } from '../../edits/index.js';
import { type Difference, type IntentProof, isHiddenOnly, prove, proveIntent } from '../../proof/index.js';
import { longhands } from '../../sheets/index.js';
import type { CopiedFamily } from './find.js';
import { generateRules, rowSelector } from './generate.js';
import { findSection, planSection, type SectionPlan } from './section.js';
import type { FamilyTable } from './table.js';

export { type CopiedFamily, findFamilies } from './find.js';
export { type FamilyTable, tableProblem } from './table.js';

export interface FamilyPlan extends Omit<SectionPlan, 'edits'> {
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  readonly proof: IntentProof;
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
  // What stood there before loses what the table says no more.
  const standing = findSection(text, table.name)?.standing ?? [];
  const selectors = [...rules, ...standing].flatMap(({ selector }) => {
    const list = compileSelectorList(selector);
    return list.kind === 'list' ? list.selectors : [];
  });
  const own = new Set(
    [...table.rules.values()].flatMap((all) => [...all.keys()].flatMap((name) => longhands(name).set)),
  );
  const proof = proveIntent(model, after, {
    isMeant: (file, element, target) => {
      const page = after.page(file);
      const readers = page === undefined ? [] : after.readersOf(page);
      return readers.some((reader) =>
        selectors.some((one) => one.pseudoElement === target && reader.matches(one, element) !== NEVER),
      );
    },
    isAsked: (longhand) =>
      longhand.startsWith(`--${table.name}-`) || own.has(longhand) || standing.length > 0,
  });
  return {
    ...plan,
    edits,
    proof,
    empty: rows.filter(({ pages }) => pages.length === 0).map(({ row }) => row),
  };
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
    model.stacksOf(page).some((stack) => stack.uses.some(({ source }) => source.path === sheet))
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
  const tail = /^\s*$/.test(without.slice(at)) && !/^[\r\n]/.test(without.slice(at)) ? eol : '';
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
