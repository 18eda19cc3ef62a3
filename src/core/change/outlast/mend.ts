// Edits that let overrides survive an update, and are not seen before it: new names beside the old, stronger selectors.

import { keptText, refusalText } from '../../base/reasons/index.js';
import { compileSelectorList, type SiteModel } from '../../cascade/index.js';
import { type Edit, type Edits, push, stateAfter } from '../../edit/text/index.js';
import { type Difference, type Planned, proveAndTakeBack } from '../../proof/index.js';

import { UNSEEN } from './importance.js';
import { isOfPlatform, laterModel, type Update } from './later.js';
import { lossesOf } from './losses.js';
import type { Fix, Outlasting } from './model.js';

export interface Mends {
  readonly edits: Edits;
  readonly mended: readonly Mend[];
  /** What would show before the update, or not hold after it, and is therefore left to a person. */
  readonly left: readonly { readonly from: Outlasting; readonly why: string }[];
}

/** A rule, and what lets it survive. */
interface Mend extends Fix {
  readonly from: Outlasting;
}

/** The update that is to be survived. */
export interface MendedFor extends Update {
  readonly isPlatform: (path: string) => boolean;
}

interface MendsPlan extends Planned<Mend> {
  readonly edits: Edits;
}

/** So often single rules are left; after that, all of them. */
const MOST_ROUNDS = 12;

/**
 * In: rules with their fates; the update. Out: mends that are not seen under the platform as it is now, and let each rule win
 * after the update where it wins now. Both are proven, on all of them together.
 */
export function planMends(model: SiteModel, rules: readonly Outlasting[], update: MendedFor): Mends {
  let wanted = rules.map(mendOf).filter((one) => one !== undefined);
  const failing: Mends['left'][number][] = [];
  for (;;) {
    const mends = unseen(model, wanted);
    const lost = stillLost(model, mends, update);
    if (lost.length === 0) return { ...mends, left: [...mends.left, ...failing] };
    failing.push(...lost);
    const gone = new Set(lost.map(({ from }) => from));
    wanted = wanted.filter(({ from }) => !gone.has(from));
  }
}

/** Mended rules that do not win after the update as they do now. */
function stillLost(
  model: SiteModel,
  { edits, mended }: Mends,
  { isPlatform, ...update }: MendedFor,
): Mends['left'] {
  const own = new Map(mended.map(({ from: { written } }) => [written.rule, written.path]));
  const losses = lossesOf(model, laterModel(stateAfter(model, edits), update), own);
  return mended.flatMap(({ from }) => {
    const [first, ...others] = (losses.get(from.written.rule) ?? []).filter(({ by }) =>
      isOfPlatform(by, isPlatform),
    );
    if (first === undefined) return [];
    const by =
      first.by.writtenIn.kind === 'rule' ? first.by.writtenIn.rule.selector.text : first.by.writtenIn.kind;
    const more = others.length === 0 ? '' : `, and ${others.length} more`;
    return [{ from, why: refusalText('still beaten', { property: first.property, by: `${by}${more}` }) }];
  });
}

/** Mends that the proof passes under the platform as it is now. */
function unseen(model: SiteModel, wanted: readonly Mend[]): Mends {
  const { plan, refused } = proveAndTakeBack<Mend, MendsPlan>({
    before: model,
    judge: UNSEEN,
    rounds: MOST_ROUNDS,
    plan: (known) => {
      const items = wanted.filter((one) => !known.has(one));
      const edits = new Map<string, Edit[]>();
      for (const one of items) push(edits, one.from.written.path, editsFor(one));
      return { items, edits, after: items.length === 0 ? model : stateAfter(model, edits) };
    },
    blame: (difference, { items }) => items.filter((one) => decides(difference, one)),
  });
  return {
    edits: plan.edits,
    mended: plan.items,
    left: [...refused].map(([{ from }, why]) => ({
      from,
      why: refusalText('seen before the update', {
        detail: why.kind === 'proof' ? why.detail : keptText(why),
      }),
    })),
  };
}

/** Whether a selector of the mended rule affects what differs. */
function decides(difference: Difference, { selector }: Mend): boolean {
  if (difference.kind !== 'style') return false;
  const list = compileSelectorList(selector);
  const texts = list.kind === 'list' ? list.selectors.map(({ text }) => text) : [];
  return [...difference.before, ...difference.after].some(({ from }) => texts.includes(from));
}

/** Out: `undefined` for what needs nothing, or nobody knows what. */
function mendOf(from: Outlasting): Mend | undefined {
  const { fate, written } = from;
  const { rule } = written;
  const own = rule.nesting.length === 1 ? rule.selector : undefined;
  if (own === undefined) return undefined;
  switch (fate.kind) {
    case 'name gone':
    case 'matches nothing': {
      const list = compileSelectorList(own);
      const known = list.kind === 'list' ? list.selectors.map(({ text }) => text) : [];
      const fresh = compileSelectorList(fate.likely ?? '');
      const texts = fresh.kind === 'list' ? fresh.selectors.map(({ text }) => text) : [];
      const added = [...new Set(texts)].filter((text) => !known.includes(text));
      return added.length === 0 ? undefined : { from, selector: [own, ...added].join(', '), important: [] };
    }
    case 'beaten':
      return fate.fix && { from, ...fate.fix };
    case 'holds':
    case 'not needed':
      return undefined;
  }
}

function editsFor({ from, selector, important }: Mend): Edit[] {
  const { offset, rule, text } = from.written;
  const { start, end } = rule.selectorRange;
  const own = text.slice(start, end);
  const edits: Edit[] = [];
  // What stands in front stays as it is written.
  if (selector.startsWith(`${own}, `))
    edits.push({ start: offset + end, end: offset + end, text: selector.slice(own.length) });
  else if (selector !== own) edits.push({ start: offset + start, end: offset + end, text: selector });
  for (const { property, range, important: isSo } of rule.declarations)
    if (important.includes(property) && !isSo)
      edits.push({ start: offset + range.end, end: offset + range.end, text: ' !important' });
  return edits;
}
