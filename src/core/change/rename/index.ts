// A change, rename. In: a class and its new name. Out: edits in markup, sheets, templates and scripts, places where nobody
// can be sure, and the proof that nothing looks different.

import { includesAny } from '../../base/phrases.js';
import { type Place, placeIn } from '../../base/source.js';
import { rangesOfClass, SiteModel } from '../../cascade/index.js';
import { applyEdits, type Edit, push, withoutRule } from '../../edit/text/index.js';
import { type Difference, isHiddenOnly, prove, type StyleDifference } from '../../proof/index.js';
import type { StyleRule } from '../../read/sheets/index.js';
import { allRules } from '../restyle/index.js';
import {
  attributesThatCount,
  inertSelectors,
  placesInFrames,
  placesUnread,
  scopesNamed,
} from './elsewhere.js';
import { equalRules } from './equal-rules.js';
import { nameInScripts } from './in-scripts.js';
import type { RenameInput, UnsurePlace } from './input.js';
import { markupTokens } from './markup-tokens.js';

export type { RenameInput, UnsurePlace } from './input.js';

export interface Renamed {
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  readonly counts: {
    readonly markup: number;
    readonly sheets: number;
    readonly scripts: number;
    readonly removed: number;
  };
  /** Where the new name stands already. */
  readonly taken: readonly Place[];
  readonly unsure: readonly UnsurePlace[];
  /** Rules of the platform that name the class. */
  readonly platform: readonly Place[];
  /** What would look different: none, in what is written. */
  readonly differences: readonly Difference[];
  readonly assumptions: readonly string[];
}

export function rename(input: RenameInput): Renamed {
  const { model, themes, from, to } = input;
  const edits = new Map<string, Edit[]>();
  // What scripts and template text make of a name is not in the proof: edits there are kept apart from it.
  const unproven = new Map<string, Edit[]>();
  const counts = { markup: 0, sheets: 0, scripts: 0, removed: 0 };
  const taken: Place[] = [];
  const unsure: UnsurePlace[] = [];
  const rules = allRules(model, themes);
  for (const page of model.pages) {
    const tokens = markupTokens(page, from, to);
    counts.markup += tokens.edits.length + tokens.inert.length;
    push(edits, page.path, tokens.edits);
    push(unproven, page.path, tokens.inert);
    taken.push(...tokens.taken.map((offset) => placeIn(page.path, page.text, offset)));
    for (const { start, end, what } of tokens.unsure) {
      unsure.push({ place: placeIn(page.path, page.text, start), what, editable: true });
      if (input.unsure) push(unproven, page.path, [{ start, end, text: to }]);
    }
  }
  const removed = input.merge
    ? equalRules(
        rules.map(({ rule, path, isBlock, offset }) => ({ rule, key: isBlock ? `${path} ${offset}` : path })),
        from,
        to,
      )
    : new Set<StyleRule>();
  for (const { path, text, offset, rule } of rules) {
    if (removed.has(rule)) {
      const edit = withoutRule(text, rule);
      push(edits, path, [{ start: edit.start + offset, end: edit.end + offset, text: '' }]);
      counts.removed++;
      continue;
    }
    const { start, end } = rule.selectorRange;
    const found = rangesOfClass(text.slice(start, end), from);
    counts.sheets += found.length;
    // A rule with nested ones in it is listed once for each run of its declarations.
    const own = found.map((one) => ({
      start: offset + start + one.start,
      end: offset + start + one.end,
      text: to,
    }));
    const known = edits.get(path) ?? [];
    push(
      edits,
      path,
      own.filter((edit) => !known.some((other) => other.start === edit.start)),
    );
    if (rangesOfClass(text.slice(start, end), to).length > 0)
      taken.push(placeIn(path, offset === 0 ? text : (model.page(path)?.text ?? text), offset + start));
  }
  const seen = new Set<string>();
  for (const { path, text, offset } of rules) {
    if (seen.has(`${path} ${offset}`)) continue;
    seen.add(`${path} ${offset}`);
    const found = scopesNamed(text, from);
    counts.sheets += found.length;
    push(
      edits,
      path,
      found.map(({ start, end }) => ({ start: offset + start, end: offset + end, text: to })),
    );
  }
  for (const { path, start, end, text: own } of inertSelectors(model, from, to)) {
    counts.sheets++;
    push(unproven, path, [{ start, end, text: own }]);
  }
  const inScripts = nameInScripts(input);
  taken.push(...inScripts.taken);
  unsure.push(
    ...inScripts.unsure,
    ...attributesThatCount(input),
    ...placesInFrames(input),
    ...placesUnread(input),
  );
  counts.scripts += inScripts.edits.length;
  for (const { path, start, end, text: own } of inScripts.edits)
    push(unproven, path, [{ start, end, text: own }]);
  const { differences, assumptions } = provenOf(input, withScripts(edits, inScripts.edits));
  for (const [path, own] of unproven) push(edits, path, own);
  return {
    edits: new Map([...edits].filter(([, own]) => own.length > 0)),
    counts,
    taken,
    unsure,
    platform: platformPlaces(model, themes, from),
    differences,
    assumptions,
  };
}

/** What a script does under the new name is compared with what it did under the old. */
function withScripts(
  edits: ReadonlyMap<string, readonly Edit[]>,
  inScripts: readonly (Edit & { readonly path: string })[],
): Map<string, Edit[]> {
  const all = new Map([...edits].map(([path, own]): [string, Edit[]] => [path, [...own]]));
  for (const { path, start, end, text } of inScripts) push(all, path, [{ start, end, text }]);
  return all;
}

function platformPlaces(model: SiteModel, themes: readonly string[], from: string): Place[] {
  const found: Place[] = [];
  for (const [path, text] of model.sources.sheets) {
    // The class of a module is another one, whatever it is called there.
    if (themes.includes(path) || model.sources.isModule?.(path) === true) continue;
    for (const { nesting, selectorRange } of model.sheetAt(path)?.sheet.rules ?? [])
      if (rangesOfClass(nesting.at(-1) ?? '', from).length > 0)
        found.push(placeIn(path, text, selectorRange.start));
  }
  return found;
}

/** That template text makes a name is known from its words: they are listed, and not taken for a difference. */
function provenOf(
  { model, from, to, merge }: RenameInput,
  edits: ReadonlyMap<string, readonly Edit[]>,
): Pick<Renamed, 'differences' | 'assumptions'> {
  const { pages, sheets, scripts } = model.sources;
  const edited = (texts: ReadonlyMap<string, string>): Map<string, string> =>
    new Map([...texts].map(([path, text]) => [path, applyEdits(text, edits.get(path) ?? [])]));
  const after = new SiteModel(
    {
      ...model.sources,
      pages: edited(pages),
      sheets: edited(sheets),
      scripts: new Map(
        [...(scripts ?? [])].map(([path, { text, isLibrary }]) => [
          path,
          { text: applyEdits(text, edits.get(path) ?? []), isLibrary },
        ]),
      ),
    },
    model.table,
    model,
  );
  const { differences, assumptions } = prove(model, after, { perPage: 5, scriptsChange: true });
  // A condition that quotes a selector quotes it under the new name now.
  const written = new RegExp(`\\.${from.replace(/[^\w-]/g, '\\$&')}(?![\\w-])`, 'g');
  const form = (list: StyleDifference['before']): string =>
    list.map(({ value, condition }) => `${value}?${sorted(condition.replace(written, `.${to}`))}`).join('|');
  const isQuoted = ({ before, after }: StyleDifference): boolean =>
    !merge && before.length + after.length > 0 && form(before) === form(after);
  return {
    differences: differences.filter((one) => one.kind !== 'style' || !(isHiddenOnly(one) || isQuoted(one))),
    assumptions: assumptions.filter((text) => includesAny(text, PUTS_TOGETHER)),
  };
}

/** Of what is assumed of scripts, only what names are made of has to do with a name. */
const PUTS_TOGETHER = ['puts a class or attribute together', 'is no script that can be read', 'was not read'];

/** Conditions that hold together stand in the order in which they were met. */
function sorted(condition: string): string {
  return condition
    .split(/ (?=and |or )/)
    .map((part) => part.replace(/^(and|or) /, ''))
    .sort()
    .join(' ');
}
