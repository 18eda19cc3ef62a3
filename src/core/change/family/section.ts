// Where the rules of a family stand in a sheet: between two comments, the second of which tells what was written, so
// that what somebody changed by hand is noticed.

import { endsWithOneOf, hasOneOf, SPACE } from '../../base/characters.js';
import { withSingleSpaces } from '../../base/phrases.js';
import type { SourceRange } from '../../base/source.js';
import { type Edit, indentAt, newlineOf } from '../../edit/text/index.js';
import { parseSheet } from '../../read/sheets/index.js';
import { negated } from './off.js';
import type { FamilyRule, FamilyTable } from './table.js';

export interface SectionPlan {
  readonly edits: readonly Edit[];
  readonly written: readonly FamilyRule[];
  /** Rules of the table that stay as they are. */
  readonly same: number;
  /** Rules that somebody changed, added or took out between the comments: left as they are. */
  readonly byHand: readonly {
    readonly what: 'changed' | 'added' | 'taken out';
    readonly selector: string;
    readonly offset: number;
  }[];
}

interface SectionRule {
  readonly text: string;
  readonly offset: number;
  readonly selector: string;
}

/** In: the sheet's text; the rules that the table makes now. Out: edits that touch generated rules only. */
export function planSection(
  text: string,
  table: FamilyTable,
  source: string,
  rules: readonly FamilyRule[],
): SectionPlan {
  const eol = newlineOf(text);
  const indent = /\{[^{}]*?[\r\n]+([ \t]+)[^\s}]/.exec(text)?.[1] ?? '  ';
  const known = findSection(text, table.name);
  const fresh = rules.map((rule) => ({ rule, text: ruleText(rule, table.off, indent, eol) }));
  if (known === undefined) {
    const gap = text.trim() === '' ? '' : endsWithOneOf(text, '\r\n') ? eol : eol + eol;
    const body = sectionText(
      table.name,
      source,
      fresh.map((one) => one.text),
      fresh.map(({ rule, text: own }) => sum(rule.key, own)),
      eol,
    );
    return {
      edits: [{ start: text.length, end: text.length, text: gap + body + eol }],
      written: rules,
      same: 0,
      byHand: [],
    };
  }
  const { standing, sums, range } = known;
  const byKey = assign(standing, sums);
  const pieces: string[] = [];
  const kept: string[] = [];
  const written: FamilyRule[] = [];
  const byHand: SectionPlan['byHand'][number][] = [];
  let same = 0;
  for (const { rule, text: own } of fresh) {
    const key = hash(rule.key);
    const old = byKey.rules.get(key);
    const oldSum = sums.find((one) => one.key === key);
    if (old !== undefined && oldSum !== undefined && hash(old.text) !== oldSum.body) {
      byHand.push({ what: 'changed', selector: old.selector, offset: old.offset });
      pieces.push(old.text);
      kept.push(`${oldSum.key}${oldSum.body}`);
    } else if (old === undefined && oldSum !== undefined) {
      byHand.push({ what: 'taken out', selector: rule.selector, offset: range.start });
      kept.push(`${oldSum.key}${oldSum.body}`);
    } else {
      pieces.push(own);
      kept.push(sum(rule.key, own));
      if (old?.text === own) same++;
      else written.push(rule);
    }
  }
  // What is no longer in the table goes, unless a hand was at it.
  const wanted = new Set(fresh.map(({ rule }) => hash(rule.key)));
  for (const { key, body } of sums) {
    const old = byKey.rules.get(key);
    if (wanted.has(key) || old === undefined || hash(old.text) === body) continue;
    byHand.push({ what: 'changed', selector: old.selector, offset: old.offset });
    pieces.push(old.text);
    kept.push(`${key}${body}`);
  }
  for (const one of byKey.added) {
    byHand.push({ what: 'added', selector: one.selector, offset: one.offset });
    pieces.push(one.text);
  }
  const margin = indentAt(text, range.start);
  const body = sectionText(table.name, source, pieces, kept, eol);
  const before = text.slice(range.start, range.end);
  return {
    edits: before === body ? [] : [{ ...range, text: margin + body.trimStart() }],
    written,
    same,
    byHand,
  };
}

const END = /\/\* end of family ([\w-]+): ([\d a-f]*) \*\//g;

interface Section {
  readonly range: SourceRange;
  readonly standing: readonly SectionRule[];
  readonly sums: readonly { readonly key: string; readonly body: string }[];
}

export function findSection(text: string, name: string): Section | undefined {
  const start = text.indexOf(`/* family ${name}:`);
  if (start < 0) return undefined;
  const end = [...text.matchAll(END)].find((match) => match[1] === name && match.index > start);
  if (end === undefined) return undefined;
  const open = text.indexOf('*/', start) + 2;
  const inner = text.slice(open, end.index);
  const sums = (end[2] ?? '')
    .split(' ')
    .filter((one) => one.length === 12)
    .map((one) => ({ key: one.slice(0, 6), body: one.slice(6) }));
  return { range: { start, end: end.index + end[0].length }, standing: blocksOf(inner, open), sums };
}

/** The rules and groups that stand at the top of a text. */
function blocksOf(inner: string, offset: number): SectionRule[] {
  const found: SectionRule[] = [];
  let depth = 0;
  let start = -1;
  for (let at = 0; at < inner.length; at++) {
    const char = inner[at]!;
    if (start < 0 && hasOneOf(char, SPACE)) continue;
    if (start < 0) start = at;
    if (char === '{') depth++;
    if (char !== '}' || --depth > 0) continue;
    const text = inner.slice(start, at + 1);
    const selector = parseSheet(text).rules[0]?.selector ?? text.slice(0, 40);
    found.push({ text, offset: offset + start, selector });
    start = -1;
  }
  return found;
}

/** Which rule was written for which key: unchanged ones by their sums, the others by standing between the same ones. */
function assign(
  standing: readonly SectionRule[],
  sums: Section['sums'],
): { readonly rules: ReadonlyMap<string, SectionRule>; readonly added: readonly SectionRule[] } {
  const rules = new Map<string, SectionRule>();
  const added: SectionRule[] = [];
  let at = 0;
  let waiting: SectionRule[] = [];
  const settle = (until: number): void => {
    // As many as have a place here take it; the rest were put in by hand.
    for (; at < until; at++) {
      const next = waiting.shift();
      if (next !== undefined) rules.set(sums[at]!.key, next);
    }
    added.push(...waiting);
    waiting = [];
  };
  for (const one of standing) {
    const found = sums.findIndex(({ body }, i) => i >= at && body === hash(one.text));
    if (found < 0) {
      waiting.push(one);
      continue;
    }
    settle(found);
    rules.set(sums[found]!.key, one);
    at = found + 1;
  }
  settle(sums.length);
  return { rules, added };
}

function sectionText(
  name: string,
  source: string,
  pieces: readonly string[],
  sums: readonly string[],
  eol: string,
): string {
  const head = `/* family ${name}: made from ${source}; change that and run "acervus family ${source}" */`;
  return [head, ...pieces, `/* end of family ${name}: ${sums.join(' ')} */`].join(eol + eol);
}

function ruleText(
  { selector, declarations, off }: FamilyRule,
  medium: string | undefined,
  indent: string,
  eol: string,
): string {
  const margin = off ? indent : '';
  const lines = [
    `${margin}${selector} {`,
    ...declarations.map((one) => `${margin}${indent}${one};`),
    `${margin}}`,
  ];
  if (!off || medium === undefined) return lines.join(eol);
  const around = negated(medium) ?? [];
  return [...around.map((query) => `@media ${query} {`), ...lines, ...around.map(() => '}')].join(eol);
}

function sum(key: string, text: string): string {
  return hash(key) + hash(text);
}

/** Six hexadecimal digits of FNV-1a (http://www.isthe.com/chongo/tech/comp/fnv/), line ends and space aside. */
function hash(text: string): string {
  let value = 0x811c9dc5;
  for (const char of withSingleSpaces(text))
    value = Math.imul(value ^ char.codePointAt(0)!, 0x01000193) >>> 0;
  return value.toString(16).padStart(8, '0').slice(2);
}
