// What people wrote in the sources of a preprocessor: each declaration once, where it stands, whatever is made of it.

import { parseSheet, type Sheet, type StyleRule } from '../../core/sheets/index.js';
import { compiledWithMap } from '../files/compiled.js';
import { ownSources } from './compiled-sheets.js';
import { Origins } from './origins-of-sheets.js';
import type { SheetOwner, SiteReader } from './reader.js';

/** In: the sheets that pages use. Out: by source, its rules with what is written in them. */
export function writtenInSources(reader: SiteReader, sheets: readonly SheetOwner[]): Map<string, Sheet> {
  const seen = new Set<string>();
  const found = new Map<string, StyleRule[]>();
  const isOwn = ownSources(reader.config);
  for (const { path, owner } of sheets) {
    const source = owner === 'platform' ? reader.compiled.sourceOf(path, isOwn) : undefined;
    const made = source && compiledWithMap(reader.files, source.entry, source.without);
    if (made === undefined) continue;
    const origins = new Origins(reader.files, made, made.css);
    for (const rule of parseSheet(made.css).rules)
      for (const [file, own] of writtenOf(rule, origins, seen)) {
        if (!isOwn(file)) continue;
        const rules = found.get(file) ?? [];
        found.set(file, rules);
        rules.push(own);
      }
  }
  const empty = parseSheet('');
  return new Map(
    [...found].map(([file, rules]) => [
      file,
      { ...empty, text: reader.files.read(file)?.toString('utf8') ?? '', rules },
    ]),
  );
}

/** A rule as far as each source writes it, what was seen before left out. */
function writtenOf(rule: StyleRule, origins: Origins, seen: Set<string>): Map<string, StyleRule> {
  const found = new Map<string, StyleRule>();
  for (const declaration of rule.declarations) {
    const origin = origins.of(declaration);
    const key = `${origin?.file} ${origin?.start}`;
    if (origin === undefined || seen.has(key)) continue;
    seen.add(key);
    const { file, text, start, value } = origin;
    const written = text.slice(value.start, value.end).replace(/\s*!\s*(?:important|default|global)\b/gi, '');
    const known = found.get(file) ?? { ...rule, declarations: [] };
    const own = { ...declaration, value: written.trim(), range: { start, end: value.end } };
    found.set(file, { ...known, declarations: [...known.declarations, own] });
  }
  return found;
}
