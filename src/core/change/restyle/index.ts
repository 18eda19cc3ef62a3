// A change, restyle. In: a selector and what its declarations are to become. Out: edits of the rules where they stand,
// the proof that only what was meant moved, and what kept its own value or is out of reach, and why.

import type { Place } from '../../base/source.js';
import { compileSelectorList, type SiteModel } from '../../cascade/index.js';
import { type DeclarationChange, type Edit, push, stateAfter } from '../../edit/text/index.js';
import { type IntentProof, proveWishes, type Wish } from '../../proof/index.js';
import { changeRule } from '../rule-edits.js';
import { mediumOf, wishOf } from '../wish.js';
import { type Asked, type Plan, planChanges } from './plan.js';
import { othersUsing } from './tokens.js';
import { groupUnmoved, type Unmoved } from './unmoved.js';
import { allRules, holdsIn, rulesUnder, type WrittenRule } from './written-rules.js';

export { groupUnmoved, type Unmoved } from './unmoved.js';
export { allRules, rulesUnder, selectorForm, type WrittenRule } from './written-rules.js';

export interface RestyleInput {
  readonly model: SiteModel;
  readonly themes: readonly string[];
  readonly selector: string;
  readonly changes: readonly DeclarationChange[];
  /** Only rules inside this media query; `undefined` for those outside all. */
  readonly medium: string | undefined;
  /** Change the custom property that a value names, not the value. */
  readonly token: boolean;
}

export interface Restyled {
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  /** The rules that were changed, or stand behind those that were. */
  readonly rules: readonly {
    readonly selector: string;
    readonly place: Place;
    readonly did: 'changed' | 'split off';
  }[];
  readonly proof: IntentProof;
  readonly unmoved: readonly Unmoved[];
  /** Custom properties that a changed value named until now, and where. */
  readonly tokens: Plan['tokens'];
  /** Custom properties that were changed, and how many elements that were not meant use each and move with it. */
  readonly through: readonly { readonly name: string; readonly others: number }[];
}

export type RestyleResult = Restyled | { readonly kind: 'no rule' };

/** Plans the change and proves it. Out: `no rule` where the theme has none under the selector. */
export function restyle(input: RestyleInput, isPlatform: (path: string) => boolean): RestyleResult {
  const { model, themes, selector, changes, token } = input;
  const medium = mediumOf(input.medium, model.table.truths);
  const { candidates, module } = meantRules(
    model,
    rulesUnder(model, themes, selector).filter((one) => holdsIn(model, one, medium)),
  );
  const list = compileSelectorList(
    selector,
    module === undefined ? {} : { local: { sheet: module, isOpen: false } },
  );
  if (candidates.length === 0 || list.kind === 'invalid') return { kind: 'no rule' };
  const asked: Asked = { selectors: list.selectors, changes, medium, token };
  const plan = planChanges(model, candidates, allRules(model, themes), selector, asked);
  const edits = new Map<string, Edit[]>();
  const rules = plan.rules.map(({ written, selector: own, changes: wanted }) => {
    const { path, rule, whole, place, offset } = written;
    const made = changeRule(written, wanted, own);
    push(
      edits,
      path,
      made.map(({ start, end, text }) => ({ start: start + offset, end: end + offset, text })),
    );
    return {
      selector: whole ? rule.selector : own,
      place,
      did: whole ? ('changed' as const) : ('split off' as const),
    };
  });
  const proof = proveWishes(model, stateAfter(model, edits), wishesOf(asked, plan));
  const unmoved = groupUnmoved(proof.kept, new Set(edits.keys()), isPlatform);
  const through = plan.throughTokens.map(({ name, setting }) => ({
    name,
    others: othersUsing(model, list.selectors, name, setting),
  }));
  return { edits, rules, proof, unmoved, tokens: plan.tokens, through };
}

/** Plain rules, where there are any; else those of the one module that has some: its classes are its own. */
function meantRules(
  model: SiteModel,
  found: readonly WrittenRule[],
): { readonly candidates: readonly WrittenRule[]; readonly module: string | undefined } {
  const isModule = ({ path }: WrittenRule): boolean => model.sources.isModule?.(path) === true;
  const plain = found.filter((one) => !isModule(one));
  const [module, ...others] = new Set(plain.length > 0 ? [] : found.map(({ path }) => path));
  return { candidates: others.length > 0 ? [] : plain.length > 0 ? plain : found, module };
}

/** What was typed; and, where it comes by a custom property, that this is what its rules set. */
function wishesOf({ selectors, changes, medium }: Asked, { rules, throughTokens }: Plan): Wish[] {
  const holders = [...new Set(rules.map(({ written }) => written.path))];
  const byToken = new Set(throughTokens.map(({ change }) => change));
  const plain = changes.filter((change) => !byToken.has(change));
  return [
    ...(plain.length > 0 ? [wishOf({ selectors, changes: plain, medium, holders })] : []),
    ...throughTokens.flatMap(({ name, change, setting }) => [
      wishOf({ selectors, changes: [change], medium, holders, token: name }),
      wishOf({
        selectors: setting.map((one) => one.selector),
        changes: [{ ...change, property: name }],
        medium,
        holders,
        serves: true,
      }),
    ]),
  ];
}
