// Classes in place of ids that rules name one by one, as far as the proof finds that nothing changes.

import type { SiteModel } from '../../cascade/index.js';
import { type Edits, planIdClasses, stateAfter } from '../../edit/text/index.js';
import { type Difference, type Planned, PROVE, proveAndTakeBack } from '../../proof/index.js';
import { type IdClass, idClassesOf, type NamedIdClass } from '../../search/index.js';
import { type BuiltTags, mayEditAll, type SiteScripts, type StyledTag } from '../../stock/index.js';

export interface IdClassesResult {
  readonly classes: readonly NamedIdClass[];
  readonly edits: Edits;
  readonly after: SiteModel;
}

export interface IdClassesOptions {
  readonly scripts: SiteScripts;
  readonly styledTags: readonly StyledTag[];
  readonly themes: readonly string[];
  /** Site path of the shared sheet. */
  readonly shared: string;
  /** Texts of documents that load it and were not read. */
  readonly unreadDocuments: readonly string[];
  /** Gives names, and takes out what a person has refused. */
  readonly built: BuiltTags | undefined;
  readonly decide: (found: readonly IdClass[]) => readonly NamedIdClass[];
}

interface ClassesPlan extends Planned<NamedIdClass> {
  readonly edits: Edits;
}

const MOST_ROUNDS = 4;

export function consolidateIds(model: SiteModel, options: IdClassesOptions): IdClassesResult {
  const found = idClassesOf(model, options).filter(({ tags }) => mayEditAll(tags, options.built));
  const wanted = found.length === 0 ? [] : options.decide(found);
  const { plan } = proveAndTakeBack<NamedIdClass, ClassesPlan>({
    before: model,
    judge: PROVE,
    rounds: MOST_ROUNDS,
    plan: (known, last) => {
      const items = wanted.filter((one) => !known.has(one));
      if (items.length === 0) return { items, edits: new Map(), after: model };
      const edits = planIdClasses(model, items);
      return { items, edits, after: stateAfter(model, edits, ...(last === undefined ? [] : [last])) };
    },
    blame: (difference, { items }) => blame(difference, items),
  });
  return { classes: plan.items, edits: plan.edits, after: plan.after };
}

/** The classes on the page that differs; else all of them. */
function blame(difference: Difference, classes: readonly NamedIdClass[]): readonly NamedIdClass[] {
  const onPage = classes.filter(({ tags }) => tags.some(({ page }) => page.path === difference.page));
  return onPage.length > 0 ? onPage : classes;
}
