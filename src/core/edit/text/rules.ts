// Edits inside a rule as somebody wrote it: a value changed, a declaration added or taken out, a rule put beside it.

import { SPACE, startsWithOneOf } from '../../base/characters.js';
import type { SourceRange } from '../../base/source.js';
import { competesWith, type Declaration, everyLonghand, type StyleRule } from '../../read/sheets/index.js';
import type { Edit } from './edit.js';
import { newline } from './newline.js';

/** What a declaration is to become; without a value it goes. */
export interface DeclarationChange {
  readonly property: string;
  readonly value: string | undefined;
  readonly important: boolean;
}

/** In: the sheet's text, a rule of it, the changes. Out: edits that keep the rule's own formatting. */
export function editRule(text: string, rule: StyleRule, changes: readonly DeclarationChange[]): Edit[] {
  const edits: Edit[] = [];
  const added: string[] = [];
  const gone = new Set<Declaration>();
  for (const change of changes) {
    const own = rule.declarations.filter(({ property }) => property === change.property);
    const last = own.at(-1);
    if (change.value === undefined) for (const one of own) gone.add(one);
    else if (last !== undefined && !isHidden(last, rule) && !isShared(change, changes))
      edits.push(newValue(text, last, change));
    else {
      for (const one of own) gone.add(one);
      added.push(changeText(change));
    }
  }
  edits.push(...withoutDeclarations(text, rule, gone));
  if (added.length > 0) edits.push(appendText(text, rule, added, gone));
  return edits;
}

/** Declarations taken out of a rule that keeps others. */
export function withoutDeclarations(text: string, rule: StyleRule, gone: ReadonlySet<Declaration>): Edit[] {
  // What stands before the first one stays there for the one that takes its place.
  const [first] = rule.declarations;
  const next = rule.declarations.find((one) => !gone.has(one));
  const between =
    first === undefined || next === undefined ? '' : text.slice(first.range.start, next.range.start);
  if (first === undefined || next === undefined || !gone.has(first) || between.includes('/*'))
    return [...gone].map(({ range }) => ({ ...withGap(text, range), text: '' }));
  const later = [...gone].filter(({ range }) => range.start > next.range.start);
  return [
    { start: first.range.start, end: next.range.start, text: '' },
    ...later.map(({ range }) => ({ ...withGap(text, range), text: '' })),
  ];
}

export function changeText({ property, value, important }: DeclarationChange): string {
  return `${property}: ${value}${important ? ' !important' : ''}`;
}

/** Whether a later declaration of the same rule sets some of the same longhands, under whatever name. */
function isHidden(one: Declaration, { declarations }: StyleRule): boolean {
  return declarations
    .slice(declarations.indexOf(one) + 1)
    .some(({ property }) => property !== one.property && concerns(property, one.property));
}

/** Whether another of the changes sets some of the same longhands: then their order counts, and they stand last. */
function isShared({ property }: DeclarationChange, changes: readonly DeclarationChange[]): boolean {
  return changes.some((other) => other.property !== property && concerns(other.property, property));
}

/** Whether two properties set one longhand, under one name or two. */
export function concerns(one: string, other: string): boolean {
  // `all` sets every property but these (CSS Cascade 5 §3.2).
  if (one === 'all' || other === 'all')
    return ![one, other].some((name) => /^(--|direction$|unicode-bidi$)/.test(name));
  const names = everyLonghand(other);
  return everyLonghand(one).some((longhand) =>
    names.some((name) => name === longhand || competesWith(name, longhand)),
  );
}

function newValue(text: string, { range }: Declaration, { value, important }: DeclarationChange): Edit {
  const name = /^[^:]*:\s*/.exec(text.slice(range.start, range.end))?.[0].length ?? 0;
  return { start: range.start + name, end: range.end, text: `${value}${important ? ' !important' : ''}` };
}

/** The declaration, its semicolon and the space in front of it. */
function withGap(text: string, { start, end }: SourceRange): SourceRange {
  const behind = /^\s*;/.exec(text.slice(end))?.[0].length ?? 0;
  const before = /[ \t\r\n]*$/.exec(text.slice(0, start))?.[0].length ?? 0;
  return { start: start - before, end: end + behind };
}

/** Declarations put behind the last of a rule, as the rule itself is written. In: those that it loses. */
export function appendText(
  text: string,
  rule: StyleRule,
  added: readonly string[],
  gone: ReadonlySet<Declaration>,
): Edit {
  const last = rule.declarations.at(-1);
  if (last === undefined) {
    const open = text.indexOf('{', rule.selectorRange.end) + 1;
    const many = /^\s*[\r\n]/.test(text.slice(open));
    const eol = newline(text);
    const indent = `${indentAt(text, rule.range.start)}${indentUnit(text)}`;
    const lines = added.map((one) => (many ? `${eol}${indent}${one};` : ` ${one};`)).join('');
    return {
      start: open,
      end: open,
      text: many || startsWithOneOf(text.slice(open), SPACE) ? lines : `${lines} `,
    };
  }
  const gap = /[ \t\r\n]*$/.exec(text.slice(0, last.range.start))?.[0] ?? ' ';
  const space = gap === '' ? ' ' : gap;
  const semicolon = /^\s*;/.exec(text.slice(last.range.end));
  const end = last.range.end + (semicolon?.[0].length ?? 0);
  const start = semicolon === null && !gone.has(last) ? ';' : '';
  return { start: end, end, text: start + added.map((one) => `${space}${one};`).join('') };
}

/** A rule put right behind another, in the same block of conditions. */
export function ruleBehind(
  text: string,
  { range }: StyleRule,
  selector: string,
  declarations: readonly string[],
): Edit {
  const eol = newline(text);
  const margin = indentAt(text, range.start);
  const body = declarations.map((one) => `${margin}${indentUnit(text)}${one};${eol}`).join('');
  return {
    start: range.end,
    end: range.end,
    text: `${eol}${eol}${margin}${selector} {${eol}${body}${margin}}`,
  };
}

/** A rule taken out, with the lines it stands on. */
export function withoutRule(text: string, { range }: StyleRule): Edit {
  const before = /(?:\r\n|\n|\r)?[ \t]*$/.exec(text.slice(0, range.start))?.[0].length ?? 0;
  const blank = /^[ \t]*(?:\r\n|\n|\r)/.exec(text.slice(range.end))?.[0].length ?? 0;
  const start = range.start - before;
  if (start > 0)
    return {
      start,
      end: range.end + (/(?:\r\n|\n|\r)[ \t]*$/.test(text.slice(0, start)) ? blank : 0),
      text: '',
    };
  // The first rule goes with the empty lines behind it.
  return { start, end: range.end + (/^\s*/.exec(text.slice(range.end))?.[0].length ?? 0), text: '' };
}

/** White space in front of what stands at an offset, from the start of its line. */
export function indentAt(text: string, offset: number): string {
  return /[ \t]*$/.exec(text.slice(0, offset))?.[0] ?? '';
}

/** What the sheet indents by. */
export function indentUnit(text: string): string {
  return /\{[^{}]*?[\r\n]+([ \t]+)[^\s}]/.exec(text)?.[1]?.slice(0, 4) ?? '  ';
}

/** A whole rule with the line breaks that set it apart. */
export function rangeWithLine(text: string, { start, end }: SourceRange): SourceRange {
  const lineStart = /(?:^|[\r\n])([ \t]*)$/.exec(text.slice(0, start));
  const behind = /^[ \t]*(\r\n|\n|\r|$)/.exec(text.slice(end));
  if (lineStart === null || behind === null) return { start, end };
  return { start: start - lineStart[1]!.length, end: end + behind[0].length };
}
