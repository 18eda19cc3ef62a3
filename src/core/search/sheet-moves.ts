// Rules that are written more than once: in the style blocks of page after page, and again and again in a sheet.

import { compileSelectors, type SiteModel } from '../cascade/index.js';
import type { Page, SheetReference } from '../markup/index.js';
import type { Part } from '../parts.js';
import type { Sheet, StyleRule } from '../sheets/index.js';
import { declarationKey, undecidedReason } from '../stock/index.js';
import { partOf } from './home.js';

/** A rule of a style block, where it stands. */
export interface BlockRule {
  readonly page: Page;
  readonly reference: Extract<SheetReference, { kind: 'block' }>;
  readonly rule: StyleRule;
}

/** One rule for what stands in many places. */
export type SheetMove =
  | {
      readonly kind: 'from style blocks';
      readonly key: string;
      readonly rule: StyleRule;
      readonly holder: string;
      readonly part: Part;
      readonly places: readonly BlockRule[];
    }
  | {
      readonly kind: 'grouped rule';
      readonly key: string;
      /** The sheet that the rules stand in. */
      readonly path: string;
      /** In order; the first takes the selectors of the others. */
      readonly rules: readonly StyleRule[];
    };

/** In: from how many pages or rules on; the sheets that may be edited. Out: in a fixed order. */
export function findSheetMoves(model: SiteModel, themes: readonly string[], atLeast: number): SheetMove[] {
  return [...blockMoves(model, atLeast), ...themes.flatMap((path) => groupsIn(model, path, atLeast))];
}

function blockMoves(model: SiteModel, atLeast: number): SheetMove[] {
  const groups = new Map<string, BlockRule[]>();
  for (const page of model.pages) {
    // Mail brings its sheets along.
    if (page.kind !== 'page' || page.isMail) continue;
    if (undecidedReason(page, model.stacksOf(page)) !== undefined) continue;
    for (const reference of page.sheets) {
      if (reference.kind !== 'block' || !isPlain(reference)) continue;
      const { sheet } = model.block(reference.text, page);
      if (!isSimple(sheet)) continue;
      for (const rule of sheet.rules) {
        if (rule.declarations.length === 0 || !isSure(rule)) continue;
        const key = ruleKey(rule, page.path);
        const group = groups.get(key);
        if (group === undefined) groups.set(key, [{ page, reference, rule }]);
        else group.push({ page, reference, rule });
      }
    }
  }
  const moves: SheetMove[] = [];
  for (const [key, places] of groups) {
    if (new Set(places.map(({ page }) => page)).size < atLeast) continue;
    const { rule, page } = places[0]!;
    const named = /[.#[]/.test(rule.selectors[0]!.replace(/^.*[\s>+~]/, ''));
    const part = named ? partOf(rule.declarations) : 'elements';
    moves.push({ kind: 'from style blocks', key, rule, holder: page.path, part, places });
  }
  return moves;
}

function isPlain(reference: Extract<SheetReference, { kind: 'block' }>): boolean {
  const everywhere = /^(all)?$/i.test(reference.media.trim());
  return everywhere && reference.title === '' && !reference.scriptingOff && reference.offset !== undefined;
}

/** What is broken is mended first, and what names layers or prefixes stays with them. */
function isSimple({ defects, imports, layers, namespaces, undecided, rules }: Sheet): boolean {
  return (
    defects.length === 0 &&
    imports.length === 0 &&
    layers.length === 0 &&
    namespaces.size === 0 &&
    undecided.length === 0 &&
    rules.every(({ selectors, scope }) => selectors.length === 1 && scope === undefined) &&
    rulesApart(rules).length === rules.length
  );
}

/** A browser that does not know one selector of a list drops all of them. */
function isSure({ selectors }: StyleRule): boolean {
  const list = compileSelectors(selectors);
  return list.kind === 'list' && !list.unsure;
}

/** Rules of one sheet with the same declarations. */
export function groupsIn(model: SiteModel, path: string, atLeast: number): SheetMove[] {
  const program = model.sheetAt(path);
  if (program === undefined) return [];
  const groups = new Map<string, StyleRule[]>();
  const apart = rulesApart(program.sheet.rules);
  for (const rule of apart) {
    const { declarations, layer, scope, selectors } = rule;
    if (declarations.length === 0 || layer !== undefined || scope !== undefined || selectors.length > 1)
      continue;
    if (!isSure(rule)) continue;
    const key = `${conditionsOf(rule).join(' ')}{${declarations.map((one) => declarationKey(one, path)).join(';')}}`;
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [rule]);
    else group.push(rule);
  }
  return [...groups]
    .filter(
      // Two rules with one value in common have a token at most.
      ([, rules]) => rules.length >= atLeast && (rules.length - 1) * rules[0]!.declarations.length >= 2,
    )
    .map(([key, rules]) => ({ kind: 'grouped rule', key: `${path} ${key}`, path, rules }));
}

/** Rules that hold no other and are held by none: only they can go as a whole. */
function rulesApart(rules: readonly StyleRule[]): StyleRule[] {
  const sorted = [...rules].sort((a, b) => a.range.start - b.range.start || b.range.end - a.range.end);
  let end = -1;
  return sorted.filter(({ range }, at) => {
    const isInside = range.start < end;
    end = Math.max(end, range.end);
    return !isInside && (sorted[at + 1]?.range.start ?? Number.POSITIVE_INFINITY) >= range.end;
  });
}

function ruleKey(rule: StyleRule, holder: string): string {
  const declarations = rule.declarations.map((one) => declarationKey(one, holder)).join(';');
  return `${conditionsOf(rule).join(' ')} ${rule.selectors[0]!.replace(/\s+/g, ' ').trim()} {${declarations}}`;
}

/** Places less to keep up. */
export function movePlaces(move: SheetMove): number {
  return move.kind === 'grouped rule'
    ? (move.rules.length - 1) * move.rules[0]!.declarations.length
    : (move.places.length - 1) * move.rule.declarations.length;
}

/** `@media print`, the outermost first. */
export function conditionsOf({ conditions }: StyleRule): string[] {
  return conditions.map(({ kind, text }) => `@${kind} ${text.replace(/\s+/g, ' ').trim()}`);
}
