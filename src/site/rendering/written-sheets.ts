// What people wrote in the sources of a preprocessor: each declaration once, where it stands, whatever is made of it.

import { type Place, placeIn } from '../../core/base/source.js';
import { parseSheet, type Sheet, type StyleRule } from '../../core/read/sheets/index.js';
import type { Config } from '../config.js';
import { ownSheets } from '../factoring/imports.js';
import { compiledWithMap } from '../files/compiled.js';
import type { SiteFiles } from '../files/files.js';
import { ownSources, type SheetSource } from './compiled-sheets.js';
import type { SheetOwner } from './reader.js';
import { SourcePlaces } from './source-places-of-sheets.js';

/** A site whose sheets are known, with the sheets that its pages use. */
interface Sheets {
  readonly files: SiteFiles;
  readonly sheets: readonly SheetOwner[];
  readonly config: Config;
  readonly sourceOf: (sheet: string) => SheetSource | undefined;
}

/** Out: by source, its rules with what is written in them. */
export function writtenInSources({ files, sheets, config, sourceOf }: Sheets): Map<string, Sheet> {
  const seen = new Set<string>();
  const found = new Map<string, StyleRule[]>();
  const isOwn = ownSources(config, files);
  const used = sheets.flatMap(({ path, owner }) => (owner === 'platform' ? (sourceOf(path) ?? []) : []));
  // A kit of components leaves it to others to link what is made of its sources.
  const alone = used.length > 0 ? [] : ownSheets(files, isOwn).roots;
  for (const source of [...used, ...alone.map((entry) => ({ entry, without: undefined }))]) {
    const made = compiledWithMap(files, source.entry, source.without);
    if (made === undefined) continue;
    for (const file of made.files) if (isOwn(file)) found.set(file, found.get(file) ?? []);
    const sourcePlaces = new SourcePlaces(files, made, made.css);
    for (const rule of parseSheet(made.css).rules)
      for (const [file, own] of writtenOf(rule, sourcePlaces, seen)) {
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
      { ...empty, text: files.read(file)?.toString('utf8') ?? '', rules },
    ]),
  );
}

/** A rule as far as each source writes it, what was seen before left out. */
function writtenOf(rule: StyleRule, sourcePlaces: SourcePlaces, seen: Set<string>): Map<string, StyleRule> {
  const found = new Map<string, StyleRule>();
  for (const declaration of rule.declarations) {
    const sourcePlace = sourcePlaces.of(declaration);
    const key = `${sourcePlace?.file} ${sourcePlace?.start}`;
    if (sourcePlace === undefined || seen.has(key)) continue;
    seen.add(key);
    const { file, text, start, value } = sourcePlace;
    const written = text.slice(value.start, value.end).replace(/\s*!\s*(?:important|default|global)\b/gi, '');
    const known = found.get(file) ?? { ...rule, declarations: [] };
    const own = { ...declaration, value: written.trim(), range: { start, end: value.end } };
    found.set(file, { ...known, declarations: [...known.declarations, own] });
  }
  return found;
}

/** A variable of a preprocessor. */
export interface Variable {
  /** With its sign. */
  readonly name: string;
  readonly value: string;
  readonly place: Place;
  /** How often it is asked for in these sources. */
  readonly uses: number;
}

/** In: the sources of a site, whose rules stand in them. */
export function variablesIn(sources: ReadonlyMap<string, Sheet>): Variable[] {
  const all = [...sources.values()].map(({ text }) => text).join('\n');
  return [...sources].flatMap(([file, { text }]) =>
    [...text.matchAll(VARIABLE)].map(({ 0: whole, 1: name = '', 2: value = '', index }): Variable => {
      const asked = new RegExp(`${name.replace('$', '\\$')}(?![\\w-])`, 'g');
      return {
        name,
        value,
        place: placeIn(file, text, index + whole.indexOf(name)),
        uses: [...all.matchAll(asked)].length - 1,
      };
    }),
  );
}

/** Less spells names of its own like at-rules, with a colon behind them. */
const VARIABLE = /^[ \t]*([$@][\w-]+)[ \t]*:[ \t]*([^;{}\r\n]+?)[ \t]*(?:!default[ \t]*)?(?:;|$)/gm;
