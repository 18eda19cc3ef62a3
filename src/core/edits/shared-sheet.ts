// How rules are written into the shared sheet: in named parts, in the sheet's own formatting.

import { addressFrom, resolveAddress } from '../addresses.js';
import type { Declaration } from '../sheets/index.js';
import type { Edit } from './edit.js';
import { newline } from './link.js';

export type Part = 'layout' | 'components';

/** A declaration, and the path of the file that its addresses are relative to. */
export interface Placed {
  readonly declaration: Declaration;
  readonly holder: string;
}

export interface SharedRule {
  readonly selector: string;
  readonly part: Part;
  readonly declarations: readonly Placed[];
}

const PART_ORDER: readonly Part[] = ['layout', 'components'];

const LAYOUT =
  /^(margin|padding|width|height|min-|max-|display|float|clear|position|top|right|bottom|left|inset|flex|grid|gap|row-gap|column-gap|align|justify|place|order|overflow|box-sizing|vertical-align|z-index|table-layout)/;

/** Styles that only place and size things are layout; all others are components. */
export function partOf(declarations: readonly Declaration[]): Part {
  return declarations.every(({ property }) => LAYOUT.test(property)) ? 'layout' : 'components';
}

/**
 * The edits that write rules into the shared sheet.
 * In: the sheet's text as it is (empty for a new one), its path, the rules. Out: insertions only: what stands there
 * stays as it is.
 */
export function writeRules(text: string, path: string, rules: readonly SharedRule[]): Edit[] {
  const eol = newline(text);
  const indent = /\{[^{}]*?[\r\n]+([ \t]+)[^\s}]/.exec(text)?.[1] ?? '  ';
  const edits: Edit[] = [];
  let ending = '';
  for (const part of PART_ORDER) {
    const own = rules.filter((rule) => rule.part === part);
    if (own.length === 0) continue;
    const body = own.map((rule) => ruleText(rule, path, indent, eol)).join(eol);
    const at = endOfPart(text, part);
    if (at !== undefined) edits.push({ start: at, end: at, text: `${eol}${body}` });
    else ending += `${ending === '' && text.trim() === '' ? '' : eol}${heading(part)}${eol}${eol}${body}`;
  }
  // Without a declared encoding a sheet is read in that of the page, whatever it is.
  const written = edits.map((edit) => edit.text).join('') + ending;
  if (!isAscii(written) && isAscii(text)) edits.push({ start: 0, end: 0, text: `@charset "utf-8";${eol}` });
  if (ending !== '') {
    const gap = text === '' || /[\r\n]$/.test(text) ? '' : eol;
    edits.push({ start: text.length, end: text.length, text: gap + ending });
  }
  return edits;
}

function isAscii(text: string): boolean {
  return !/[^\u0000-\u007f]/.test(text);
}

function heading(part: Part): string {
  return `/* part: ${part} */`;
}

/** The offset behind a part's last line, `undefined` where the sheet has no such part. */
function endOfPart(text: string, part: Part): number | undefined {
  const start = text.indexOf(heading(part));
  if (start < 0) return undefined;
  const next = /\/\* part: [a-z]+ \*\//g;
  next.lastIndex = start + heading(part).length;
  const following = next.exec(text)?.index ?? text.length;
  const body = text.slice(0, following).trimEnd();
  return body.length + (/^(\r\n|\n|\r)/.exec(text.slice(body.length))?.[0].length ?? 0);
}

function ruleText({ selector, declarations }: SharedRule, path: string, indent: string, eol: string): string {
  const lines = declarations.map(
    ({ declaration, holder }) => `${indent}${declarationText(declaration, holder, path)};`,
  );
  return [`${selector} {`, ...lines, '}', ''].join(eol);
}

/** `property: value !important`, its addresses rewritten so that they lead from the sheet where they led from the page. */
export function declarationText(
  { property, value, important }: Declaration,
  holder: string,
  path: string,
): string {
  const written = value
    .replace(/\s*[\r\n]\s*/g, ' ')
    .replace(/url\(\s*(?:"([^"]*)"|'([^']*)'|([^"'()\s]+))\s*\)/gi, (whole, double, single, bare) => {
      const address: string = double ?? single ?? bare;
      const resolved = resolveAddress(address, holder);
      if (resolved.kind !== 'site') return whole;
      const quote = double !== undefined ? '"' : single !== undefined ? "'" : '';
      return `url(${quote}${addressFrom(path, resolved.path)}${resolved.suffix}${quote})`;
    });
  return `${property}: ${written}${important ? ' !important' : ''}`;
}
