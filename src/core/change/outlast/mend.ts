// Edits that let overrides survive an update, and are not seen before it: new names beside the old, stronger selectors.

import { compileSelectorList, SiteModel } from '../../cascade/index.js';
import { applyToSources, type Edit, push } from '../../edits/index.js';
import { type Difference, prove } from '../../proof/index.js';
import type { Outlasting } from './index.js';

export interface Mends {
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  readonly mended: readonly { readonly from: Outlasting; readonly selector: string }[];
  /** What would show before the update, and is therefore left to a person. */
  readonly left: readonly { readonly from: Outlasting; readonly why: Difference }[];
}

/** In: rules with their fates. Out: mends that the proof passes under the platform as it is now. */
export function planMends(model: SiteModel, rules: readonly Outlasting[]): Mends {
  const wanted = rules.flatMap((from) => {
    const selector = mendedSelector(from);
    return selector === undefined ? [] : [{ from, selector, edit: editFor(from, selector) }];
  });
  const all = collect(wanted);
  if (differencesOf(model, all).length === 0) return { edits: all, mended: wanted, left: [] };
  const mended: typeof wanted = [];
  const left: { from: Outlasting; why: Difference }[] = [];
  for (const one of wanted) {
    const [why] = differencesOf(model, collect([...mended, one]));
    if (why === undefined) mended.push(one);
    else left.push({ from: one.from, why });
  }
  return { edits: collect(mended), mended, left };
}

function differencesOf(model: SiteModel, edits: ReadonlyMap<string, readonly Edit[]>): readonly Difference[] {
  const after = new SiteModel(applyToSources(model.sources, edits), model.table, model);
  return prove(model, after, { perPage: 1 }).differences;
}

function collect(wanted: readonly { readonly from: Outlasting; readonly edit: Edit }[]): Map<string, Edit[]> {
  const edits = new Map<string, Edit[]>();
  for (const { from, edit } of wanted) push(edits, from.written.path, [edit]);
  return edits;
}

/** The whole list as it is to stand; `undefined` for what needs nothing, or nobody knows what. */
function mendedSelector({ fate, written: { rule } }: Outlasting): string | undefined {
  const own = rule.selectors.length === 1 ? rule.selectors[0]! : undefined;
  if (own === undefined) return undefined;
  switch (fate.kind) {
    case 'name gone':
    case 'matches nothing': {
      const list = compileSelectorList(own);
      const known = list.kind === 'list' ? list.selectors.map(({ text }) => text) : [];
      const fresh = compileSelectorList(fate.likely ?? '');
      const texts = fresh.kind === 'list' ? fresh.selectors.map(({ text }) => text) : [];
      const added = [...new Set(texts)].filter((text) => !known.includes(text));
      return added.length === 0 ? undefined : [own, ...added].join(', ');
    }
    case 'beaten':
      return fate.fix;
    case 'holds':
    case 'not needed':
      return undefined;
  }
}

function editFor({ written: { offset, rule, text } }: Outlasting, selector: string): Edit {
  const { start, end } = rule.selectorRange;
  const own = text.slice(start, end);
  // What stands in front stays as it is written.
  return selector.startsWith(`${own}, `)
    ? { start: offset + end, end: offset + end, text: selector.slice(own.length) }
    : { start: offset + start, end: offset + end, text: selector };
}
