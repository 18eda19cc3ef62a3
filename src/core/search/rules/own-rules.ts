// The rules that a developer owns, in their sheets and in the style blocks of pages, cut into what each of them declares.

import { addTo, groupBy } from '../../base/group-by.js';
import { inOneLine } from '../../base/phrases.js';
import {
  ALWAYS,
  type ComplexSelector,
  compileSelectorList,
  type SheetOrder,
  type SiteModel,
} from '../../cascade/index.js';
import type { Page, SheetReference } from '../../read/markup/index.js';
import {
  type Declaration,
  declarationValidity,
  everyLonghand,
  isFallback,
  type Sheet,
  type StyleRule,
} from '../../read/sheets/index.js';
import {
  declarationKey,
  type Movable,
  movablesOf,
  sheetsBesideUnread,
  undecidedReason,
  unreadSheetOf,
} from '../../stock/index.js';
import type { Census, ElementGroup } from '../census.js';
import { reachOf } from '../reach.js';
import { splitSuffix } from './selectors.js';

/** A style block of a page. */
export interface BlockPlace {
  readonly page: Page;
  readonly reference: Extract<SheetReference, { kind: 'block' }>;
}

/** A rule that may be edited: of a sheet, or of all style blocks that have one text. */
export interface OwnRule {
  readonly rule: StyleRule;
  /** Addresses in it are relative to this path. */
  readonly holder: string;
  /** Site path of the theme sheet; `undefined` in blocks. */
  readonly sheet: string | undefined;
  /** Where its block is pasted, as far as pages are at hand. */
  readonly places: readonly BlockPlace[];
  /** In how many places its text stands. */
  readonly times: number;
  /** Whether something stands between it and the rule before: a comment, a condition. */
  readonly apart: boolean;
  /** Among the rules of its sheet. */
  readonly order: number;
  readonly selectors: readonly ComplexSelector[];
  /** The selectors without the states and the pseudo-element that all of them end in. */
  readonly bases: readonly string[];
  readonly suffix: string;
  readonly conditions: readonly string[];
  /** Equal where conditions and suffix are: such rules can say something together. */
  readonly context: string;
  readonly said: readonly Said[];
  /** Declarations that a later one of the same selector always beats. */
  readonly beaten: readonly Declaration[];
  /** Elements that it matches, or could. */
  readonly matched: Set<ElementGroup>;
}

/** What one rule says that can be said elsewhere by itself. */
export interface Said {
  readonly own: OwnRule;
  readonly movable: Movable;
}

/** In: the sheets that may be edited. Out: their rules and those of style blocks, with what they match; none beside a sheet that was not read. */
export function ownRules(model: SiteModel, census: Census, themes: readonly string[]): OwnRule[] {
  const found: OwnRule[] = [];
  const besideUnread = sheetsBesideUnread(model);
  for (const path of themes) {
    const program = model.sheetAt(path);
    if (program === undefined || program.sheet.undecided.length > 0 || besideUnread.has(path)) continue;
    const { rules, text } = program.sheet;
    const apart = new Set(rulesApart(rules));
    const place = { holder: path, sheet: path, places: [], times: 1 };
    const own = rules.flatMap((rule, order) => {
      const one = apart.has(rule) ? ownRule(rule, { ...place, order }) : undefined;
      const before = text.slice(rules[order - 1]?.range.end ?? 0, rule.range.start);
      return one === undefined ? [] : [{ ...one, apart: before.trim() !== '' }];
    });
    found.push(...cut(own));
  }
  for (const places of blocksOf(model).values()) {
    const { page, reference } = places[0]!;
    const { sheet, holder } = model.block(reference.text, page);
    const times = places.reduce((all, one) => all + model.pagesLike(one.page), 0);
    const place = { holder, sheet: undefined, places, times };
    const whole = new Set(rulesApart(sheet.rules));
    // What is broken is mended first: of a block that is not closed what stands before it may go.
    const broken = Math.min(...sheet.defects.map(({ range }) => range.start), Number.POSITIVE_INFINITY);
    found.push(
      ...cut(
        sheet.rules.flatMap((rule, order) =>
          whole.has(rule) && rule.range.end <= broken ? (ownRule(rule, { ...place, order }) ?? []) : [],
        ),
      ),
    );
  }
  noteMatches(found, census);
  return found;
}

function ownRule(
  rule: StyleRule,
  place: Pick<OwnRule, 'holder' | 'sheet' | 'places' | 'times' | 'order'>,
): OwnRule | undefined {
  const { selector: text, nesting, declarations, layer, scope, conditions } = rule;
  if (nesting.length > 1 || layer !== undefined || scope !== undefined || declarations.length === 0)
    return undefined;
  if (conditions.some(({ kind }) => kind === 'starting-style')) return undefined;
  const list = compileSelectorList(text);
  // A browser that does not know one selector of a list drops all of them.
  if (list.kind === 'invalid' || list.unsure || list.selectors.length === 0) return undefined;
  const split = list.selectors.map((one) => splitSuffix(one.text));
  const { suffix } = split[0]!;
  if (split.some((one) => one.suffix !== suffix)) return undefined;
  const around = conditionsOf(rule);
  const said: Said[] = [];
  const own: OwnRule = {
    ...place,
    rule,
    times: place.times,
    selectors: list.selectors,
    bases: split.map(({ base }) => base),
    suffix,
    conditions: around,
    context: `${around.join(' ')}|${suffix}`,
    apart: false,
    said,
    beaten: [],
    matched: new Set(),
  };
  return own;
}

/** Cuts the rules of one sheet into what they say, as far as nothing that is said later in the same words beats it. */
function cut(rules: readonly OwnRule[]): OwnRule[] {
  const alike = groupBy(rules, ({ context, bases }) => `${context}|${bases.join()}`);
  return [...alike.values()].flatMap((same) => {
    const all = same.flatMap(({ rule }) => rule.declarations);
    return same.map((own): OwnRule => {
      const beaten = own.rule.declarations.filter((one) =>
        all.slice(all.indexOf(one) + 1).some((later) => beats(later, one)),
      );
      const said: Said[] = [];
      const mine = { ...own, said, beaten };
      for (const movable of movablesOf(
        own.rule.declarations.filter((one) => !beaten.includes(one)),
        own.holder,
      ))
        for (const one of apart(movable)) said.push({ own: mine, movable: one });
      return mine;
    });
  });
}

/** `padding: 16px; padding-left: 0` declares two things: what others declare too, and how it differs. */
function apart(movable: Movable): Movable[] {
  const { declarations, holder } = movable;
  const canPart =
    new Set(declarations.map(({ property }) => property)).size === declarations.length &&
    declarations.every(({ property, value }) => declarationValidity(property, value).validity === 'certain');
  if (declarations.length === 1 || !canPart) return [movable];
  return declarations.map((one) => ({ ...movable, key: declarationKey(one, holder), declarations: [one] }));
}

/** Whether nobody can see what an earlier declaration declares: every browser keeps the later one, and it sets as much. */
function beats(later: Declaration, earlier: Declaration): boolean {
  if (isFallback(earlier, later)) return false;
  if (earlier.important && !later.important) return false;
  if (later.property !== earlier.property) {
    const names = new Set(everyLonghand(later.property));
    if (
      earlier.property.startsWith('--') ||
      !everyLonghand(earlier.property).every((name) => names.has(name))
    )
      return false;
  }
  return declarationValidity(later.property, later.value).validity === 'certain';
}

/** Style blocks that may be edited, those of one text together. */
function blocksOf(model: SiteModel): Map<unknown, BlockPlace[]> {
  const found = new Map<unknown, BlockPlace[]>();
  for (const page of model.pages) {
    // Mail brings its sheets along.
    if (page.kind !== 'page' || page.isMail) continue;
    const blocks = page.sheets.filter((reference) => reference.kind === 'block' && isPlain(reference));
    if (blocks.length === 0 || undecidedReason(page, model.sheetOrdersOf(page)) !== undefined) continue;
    if (unreadSheetOf(model, page) !== undefined) continue;
    for (const reference of blocks) {
      if (reference.kind !== 'block') continue;
      const program = model.block(reference.text, page);
      if (isSimple(program.sheet)) addTo(found, program, { page, reference });
    }
  }
  return found;
}

function isPlain(reference: Extract<SheetReference, { kind: 'block' }>): boolean {
  const everywhere =
    /^(all)?$/i.test(reference.media.trim()) &&
    reference.isFilled !== true &&
    reference.isFixed !== true &&
    reference.by !== 'engine at times';
  return everywhere && reference.title === '' && !reference.scriptingOff && reference.offset !== undefined;
}

/** What names layers or prefixes stays with them. */
function isSimple({ imports, layers, namespaces, undecided }: Sheet): boolean {
  return imports.length === 0 && layers.length === 0 && namespaces.size === 0 && undecided.length === 0;
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

/** `@media print`, the outermost first. */
function conditionsOf({ conditions }: StyleRule): string[] {
  return conditions.map(({ kind, text }) => `@${kind} ${inOneLine(text)}`);
}

/** Whether all of these pages load a sheet, whatever the medium. */
export function isLoadedBy(model: SiteModel, sheet: string, pages: readonly Page[]): boolean {
  return pages.every((page) =>
    model
      .sheetOrdersOf(page)
      .every(({ uses }) =>
        uses.some(
          ({ source, condition }) => source.path === sheet && !source.isBlock && condition === ALWAYS,
        ),
      ),
  );
}

/** Above so many rules it is cheaper to ask the elements. */
const FEW = 300;

function noteMatches(rules: readonly OwnRule[], census: Census): void {
  if (rules.length > FEW) {
    const byRule = new Map(rules.map((own) => [own.rule, own]));
    for (const group of census.groups)
      for (const { matched } of group.matchedSheets)
        for (const { rule } of matched()) byRule.get(rule.rule)?.matched.add(group);
    return;
  }
  for (const own of rules)
    for (const selector of own.selectors)
      for (const { group } of reachOf({ text: selector.text, selector, parts: 0 }, census))
        if (group.readers.some(({ sheetOrder }) => isIn(own, sheetOrder))) own.matched.add(group);
}

function isIn({ sheet, rule }: OwnRule, { uses }: SheetOrder): boolean {
  return uses.some(({ source, program }) =>
    sheet === undefined ? program.sheet.rules.includes(rule) : source.path === sheet && !source.isBlock,
  );
}
