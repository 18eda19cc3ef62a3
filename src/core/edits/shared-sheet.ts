// How rules are written into the shared sheet: in named parts, in the sheet's own formatting. What stands there stays.

import { PARTS, type Part, type PartNames, type SharedSheet } from '../parts.js';
import type { SharedRule } from '../search/index.js';
import { declarationText } from '../sheets/index.js';
import type { SourceRange } from '../source.js';
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
  const edits: Edit[] = [];
  let ending = '';
  let after = text.length;
  // From the last part to the first: a part that is new goes in front of the next one that the sheet has.
  for (const part of [...PARTS].reverse()) {
    const own = rules.filter((rule) => rule.part === part);
    const title = heading(names[part] ?? part);
    const start = text.indexOf(title);
    const body = own.map((rule) => ruleText(rule, path, indent, eol)).join(eol);
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
  // Without a declared encoding a sheet is read in that of the page, whatever it is.
  const written = edits.map((edit) => edit.text).join('');
  if (isAscii(written) || !isAscii(text)) return edits;
  return [{ start: 0, end: 0, text: `@charset "utf-8";${eol}` }, ...edits];
}

function gapBefore(text: string, at: number, eol: string): string {
  const before = text.slice(0, at);
  if (before.trim() === '' || at < text.length) return '';
  return /[\r\n]$/.test(before) ? eol : eol + eol;
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

/** One rule as it is written, with its line break. */
export function ruleText(
  { selectors, declarations, conditions = [] }: SharedRule,
  path: string,
  indent: string,
  eol: string,
): string {
  const around = conditions.map((_, depth) => indent.repeat(depth));
  const margin = indent.repeat(conditions.length);
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
