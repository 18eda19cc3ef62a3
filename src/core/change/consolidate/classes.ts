// Classes leave their tags where a position declares as much or no rule asks for them, as far as the proof finds that nothing changes.

import type { SiteModel } from '../../cascade/index.js';
import { type Edits, planClassMoves, stateAfter } from '../../edit/text/index.js';
import { type Difference, type Planned, PROVE, proveAndTakeBack } from '../../proof/index.js';
import { type ClassMove, classesAsked, classMovesOf } from '../../search/index.js';
import { type BuiltTags, mayEditAll, type SiteScripts, type StyledTag } from '../../stock/index.js';

export interface ClassesResult {
  readonly moves: readonly ClassMove[];
  readonly edits: Edits;
  readonly after: SiteModel;
}

export interface ClassesOptions {
  readonly scripts: SiteScripts;
  readonly styledTags: readonly StyledTag[];
  readonly themes: readonly string[];
  /** Site path of the shared sheet. */
  readonly shared: string;
  /** Texts of documents that load it and were not read. */
  readonly unreadDocuments: readonly string[];
  /** The state before any rule has moved: classes that rules ask for there had a use. */
  readonly first: SiteModel;
  readonly isWanted: (move: ClassMove) => boolean;
  readonly built: BuiltTags | undefined;
}

interface MovesPlan extends Planned<ClassMove> {
  readonly edits: Edits;
}

const MOST_ROUNDS = 8;

export function consolidateClasses(model: SiteModel, options: ClassesOptions): ClassesResult {
  const { scripts, styledTags, themes, shared, unreadDocuments, first, isWanted, built } = options;
  const asked = classesAsked(first, themes);
  const found = classMovesOf(model, { scripts, styledTags, themes, shared, unreadDocuments, asked })
    .filter(({ tags }) => mayEditAll(tags, built))
    .filter(isWanted);
  // A rule that asks for two of them is rewritten for one.
  const rewritten = new Set<unknown>();
  const moves = found.filter(({ rules }) => {
    if (rules.some(({ own }) => rewritten.has(own))) return false;
    for (const { own } of rules) rewritten.add(own);
    return true;
  });
  // A position is tried on no element before: it is proven at once.
  const { plan } = proveAndTakeBack<ClassMove, MovesPlan>({
    before: model,
    judge: PROVE,
    rounds: MOST_ROUNDS,
    plan: (known, last) => {
      const items = moves.filter((move) => !known.has(move));
      if (items.length === 0) return { items, edits: new Map(), after: model };
      const edits = planClassMoves(model, items);
      return { items, edits, after: stateAfter(model, edits, ...(last === undefined ? [] : [last])) };
    },
    blame: (difference, { items }) => blame(difference, items),
  });
  return { moves: plan.items, edits: plan.edits, after: plan.after };
}

/** The moves whose rules decide what differs; else those that touch the element's page. */
function blame(difference: Difference, moves: readonly ClassMove[]): readonly ClassMove[] {
  if (difference.kind === 'style') {
    const deciding = new Set([...difference.before, ...difference.after].map(({ from }) => from));
    const named = moves.filter(({ rules }) =>
      rules.some(
        ({ own, selectors }) =>
          selectors.some((one) => deciding.has(one)) || own.selectors.some(({ text }) => deciding.has(text)),
      ),
    );
    if (named.length > 0) return named;
  }
  const onPage = moves.filter(({ tags }) => tags.some(({ page }) => page.path === difference.page));
  return onPage.length > 0 ? onPage : moves;
}
