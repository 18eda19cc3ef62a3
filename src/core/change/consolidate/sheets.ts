// What several rules declare is declared once, as far as the proof finds that nothing changes.

import { getOrInsert } from '../../base/get-or-insert.js';
import type { SiteModel } from '../../cascade/index.js';
import { type Edits, isLinkable, planRuleMoves, stateAfter } from '../../edit/text/index.js';
import {
  type Difference,
  type Judge,
  type Planned,
  proveAndTakeBack,
  type Refusals,
} from '../../proof/index.js';
import type { Page } from '../../read/markup/index.js';
import type { SharedSheet } from '../../read/sheets/shared-sheet.js';
import { moveKey, type PastedRule, type RuleMove, type RuleStep, ruleMovesOf } from '../../search/index.js';

export interface SheetsResult {
  readonly moves: readonly RuleMove[];
  /** What the proof has taken back. */
  readonly refused: readonly { readonly move: RuleMove; readonly reason: ReasonOf }[];
  /** What is pasted into several blocks, and stays there. */
  readonly pasted: readonly PastedRule[];
  readonly edits: Edits;
  readonly after: SiteModel;
}

type ReasonOf = Refusals<string> extends ReadonlyMap<string, infer Reason> ? Reason : never;

/** So often the search learns from what the proof has taken back; after that, all of it stays. */
const MOST_ROUNDS = 6;

interface MovesPlan extends Planned<string> {
  readonly moves: readonly RuleMove[];
  readonly edits: Edits;
}

export interface SheetsOptions extends Omit<RuleStep, 'refused' | 'shared' | 'mayLink'> {
  readonly shared: SharedSheet;
  readonly judge: Judge;
}

/** Finds what can be declared once, and keeps what is proven to change nothing. */
export function consolidateSheets(model: SiteModel, options: SheetsOptions): SheetsResult {
  const { shared, judge } = options;
  const asked = new Map<string, RuleMove>();
  const links = new Map<Page, boolean>();
  const mayLink = (page: Page): boolean =>
    getOrInsert(links, page, () => isLinkable(model, page, shared.path));
  let pasted: readonly PastedRule[] = [];
  const { plan, refused } = proveAndTakeBack<string, MovesPlan>({
    before: model,
    judge,
    rounds: MOST_ROUNDS,
    plan: (known, last, round) => {
      // In the end, what is left of the last search without what was taken back.
      const found =
        round < MOST_ROUNDS
          ? ruleMovesOf(model, { ...options, shared: shared.path, refused: known, mayLink })
          : { moves: [], pasted: [] };
      const { moves } = found;
      pasted = found.pasted;
      for (const move of moves) asked.set(moveKey(move), move);
      const items = moves.map(moveKey);
      if (moves.length === 0) return { items, moves, edits: new Map(), after: model };
      const edits = planRuleMoves(model, moves, shared);
      return { items, moves, edits, after: stateAfter(model, edits, ...(last === undefined ? [] : [last])) };
    },
    blame: (difference, { moves }) => blame(difference, moves).map(moveKey),
  });
  return {
    moves: plan.moves,
    pasted,
    refused: [...refused].flatMap(([key, reason]) => {
      const move = asked.get(key);
      return move === undefined ? [] : [{ move, reason }];
    }),
    edits: plan.edits,
    after: plan.after,
  };
}

/** So often rules are looked at again that a move has come between, or has left side by side. */
const MOST_PASSES = 3;

/** The same until nothing is left to be declared once: a second run then finds nothing. Out: edits pass by pass. */
export function consolidateSheetsWhole(
  model: SiteModel,
  optionsOn: (model: SiteModel) => SheetsOptions,
): Omit<SheetsResult, 'edits'> & { readonly edits: readonly Edits[] } {
  const passes = [consolidateSheets(model, optionsOn(model))];
  for (let last = passes[0]!; last.moves.length > 0 && passes.length < MOST_PASSES; passes.push(last))
    last = consolidateSheets(last.after, optionsOn(last.after));
  const { pasted, after } = passes.at(-1)!;
  return {
    moves: passes.flatMap(({ moves }) => moves),
    refused: passes.flatMap(({ refused }) => refused),
    pasted,
    edits: passes.map(({ edits }) => edits),
    after,
  };
}

/** The moves whose rules decide what differs; else all that touch the page. */
function blame(difference: Difference, moves: readonly RuleMove[]): readonly RuleMove[] {
  const lost = difference.kind === 'page' ? difference.rule : undefined;
  if (difference.kind === 'style' || lost !== undefined) {
    const deciding = new Set(
      difference.kind === 'style'
        ? [...difference.before, ...difference.after].map(({ from }) => from)
        : [lost!],
    );
    const named = moves.filter(
      ({ selectors, replaced }) =>
        selectors.some((one) => deciding.has(one)) ||
        replaced.some(({ said }) =>
          said.some(({ own }) => own.selectors.some(({ text }) => deciding.has(text))),
        ),
    );
    if (named.length > 0) return named;
  }
  const onPage = moves.filter(({ replaced }) =>
    replaced.some(({ said }) =>
      said.some(({ own }) => own.places.some(({ page }) => page.path === difference.page)),
    ),
  );
  return onPage.length > 0 ? onPage : moves;
}
