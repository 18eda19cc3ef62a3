// The last step: values that stand often in the sheets get a name and one place, as custom properties.

import { addressFrom } from '../addresses.js';
import type { SiteModel } from '../cascade/index.js';
import {
  addLinks,
  applyToSources,
  type Edit,
  type PartNames,
  push,
  type SharedRule,
  writeRules,
} from '../edits/index.js';
import { undecidedReason } from '../stock/index.js';
import { type Edits, type Judge, stateAfter } from './changes.js';
import type { SheetValue, ValuePlace } from '../search/values.js';

/** A value with a name. */
export interface ValueToken extends SheetValue {
  /** With its two dashes. */
  readonly name: string;
  /** As it is written: the spelling most in use. */
  readonly text: string;
}

export interface TokensResult {
  readonly tokens: readonly ValueToken[];
  readonly refused: readonly ValueToken[];
  readonly edits: Edits;
  readonly after: SiteModel;
}

/** The spelling that stands most often, the shorter and then the first of equals. */
export function usualSpelling(places: readonly ValuePlace[]): string {
  const counts = new Map<string, number>();
  for (const { text } of places) counts.set(text, (counts.get(text) ?? 0) + 1);
  const [most] = [...counts].sort(
    ([a, x], [b, y]) =>
      y - x ||
      a.length - b.length ||
      (a.toLowerCase() === a ? -1 : b.toLowerCase() === b ? 1 : a < b ? -1 : 1),
  );
  return most?.[0] ?? '';
}

/**
 * In: the state before; one whose pages are parsed already, and link the same sheets but the shared one; the tokens to
 * make. Out: those that are proven to change nothing.
 */
export function consolidateTokens(
  model: SiteModel,
  base: SiteModel,
  wanted: readonly ValueToken[],
  shared: string,
  names: PartNames,
  judge: Judge,
): TokensResult {
  let left = wanted;
  for (let round = 1; left.length > 0 && round <= 6; round++) {
    const edits = planTokens(model, base, left, shared, names);
    const after = stateAfter(model, edits);
    const { differences } = judge(model, after);
    if (differences.length === 0)
      return { tokens: left, refused: wanted.filter((token) => !left.includes(token)), edits, after };
    const told = JSON.stringify(differences);
    const blamed = left.filter(({ name }) => told.includes(`var(${name})`));
    left = blamed.length === 0 ? [] : left.filter((token) => !blamed.includes(token));
  }
  return { tokens: [], refused: wanted, edits: new Map(), after: model };
}

function planTokens(
  model: SiteModel,
  base: SiteModel,
  tokens: readonly ValueToken[],
  shared: string,
  names: PartNames,
): Edits {
  const edits = new Map<string, Edit[]>();
  const taken = new Map<string, ValuePlace['range'][]>();
  for (const { name, places } of tokens) {
    for (const { path, range } of places) {
      const known = taken.get(path) ?? [];
      // A colour inside a shadow that has a name of its own.
      if (known.some(({ start, end }) => range.start < end && start < range.end)) continue;
      taken.set(path, [...known, range]);
      push(edits, path, [{ ...range, text: `var(${name})` }]);
    }
  }
  const rule: SharedRule = {
    selectors: [':root'],
    part: 'tokens',
    declarations: tokens.map(({ name, text }) => ({
      declaration: { property: name, value: text, important: false, range: { start: 0, end: 0 } },
      holder: shared,
    })),
  };
  push(edits, shared, writeRules(model.sources.sheets.get(shared) ?? '', shared, [rule], names));
  // Every page that uses such a sheet must know the names. Most link the shared sheet by now, which their text shows.
  const { sheets, pages } = applyToSources(model.sources, edits);
  const changed = new Set([...edits.keys()].filter((path) => sheets.has(path)));
  const wanted = new Set<string>();
  for (const page of base.pages) {
    if (page.kind !== 'page' || pages.get(page.path)?.includes(`"${addressFrom(page.path, shared)}"`))
      continue;
    if (undecidedReason(page, base.stacksOf(page)) !== undefined) continue;
    if (base.stackOf(page).uses.some(({ source }) => changed.has(source.path))) wanted.add(page.path);
  }
  addLinks(model, shared, (path) => wanted.has(path), edits);
  return edits;
}
