// How rules are written into the shared sheet: in named parts, in the sheet's own formatting. What stands there stays.

import { endsWithOneOf, hasOneOf } from '../../base/characters.js';
import type { SourceRange } from '../../base/source.js';
import { declarationText } from '../../read/sheets/index.js';
import { PARTS, type Part, type PartNames, type SharedSheet } from '../../read/sheets/shared-sheet.js';
import type { SharedRule } from '../../search/index.js';
import type { Edit } from './edit.js';
import { newline } from './newline.js';
import { joinShorthands } from './shorthands.js';

/**
 * The edits that write rules into the shared sheet.
 * In: the sheet's text as it is (empty for a new one); the sheet; the rules. Out: insertions only.
 */
export function writeRules(
  text: string,
  { path, partNames: names }: SharedSheet,
  rules: readonly SharedRule[],
): Edit[] {
  const eol = newline(text);
  const indent = /\{[^{}]*?[\r\n]+([ \t]+)[^\s}]/.exec(text)?.[1] ?? '  ';
  if (isPlainSheet(text, names)) return writePlainly(text, { path, partNames: names }, rules, indent);
  const edits: Edit[] = [];
  let ending = '';
  let after = text.length;
  // From the last part to the first: a part that is new goes in front of the next one that the sheet has.
  for (const part of [...PARTS].reverse()) {
    const own = rules.filter((rule) => rule.part === part);
    const title = heading(names[part] ?? part);
    const start = text.indexOf(title);
    const body = joinConditions(
      own.map((rule) => ruleText(rule, path, indent, eol)),
      eol,
      eol,
    );
    if (start >= 0) {
      const end = endOfPart(text, start + title.length, names);
      if (own.length > 0) edits.push({ start: end, end, text: `${eol}${body}` });
      if (ending !== '') edits.push({ start: after, end: after, text: gapBefore(text, after, eol) + ending });
      ending = '';
      after = start;
    } else if (own.length > 0) {
      const next = ending !== '' || after < text.length ? eol : '';
      ending = `${title}${eol}${eol}${body}${next}${ending}`;
    }
  }
  if (ending !== '') edits.push({ start: after, end: after, text: gapBefore(text, after, eol) + ending });
  return withCharset(text, edits, eol);
}

/** Without a declared encoding a sheet is read in that of the page, whatever it is. */
function withCharset(text: string, edits: Edit[], eol: string): Edit[] {
  const written = edits.map((edit) => edit.text).join('');
  if (isAscii(written) || !isAscii(text)) return edits;
  return [{ start: 0, end: 0, text: `@charset "utf-8";${eol}` }, ...edits];
}

/** Whether a sheet is somebody's own, without the headings of parts: it keeps its form. */
function isPlainSheet(text: string, names: PartNames): boolean {
  if (text.trim() === '' || Object.values(names).some((name) => name !== undefined)) return false;
  return PARTS.every((part) => part === 'overrides' || !text.includes(heading(part)));
}

/** Names on top, rules at the end in the order of their parts; what overrides keeps its heading, by which it is found again. */
function writePlainly(
  text: string,
  { path, partNames }: SharedSheet,
  rules: readonly SharedRule[],
  indent: string,
): Edit[] {
  const eol = newline(text);
  const compact = isCompact(text);
  const gap = compact ? '' : eol;
  const shown = (part: Part): string =>
    joinConditions(
      rules.filter((rule) => rule.part === part).map((rule) => ruleText(rule, path, indent, eol, compact)),
      gap,
      eol,
    );
  const edits: Edit[] = [];
  const tokens = shown('tokens');
  if (tokens !== '') {
    const at = topOf(text);
    edits.push({ start: at, end: at, text: `${tokens}${eol}` });
  }
  const body = PARTS.filter((part) => part !== 'tokens' && part !== 'overrides')
    .map(shown)
    .filter((part) => part !== '')
    .join(gap);
  const overrides = shown('overrides');
  const title = heading('overrides');
  const known = text.indexOf(title);
  const end = known < 0 ? text.length : known;
  if (body !== '') {
    const before = text.slice(0, end).trimEnd().length;
    const rest = text.slice(before, end);
    const from = before + (/^(\r\n|\n|\r)/.exec(rest)?.[0].length ?? 0);
    edits.push({
      start: from,
      end: from,
      text: `${from === before ? eol : ''}${gap}${body}`,
    });
  }
  if (overrides !== '') {
    const at = known < 0 ? text.length : endOfPart(text, known + title.length, partNames);
    const lead = known >= 0 ? eol : `${endsWithOneOf(text, '\r\n') ? '' : eol}${eol}${title}${eol}${eol}`;
    edits.push({ start: at, end: at, text: `${lead}${overrides}` });
  }
  return withCharset(text, edits, eol);
}

/** Rules one after the other; what stands in the same conditions as the one before stands in one block with it. */
function joinConditions(texts: readonly string[], gap: string, eol: string): string {
  const joined: string[] = [];
  for (const text of texts) {
    const last = joined.at(-1);
    const open = /^@[^{]*\{\r?\n?/.exec(text)?.[0];
    const close = `}${eol}`;
    if (last !== undefined && open !== undefined && last.startsWith(open) && last.endsWith(close))
      joined[joined.length - 1] = `${last.slice(0, -close.length)}${gap}${text.slice(open.length)}`;
    else joined.push(text);
  }
  return joined.join(gap);
}

/** Behind what must come first in a sheet: its encoding, its imports, the comment that says what it is. */
function topOf(text: string): number {
  return /^(?:\s*(?:@(?:charset|import|layer|namespace)[^;{}]*;|\/\*[\s\S]*?\*\/(?=\s*(?:@(?:charset|import)|\r?\n\s*\r?\n))))*\s*/i.exec(
    text,
  )![0].length;
}

function gapBefore(text: string, at: number, eol: string): string {
  const before = text.slice(0, at);
  if (before.trim() === '' || at < text.length) return '';
  return endsWithOneOf(before, '\r\n') ? eol : eol + eol;
}

function isAscii(text: string): boolean {
  return !/[^\u0000-\u007f]/.test(text);
}

function heading(name: string): string {
  return `/* part: ${name} */`;
}

/** Where the rules of a part stand in the sheet's text; `undefined` where it has no such part. */
export function partRange(text: string, part: Part, names: PartNames = {}): SourceRange | undefined {
  const title = heading(names[part] ?? part);
  const start = text.indexOf(title);
  if (start < 0) return undefined;
  return { start: start + title.length, end: endOfPart(text, start + title.length, names) };
}

/** Takes the heading of a part out, once nothing stands under it. In: the sheet's text, without its last rule. */
export function emptyPart(text: string, part: Part, names: PartNames = {}): Edit | undefined {
  const range = partRange(text, part, names);
  if (range === undefined || text.slice(range.start, range.end).trim() !== '') return undefined;
  const title = heading(names[part] ?? part);
  const start = range.start - title.length;
  const before = /[ \t\r\n]*$/.exec(text.slice(0, start))?.[0].length ?? 0;
  const behind = /^[ \t\r\n]*/.exec(text.slice(range.start))?.[0].length ?? 0;
  const last = range.start + behind >= text.length;
  const eol = newline(text);
  const kept = start - before === 0 ? '' : last ? eol : eol + eol;
  return { start: start - before, end: range.start + behind, text: kept };
}

/** The offset behind a part's last line. */
function endOfPart(text: string, from: number, names: PartNames): number {
  const others = PARTS.map((part) => text.indexOf(heading(names[part] ?? part), from)).filter(
    (at) => at >= 0,
  );
  const body = text.slice(0, Math.min(text.length, ...others)).trimEnd();
  return body.length + (/^(\r\n|\n|\r)/.exec(text.slice(body.length))?.[0].length ?? 0);
}

/** Whether most rules of a sheet stand on one line each. */
export function isCompact(text: string): boolean {
  const rules = text.match(/\{[^{}]*:[^{}]*\}/g) ?? [];
  return rules.filter((one) => !hasOneOf(one, '\r\n')).length * 2 > rules.length;
}

/** One rule as it is written, with its line break; `compact` on one line. */
export function ruleText(
  { selectors, declarations, conditions = [] }: SharedRule,
  path: string,
  indent: string,
  eol: string,
  compact = false,
): string {
  const around = conditions.map((_, depth) => indent.repeat(depth));
  const margin = indent.repeat(conditions.length);
  if (compact) {
    const list = selectors.map((selector) => margin + selector).join(`,${eol}`);
    const said = joinShorthands(declarations).map(
      ({ declaration, holder }) => `${declarationText(declaration, holder, path)};`,
    );
    return [
      ...conditions.map((condition, depth) => `${around[depth]}${condition} {`),
      `${list} { ${said.join(' ')} }`,
      ...[...around].reverse().map((space) => `${space}}`),
      '',
    ].join(eol);
  }
  return [
    ...conditions.map((condition, depth) => `${around[depth]}${condition} {`),
    `${selectors.map((selector) => margin + selector).join(`,${eol}`)} {`,
    ...joinShorthands(declarations).map(
      ({ declaration, holder }) => `${margin}${indent}${declarationText(declaration, holder, path)};`,
    ),
    `${margin}}`,
    ...[...around].reverse().map((space) => `${space}}`),
    '',
  ].join(eol);
}
