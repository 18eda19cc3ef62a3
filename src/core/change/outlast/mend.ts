// Edits that let overrides survive an update, and are not seen before it: new names beside the old, stronger selectors.

import { compileSelectorList, type SiteModel } from '../../cascade/index.js';
import { type Edit, type Edits, push, stateAfter } from '../../edits/index.js';
import { type Difference, type Planned, PROVE, proveAndTakeBack } from '../../proof/index.js';
import type { KeptReason } from '../../stock/index.js';
import type { Outlasting } from './model.js';

export interface Mends {
  readonly edits: Edits;
  readonly mended: readonly Mend[];
  /** What would show before the update, and is therefore left to a person. */
  readonly left: readonly { readonly from: Outlasting; readonly why: KeptReason }[];
}

/** A rule, and the selector that lets it survive. */
interface Mend {
  readonly from: Outlasting;
  readonly selector: string;
}

interface MendsPlan extends Planned<Mend> {
  readonly edits: Edits;
}

/** So often single rules are left; after that, all of them. */
const MOST_ROUNDS = 12;

/** In: rules with their fates. Out: mends that the proof passes under the platform as it is now. */
export function planMends(model: SiteModel, rules: readonly Outlasting[]): Mends {
  const wanted = rules.flatMap((from): Mend[] => {
    const selector = mendedSelector(from);
    return selector === undefined ? [] : [{ from, selector }];
  });
  const { plan, refused } = proveAndTakeBack<Mend, MendsPlan>({
    before: model,
    judge: PROVE,
    rounds: MOST_ROUNDS,
    plan: (known) => {
      const items = wanted.filter((one) => !known.has(one));
      const edits = new Map<string, Edit[]>();
      for (const { from, selector } of items) push(edits, from.written.path, [editFor(from, selector)]);
      return { items, edits, after: items.length === 0 ? model : stateAfter(model, edits) };
    },
    blame: (difference, { items }) => items.filter((one) => decides(difference, one)),
  });
  return {
    edits: plan.edits,
    mended: plan.items,
    left: [...refused].map(([{ from }, why]) => ({ from, why })),
  };
}

/** Whether a selector of the mended rule has a say in what differs. */
function decides(difference: Difference, { selector }: Mend): boolean {
  if (difference.kind !== 'style') return false;
  const list = compileSelectorList(selector);
  const texts = list.kind === 'list' ? list.selectors.map(({ text }) => text) : [];
  return [...difference.before, ...difference.after].some(({ from }) => texts.includes(from));
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
