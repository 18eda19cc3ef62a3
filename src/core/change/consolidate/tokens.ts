// The last step: values that stand often in the sheets get a name and one place, as custom properties.

import { addressFrom } from '../../base/addresses.js';
import { groupBy } from '../../base/group-by.js';
import type { SiteModel } from '../../cascade/index.js';
import {
  addLinks,
  applyToSources,
  type Edit,
  type Edits,
  push,
  stateAfter,
  writeRootValues,
} from '../../edit/text/index.js';
import {
  type Difference,
  type Judge,
  type Planned,
  proveAndTakeBack,
  type Refusals,
} from '../../proof/index.js';
import type { SharedSheet } from '../../read/sheets/shared-sheet.js';
import type { ValuePlace, ValueToken } from '../../search/index.js';
import { undecidedReason } from '../../stock/index.js';

export interface TokensResult {
  readonly tokens: readonly ValueToken[];
  readonly refused: Refusals<ValueToken>;
  readonly edits: Edits;
  readonly after: SiteModel;
}

/** So often single names are left out; after that, all of them. */
const MOST_ROUNDS = 6;

interface TokensPlan extends Planned<ValueToken> {
  readonly edits: Edits;
}

/**
 * In: the state before; one whose pages are parsed already, and link the same sheets but the shared one; the tokens to
 * make. Out: those that are proven to change nothing.
 */
export function consolidateTokens(
  model: SiteModel,
  base: SiteModel,
  wanted: readonly ValueToken[],
  shared: SharedSheet,
  judge: Judge,
): TokensResult {
  const { plan, refused } = proveAndTakeBack<ValueToken, TokensPlan>({
    before: model,
    judge,
    rounds: MOST_ROUNDS,
    plan: (known) => {
      const items = wanted.filter((token) => !known.has(token));
      if (items.length === 0) return { items, edits: new Map(), after: model };
      const edits = planTokens(model, base, items, shared);
      return { items, edits, after: stateAfter(model, edits) };
    },
    blame: (difference, { items }) => items.filter(({ name }) => decides(difference, name)),
  });
  return { tokens: plan.items, refused, edits: plan.edits, after: plan.after };
}

/** Whether a value that decides a difference is held by the custom property now. */
function decides(difference: Difference, name: string): boolean {
  return (
    difference.kind === 'style' &&
    [...difference.before, ...difference.after].some(({ value }) => value.includes(`var(${name})`))
  );
}

function planTokens(
  model: SiteModel,
  base: SiteModel,
  tokens: readonly ValueToken[],
  shared: SharedSheet,
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
  // What one sheet alone uses is defined there: whoever loads the one has the other.
  const homes = groupBy(tokens, ({ places }) => {
    const [only, ...others] = new Set(places.map(({ path }) => path));
    return others.length === 0 && only !== undefined ? only : shared.path;
  });
  for (const [path, own] of homes) {
    const sheet = path === shared.path ? shared : { path, partNames: {} };
    push(edits, path, writeRootValues(model.sources.sheets.get(path) ?? '', sheet, own));
  }
  const common = homes.get(shared.path);
  if (common === undefined) return edits;
  // Every page that uses such a sheet must know the names. Most link the shared sheet by now, which their text shows.
  const { pages } = applyToSources(model.sources, edits);
  const changed = new Set(common.flatMap(({ places }) => places.map(({ path }) => path)));
  const wanted = new Set<string>();
  for (const page of base.pages) {
    if (page.kind !== 'page' || pages.get(page.path)?.includes(`"${addressFrom(page.path, shared.path)}"`))
      continue;
    if (page.isMail || undecidedReason(page, base.sheetOrdersOf(page)) !== undefined) continue;
    if (base.sheetOrderOf(page).uses.some(({ source }) => changed.has(source.path))) wanted.add(page.path);
  }
  addLinks(model, shared.path, (path) => wanted.has(path), edits);
  return edits;
}
