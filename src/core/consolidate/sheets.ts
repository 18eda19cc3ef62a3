// Rules that stand more than once are written once, as far as the proof finds that nothing changes.

import type { SiteModel } from '../cascade/index.js';
import {
  addLinks,
  type Edit,
  type Edits,
  push,
  rangeWithLine,
  stateAfter,
  writeRules,
} from '../edits/index.js';
import type { Page, SheetReference } from '../markup/index.js';
import type { SharedSheet } from '../parts.js';
import {
  type Difference,
  type Judge,
  type Planned,
  proveAndTakeBack,
  type Refusals,
} from '../proof/index.js';
import { conditionsOf, movePlaces, type SharedRule, type SheetMove } from '../search/index.js';
import type { SourceRange } from '../source.js';

export interface SheetsResult {
  readonly moves: readonly SheetMove[];
  readonly refused: Refusals<SheetMove>;
  readonly edits: Edits;
  readonly after: SiteModel;
  /** Pages that must not link the shared sheet, since it holds rules they have to do without. */
  readonly apart: ReadonlySet<string>;
}

/** So often single rules are left out; after that, all of them stay. */
const MOST_ROUNDS = 6;

/**
 * In: the moves to make; how many places some pages hold, which could move if they linked the shared sheet.
 * Out: those moves that are proven to change nothing.
 */
export function consolidateSheets(
  model: SiteModel,
  moves: readonly SheetMove[],
  shared: SharedSheet,
  placesOn: (pages: ReadonlySet<string>) => number,
  judge: Judge,
): SheetsResult {
  // Pages that do not hold these rules, and components, may want the shared sheet later: the proof is to know that now.
  const holding = new Set(
    moves.flatMap((move) => (move.kind === 'grouped rule' ? [] : move.places.map(({ page }) => page.path))),
  );
  const others = new Set(model.paths.filter((path) => holding.size > 0 && !holding.has(path)));
  const isWanted = placesOn(others) > 0;
  const everywhere = proveMoves(model, moves, shared, isWanted, judge);
  if (!isWanted || everywhere.refused.size === 0) return everywhere;
  // A page that must do without some rule keeps that rule out of the shared sheet, or the components.
  const without = proveMoves(model, moves, shared, false, judge);
  const linked = new Set(
    without.after.pages.filter((page) => links(without.after, page, shared.path)).map(({ path }) => path),
  );
  const apart = new Set(model.pages.map(({ path }) => path).filter((path) => !linked.has(path)));
  const lost = placesOn(apart);
  return savedBy(without.moves) > savedBy(everywhere.moves) + lost ? { ...without, apart } : everywhere;
}

function links(model: SiteModel, page: Page, shared: string): boolean {
  return page.kind === 'page' && model.stackOf(page).uses.some(({ source }) => source.path === shared);
}

function savedBy(moves: readonly SheetMove[]): number {
  return moves.reduce((all, move) => all + movePlaces(move), 0);
}

interface MovesPlan extends Planned<SheetMove> {
  readonly edits: Edits;
}

/** In: `everywhere`, whether all pages are to link the shared sheet, or only those that lose rules to it. */
function proveMoves(
  model: SiteModel,
  moves: readonly SheetMove[],
  shared: SharedSheet,
  everywhere: boolean,
  judge: Judge,
): SheetsResult {
  const { plan, refused } = proveAndTakeBack<SheetMove, MovesPlan>({
    before: model,
    judge,
    rounds: MOST_ROUNDS,
    plan: (known, last) => {
      const items = moves.filter((move) => !known.has(move));
      if (items.length === 0) return { items, edits: new Map(), after: model };
      const edits = planSheets(model, items, shared, everywhere);
      return { items, edits, after: stateAfter(model, edits, ...(last === undefined ? [] : [last])) };
    },
    blame: (difference, { items }) => blame(difference, items),
  });
  return { moves: plan.items, refused, edits: plan.edits, after: plan.after, apart: new Set() };
}

/** The moves whose rules decide what differs; else all that touch the page. */
function blame(difference: Difference, moves: readonly SheetMove[]): readonly SheetMove[] {
  if (difference.kind === 'style') {
    const deciding = new Set([...difference.before, ...difference.after].map(({ from }) => from));
    const named = moves.filter((move) =>
      (move.kind === 'grouped rule' ? move.rules : [move.rule]).some(({ selectors }) =>
        selectors[0]!.split(',').some((one) => deciding.has(one.trim())),
      ),
    );
    if (named.length > 0) return named;
  }
  const onPage = moves.filter(
    (move) =>
      move.kind === 'from style blocks' && move.places.some(({ page }) => page.path === difference.page),
  );
  return onPage.length > 0 ? onPage : moves;
}

function planSheets(
  model: SiteModel,
  moves: readonly SheetMove[],
  shared: SharedSheet,
  everywhere: boolean,
): Edits {
  const edits = new Map<string, Edit[]>();
  const rules: SharedRule[] = [];
  const gone = new Map<Page, Map<Extract<SheetReference, { kind: 'block' }>, SourceRange[]>>();
  for (const move of moves) {
    if (move.kind === 'grouped rule') {
      push(edits, move.path, groupEdits(model.sheetAt(move.path)!.sheet.text, move.rules));
      continue;
    }
    rules.push(ruleOf(move));
    for (const { page, reference, rule } of move.places) {
      const blocks = gone.get(page) ?? new Map<typeof reference, SourceRange[]>();
      gone.set(page, blocks);
      blocks.set(reference, [...(blocks.get(reference) ?? []), rule.range]);
    }
  }
  for (const [page, blocks] of gone)
    for (const [reference, ranges] of blocks) push(edits, page.path, blockEdits(page, reference, ranges));
  if (rules.length > 0) {
    push(edits, shared.path, writeRules(model.sources.sheets.get(shared.path) ?? '', shared, rules));
    const paths = new Set([...gone.keys()].map(({ path }) => path));
    addLinks(model, shared.path, (path) => everywhere || paths.has(path), edits);
  }
  return edits;
}

function ruleOf({ rule, holder, part }: Extract<SheetMove, { kind: 'from style blocks' }>): SharedRule {
  return {
    selectors: [rule.selectors[0]!.replace(/\s+/g, ' ').trim()],
    part,
    declarations: rule.declarations.map((declaration) => ({ declaration, holder })),
    conditions: conditionsOf(rule),
  };
}

/** The selectors of all rules at the first of them; the others go. */
function groupEdits(
  text: string,
  [first, ...others]: readonly { readonly range: SourceRange; readonly selectorRange: SourceRange }[],
): Edit[] {
  if (first === undefined) return [];
  const lineStart = /(?:^|[\r\n])([ \t]*)$/.exec(text.slice(0, first.selectorRange.start))?.[1] ?? '';
  const eol = /\r\n|\n|\r/.exec(text)?.[0] ?? '\n';
  const added = others.map(
    ({ selectorRange }) => `,${eol}${lineStart}${text.slice(selectorRange.start, selectorRange.end).trim()}`,
  );
  const selector = text.slice(first.selectorRange.start, first.selectorRange.end).trimEnd();
  const at = first.selectorRange.start + selector.length;
  return [
    { start: at, end: at, text: added.join('') },
    ...others.map(({ range }) => {
      const whole = rangeWithLine(text, range);
      // The empty line that set the rule apart goes with it.
      const empty = /(\r\n|\n|\r)[ \t]*(?:\r\n|\n|\r)$/.exec(text.slice(0, whole.start));
      const start = empty === null ? whole.start : whole.start - (empty[0].length - empty[1]!.length);
      return { start, end: whole.end, text: '' };
    }),
  ];
}

/** Rules cut out of a style block; the block goes with the last of them. */
function blockEdits(
  page: Page,
  { element, offset, text }: Extract<SheetReference, { kind: 'block' }>,
  ranges: readonly SourceRange[],
): Edit[] {
  const cuts = ranges.map((range) => rangeWithLine(text, range)).sort((a, b) => a.start - b.start);
  let rest = '';
  let at = 0;
  for (const { start, end } of cuts) {
    rest += text.slice(at, start);
    at = end;
  }
  rest += text.slice(at);
  const tag = page.elements[element]?.tag;
  const closing = /^<\/style[^>]*>/i.exec(page.text.slice(offset! + text.length));
  if (isEmpty(rest) && tag !== undefined && closing !== null) {
    const whole = { start: tag.range.start, end: offset! + text.length + closing[0].length };
    const before = /(\r\n|\n|\r)[ \t]*$/.exec(page.text.slice(0, whole.start));
    return [{ start: whole.start - (before?.[0].length ?? 0), end: whole.end, text: '' }];
  }
  return cuts.map(({ start, end }) => ({ start: offset! + start, end: offset! + end, text: '' }));
}

/** Nothing but white space, and conditions with nothing in them. */
function isEmpty(css: string): boolean {
  let rest = css;
  for (let shorter = ''; ; rest = shorter) {
    shorter = rest.replace(/@(media|supports|container)[^{}]*\{\s*\}/gi, '').trim();
    if (shorter === rest) return rest === '';
  }
}
