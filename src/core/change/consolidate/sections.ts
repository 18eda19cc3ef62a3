// Sections that differ in values alone share their rules, as far as the proof finds that nothing changes.

import type { SiteModel } from '../../cascade/index.js';
import { type Edits, planSections, stateAfter } from '../../edit/text/index.js';
import { type Difference, type Planned, PROVE, proveAndTakeBack } from '../../proof/index.js';
import {
  isWorthwhile,
  type NamedSection,
  type SectionRow,
  type SectionValue,
  sectionsOf,
} from '../../search/index.js';
import type { StyledTag } from '../../stock/index.js';

export interface SectionsResult {
  readonly sections: readonly NamedSection[];
  readonly edits: Edits;
  readonly after: SiteModel;
}

export interface SectionsOptions {
  readonly styledTags: readonly StyledTag[];
  readonly themes: readonly string[];
  /** Site path of the shared sheet. */
  readonly shared: string;
  /** Texts of documents that load it and were not read. */
  readonly unreadDocuments: readonly string[];
  /** Gives names, and takes out what a person has refused. */
  readonly decide: (found: readonly SectionValue[], model: SiteModel) => readonly NamedSection[];
}

interface SectionsPlan extends Planned<SectionRow> {
  readonly sections: readonly NamedSection[];
  readonly edits: Edits;
}

const MOST_ROUNDS = 4;

export function consolidateSections(model: SiteModel, options: SectionsOptions): SectionsResult {
  const { rules, values } = sectionsOf(model, options);
  const wanted = values.length === 0 ? [] : options.decide(values, model);
  const { plan } = proveAndTakeBack<SectionRow, SectionsPlan>({
    before: model,
    judge: PROVE,
    rounds: MOST_ROUNDS,
    plan: (known, last) => {
      const sections = wanted
        .map((one) => ({ ...one, rows: one.rows.filter((row) => !known.has(row)) }))
        .filter(isWorthwhile);
      const items = sections.flatMap(({ rows }) => rows);
      if (items.length === 0) return { items, sections, edits: new Map(), after: model };
      const edits = planSections(model, sections, rules);
      return {
        items,
        sections,
        edits,
        after: stateAfter(model, edits, ...(last === undefined ? [] : [last])),
      };
    },
    blame: (difference, { items }) => items.filter((row) => decides(difference, row)),
  });
  return { sections: plan.sections, edits: plan.edits, after: plan.after };
}

/** The rows that decide a difference, before or after. */
function decides(difference: Difference, { base, suffix, said }: SectionRow): boolean {
  if (difference.kind !== 'style') return false;
  const deciding = [...difference.before, ...difference.after].map(({ from }) => from);
  const own = [base + suffix, ...said.flatMap((one) => one.own.selectors.map(({ text }) => text))];
  return deciding.some((from) => own.includes(from));
}
