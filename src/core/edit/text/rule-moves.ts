// Rules that take the place of several, as edits: what is declared elsewhere now goes out of its rules and style blocks, and the
// new rule stands where the first of them stood, in a rule that is there, or at the end of a sheet.

import * as csstree from 'css-tree/dist/csstree.esm';
import { hasOneOf, SPACE } from '../../base/characters.js';
import type { SourceRange } from '../../base/source.js';
import type { SiteModel } from '../../cascade/index.js';
import { type Declaration, declarationText } from '../../read/sheets/index.js';
import type { SharedSheet } from '../../read/sheets/shared-sheet.js';
import type { BlockPlace, OwnRule, RuleMove, SharedRule } from '../../search/index.js';
import { applyEdits, type Edit } from './edit.js';
import { newline } from './newline.js';
import { addLinks, push } from './plan.js';
import { appendText, indentAt, indentUnit, rangeWithLine, withoutDeclarations } from './rules.js';
import { isCompact, ruleText, writeRules } from './shared-sheet.js';
import type { Edits } from './state.js';

export function planRuleMoves(model: SiteModel, moves: readonly RuleMove[], shared: SharedSheet): Edits {
  const edits = new Map<string, Edit[]>();
  const gone = new Map<OwnRule, Set<Declaration>>();
  for (const { said } of moves.flatMap(({ replaced }) => replaced))
    for (const { own, movable } of said) {
      const known = gone.get(own) ?? new Set();
      gone.set(own, known);
      for (const one of movable.declarations) known.add(one);
    }
  const written = writtenRules(moves);
  for (const sheet of new Set([
    ...[...gone.keys()].flatMap((own) => own.sheet ?? []),
    ...written.flatMap(({ place }) => (place.sheet === '' ? [] : place.sheet)),
  ])) {
    const text = model.sources.sheets.get(sheet) ?? '';
    const own = written.filter(({ place }) => place.sheet === sheet);
    push(edits, sheet, [
      ...editsOn(
        text,
        [...gone].filter(([rule]) => rule.sheet === sheet),
        own,
        sheet,
      ),
      ...atEnd(
        text,
        own.filter(({ place }) => place.kind === 'end'),
        sheet === shared.path ? shared : { path: sheet, partNames: {} },
      ),
    ]);
  }
  const losing = [...gone].filter(([own]) => own.sheet === undefined);
  for (const place of new Set(losing.flatMap(([own]) => own.places)))
    push(
      edits,
      place.page.path,
      blockEdits(
        place,
        losing.filter(([rule]) => rule.places.includes(place)),
      ),
    );
  const linked = written.some(({ place }) => place.kind === 'end' && place.sheet === shared.path);
  const paths = new Set(losing.flatMap(([{ places }]) => places.map(({ page }) => page.path)));
  if (linked) addLinks(model, shared.path, (path) => paths.has(path), edits);
  return edits;
}

interface Written {
  readonly selectors: readonly string[];
  readonly conditions: readonly string[];
  readonly place: RuleMove['place'];
  readonly declarations: { readonly declaration: Declaration; readonly holder: string }[];
}

/** One rule for all moves that share it, in the order in which they are to stand. */
function writtenRules(moves: readonly RuleMove[]): Written[] {
  const known = new Map<string, Written>();
  for (const { selectors, conditions, place, replaced } of moves) {
    const into = place.kind === 'into' ? `into ${place.anchor!.order}` : '';
    const key = `${place.sheet}|${into}|${conditions.join()}|${selectors.join()}`;
    const rule = known.get(key) ?? { selectors, conditions, place, declarations: [] };
    known.set(key, rule);
    const there = place.kind === 'into' ? place.anchor!.said : [];
    for (const { movable } of replaced)
      if (!there.some((one) => one.movable.key === movable.key))
        for (const declaration of movable.declarations)
          rule.declarations.push({ declaration, holder: movable.holder });
  }
  for (const rule of known.values())
    rule.declarations.sort((a, b) => a.declaration.range.start - b.declaration.range.start);
  return [...known.values()].sort((a, b) => a.place.order - b.place.order);
}

function editsOn(
  text: string,
  gone: readonly (readonly [OwnRule, ReadonlySet<Declaration>])[],
  written: readonly Written[],
  holder: string,
): Edit[] {
  const edits: Edit[] = [];
  const into = new Set(
    written.flatMap(({ place, declarations }) =>
      place.kind === 'into' && declarations.length > 0 ? (place.anchor ?? []) : [],
    ),
  );
  const whole = gone.filter(([own, lost]) => lost.size === own.rule.declarations.length && !into.has(own));
  const anchors = new Set(
    written.flatMap(({ place }) => (place.kind === 'before' || place.kind === 'behind' ? place.anchor! : [])),
  );
  const cut = wholeRanges(
    text,
    whole.map(([own]) => own),
    anchors,
  );
  for (const range of cut) edits.push({ ...range, text: '' });
  for (const [own, lost] of gone)
    if (!whole.some(([one]) => one === own)) edits.push(...withoutDeclarations(text, own.rule, lost));
  const compact = isCompact(text);
  for (const { selectors, place, declarations } of written) {
    const { anchor } = place;
    if (anchor === undefined) continue;
    if (place.kind === 'into') {
      if (declarations.length === 0) continue;
      const lost = gone.find(([own]) => own === anchor)?.[1] ?? new Set();
      const texts = declarations.map((one) => declarationText(one.declaration, one.holder, holder));
      edits.push(appendText(text, anchor.rule, texts, lost));
      continue;
    }
    const eol = newline(text);
    const margin = indentAt(text, anchor.rule.range.start);
    const rule: SharedRule = { selectors, part: 'components', declarations };
    const shown = ruleText(rule, holder, indentUnit(text), eol, compact)
      .trimEnd()
      .replace(/^(?=.)/gm, margin);
    const { start, end } = rangeWithLine(text, anchor.rule.range);
    const stays = !whole.some(([one]) => one === anchor);
    const gap = compact || !stays ? '' : eol;
    // Inside a block that stands on one line.
    if (end === anchor.rule.range.end && start === anchor.rule.range.start) {
      const line = shown.trim().replace(/,[\r\n]+\s*/g, ', ');
      edits.push(
        place.kind === 'before'
          ? { start, end: start, text: stays || !hasOneOf(text[end] ?? '', SPACE) ? `${line} ` : line }
          : { start: end, end, text: ` ${line}` },
      );
    } else if (place.kind === 'before') edits.push({ start, end: start, text: `${shown}${eol}${gap}` });
    else edits.push({ start: end, end, text: `${gap}${shown}${eol}` });
  }
  return edits;
}

/** What goes as a whole: rules, and blocks of conditions with nothing left in them. */
function wholeRanges(
  text: string,
  rules: readonly OwnRule[],
  anchors: ReadonlySet<OwnRule>,
): { start: number; end: number }[] {
  const ranges = rules.map(({ rule }) => rule.range);
  const blocks = rules.some(({ conditions }) => conditions.length > 0) ? conditionBlocks(text) : [];
  const empty = blocks.filter(
    ({ rules: inside, start, end }) =>
      inside.every((at) => ranges.some((one) => one.start === at)) &&
      ![...anchors].some(({ rule }) => rule.range.start > start && rule.range.end < end),
  );
  const outer = empty.filter(({ start, end }) => !empty.some((one) => one.start < start && one.end > end));
  const own = ranges.filter(({ start }) => !outer.some((block) => block.start < start && start < block.end));
  return [...own, ...outer].map((range) => {
    const isAnchor = [...anchors].some(({ rule }) => rule.range.start === range.start);
    const cut = rangeWithLine(text, isAnchor ? range : withItsComment(text, range));
    // The empty line that set the rule apart goes with it.
    const blank = /(\r\n|\n|\r)[ \t]*(?:\r\n|\n|\r)$/.exec(text.slice(0, cut.start));
    return blank === null || isAnchor
      ? cut
      : { start: cut.start - (blank[0].length - blank[1]!.length), end: cut.end };
  });
}

/** What stands behind a rule on its last line is declared of that rule. */
function withItsComment(text: string, { start, end }: SourceRange): SourceRange {
  const behind = /^[ \t]*\/\*[^\r\n]*?\*\/(?=[ \t]*(?:[\r\n]|$))/.exec(text.slice(end))?.[0] ?? '';
  return { start, end: end + behind.length };
}

/** `@media` and the like that hold rules, with where these begin. */
function conditionBlocks(text: string): { start: number; end: number; rules: number[] }[] {
  const found: { start: number; end: number; rules: number[] }[] = [];
  const ast = csstree.parse(text, { positions: true, parseValue: false, parseRulePrelude: false });
  csstree.walk(ast, {
    visit: 'Atrule',
    enter(node) {
      if (!node.block || !node.loc || !['media', 'supports', 'container'].includes(node.name.toLowerCase()))
        return;
      const rules: number[] = [];
      csstree.walk(node.block, (inner) => {
        if (inner.type === 'Rule' && inner.loc) rules.push(inner.loc.start.offset);
        // A comment or a definition stays.
        if (inner.type === 'Atrule' && !['media', 'supports', 'container'].includes(inner.name.toLowerCase()))
          rules.push(-1);
      });
      found.push({ start: node.loc.start.offset, end: node.loc.end.offset, rules });
    },
  });
  return found;
}

function atEnd(text: string, written: readonly Written[], sheet: SharedSheet): Edit[] {
  if (written.length === 0) return [];
  const rules = written.map(
    ({ selectors, conditions, declarations }): SharedRule => ({
      selectors,
      conditions,
      declarations,
      part: selectors.every((one) => !hasOneOf(one, '.#[')) ? 'elements' : 'components',
    }),
  );
  return writeRules(text, sheet, rules);
}

/** Declarations cut out of a style block; the block goes with the last of them. */
function blockEdits(
  { page, reference }: BlockPlace,
  gone: readonly (readonly [OwnRule, ReadonlySet<Declaration>])[],
): Edit[] {
  const { element, offset, text } = reference;
  const edits = editsOn(text, gone, [], page.path);
  const tag = page.elements[element]?.tag;
  const closing = /^<\/style[^>]*>/i.exec(page.text.slice(offset! + text.length));
  if (applyEdits(text, edits).trim() === '' && tag !== undefined && closing !== null) {
    const whole = { start: tag.range.start, end: offset! + text.length + closing[0].length };
    // White space in the head is nothing; in the body it may be seen, and stays.
    const inHead = page.elements[page.elements[element]!.parent]?.name === 'head';
    const before = inHead ? /(\r\n|\n|\r)[ \t]*$/.exec(page.text.slice(0, whole.start)) : null;
    return [{ start: whole.start - (before?.[0].length ?? 0), end: whole.end, text: '' }];
  }
  return edits.map(({ start, end, text: by }) => ({ start: offset! + start, end: offset! + end, text: by }));
}
