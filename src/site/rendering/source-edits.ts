// Changes of a sheet that a preprocessor makes, made in its sources: each declaration where it is written, and proven by
// compiling again, to the letter of what was asked.

import { BoundedMap } from '../../core/base/bounded.js';
import { withSingleSpaces } from '../../core/base/phrases.js';
import { type Place, placeIn, showPlace } from '../../core/base/source.js';
import { UsageError } from '../../core/base/usage-error.js';
import { writtenClasses } from '../../core/cascade/index.js';
import { applyEdits, type Edit, newlineOf } from '../../core/edit/text/index.js';
import { type Declaration, parseSheet, type StyleRule } from '../../core/read/sheets/index.js';
import { compiledWithMap } from '../files/compiled.js';
import type { SiteFiles } from '../files/files.js';
import { withTexts } from '../files/overlay.js';
import { isSameSheet, type SheetSource } from './compiled-sheets.js';
import { type SourcePlace, SourcePlaces } from './source-places-of-sheets.js';

export interface SourceChange {
  readonly file: string;
  readonly text: string;
  readonly edits: readonly Edit[];
}

/** One declaration of a rule, as it is and as it is to be. */
interface Wanted {
  readonly old: Declaration | undefined;
  readonly fresh: Declaration | undefined;
  /** The one that a new declaration stands behind. */
  readonly behind: Declaration | undefined;
}

/** A sheet that is to be another one. */
export interface SheetChange {
  readonly sheet: string;
  readonly source: SheetSource;
  readonly before: string;
  readonly after: string;
}

/** In: whose sources may be edited. Throws `UsageError` where they cannot say what is asked. */
export function inSources(
  files: SiteFiles,
  { sheet, source: { entry, without }, before, after }: SheetChange,
  isOwn: (source: string) => boolean,
): SourceChange[] {
  const compiled = compiledWithMap(files, entry, without);
  const refuse = (why: string, place: Place = { path: entry, line: 1, column: 1 }): UsageError =>
    new UsageError('not-in-source', { place: showPlace(place), why });
  if (compiled === undefined || !isSameSheet(compiled.css, before))
    throw refuse(`${sheet} is not what it compiles to`);
  const name = renameBetween(before, after);
  const wanted = changesBetween(before, after);
  if (name === undefined && wanted === undefined) throw refuse('it would need a rule of its own');
  const changes =
    name === undefined
      ? declared(new SourcePlaces(files, compiled, before), wanted ?? [], isOwn, refuse)
      : renamed(files, compiled.files.filter(isOwn), name);
  const made = compiledWithMap(filesWith(files, changes), entry, without);
  if (made === undefined || !isSameSheet(made.css, after)) {
    const [first] = changes;
    const at = first?.edits[0]?.start ?? 0;
    const why =
      name === undefined
        ? 'what is written there makes more than this one declaration'
        : first === undefined
          ? `.${name.old} is written out nowhere`
          : `more than .${name.old} is made of that name`;
    throw refuse(why, first && placeIn(first.file, first.text, at));
  }
  return changes;
}

/** Declarations, each changed where it is written. In: how the change is refused. */
function declared(
  sourcePlaces: SourcePlaces,
  wanted: readonly Wanted[],
  isOwn: (source: string) => boolean,
  refuse: (why: string, place?: Place) => UsageError,
): SourceChange[] {
  const texts = new Map<string, string>();
  const edits = new Map<string, Edit[]>();
  let last: Place | undefined;
  for (const one of wanted) {
    const anchor = one.old ?? one.behind;
    const sourcePlace = anchor && sourcePlaces.of(anchor);
    if (sourcePlace === undefined)
      throw refuse('nothing there is written out that it could stand beside', last);
    last = placeIn(sourcePlace.file, sourcePlace.text, sourcePlace.start);
    if (!isOwn(sourcePlace.file)) throw refuse('that source is not yours to edit', last);
    const writer = writerAround(sourcePlace.text, sourcePlace.start);
    if (writer !== undefined) throw refuse(`${writer} writes it`, last);
    texts.set(sourcePlace.file, sourcePlace.text);
    const own = edits.get(sourcePlace.file) ?? [];
    own.push(editOf(one, sourcePlace));
    edits.set(sourcePlace.file, own);
  }
  const changes = [...edits].map(([file, own]): SourceChange => {
    const once = [...new Map(own.map((edit) => [`${edit.start} ${edit.end} ${edit.text}`, edit])).values()];
    return { file, text: texts.get(file)!, edits: once.sort((a, b) => a.start - b.start) };
  });
  if (changes.some(({ edits: own }) => own.some(({ start }, at) => at > 0 && start < own[at - 1]!.end)))
    throw refuse('two declarations there are written as one', last);
  return changes;
}

interface NewName {
  readonly old: string;
  readonly fresh: string;
}

/** The class that has another name in the second of two sheets; `undefined` where that is not all. */
function renameBetween(before: string, after: string): NewName | undefined {
  const namesIn = (text: string): string[] =>
    parseSheet(text).rules.flatMap(({ nesting }) =>
      nesting.flatMap((one) => writtenClasses(one).map(({ name }) => name)),
    );
  const [was, is] = [new Set(namesIn(before)), new Set(namesIn(after))];
  const [old, ...gone] = [...was].filter((name) => !is.has(name));
  const [fresh, ...come] = [...is].filter((name) => !was.has(name));
  const isOne = old !== undefined && fresh !== undefined && gone.length + come.length === 0;
  return isOne ? { old, fresh } : undefined;
}

/** A class under another name in all sources, wherever it stands as one: in selectors, and in what extends it. */
function renamed(files: SiteFiles, sources: readonly string[], { old, fresh }: NewName): SourceChange[] {
  const word = old.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const found = new RegExp(`${TOKENS.source}|\\.${word}(?![\\w-])`, 'g');
  return sources.flatMap((file) => {
    const text = files.read(file)?.toString('utf8') ?? '';
    const edits = [...text.matchAll(found)].flatMap(({ 0: token, index }) =>
      token === `.${old}` ? { start: index + 1, end: index + token.length, text: fresh } : [],
    );
    return edits.length === 0 ? [] : { file, text, edits };
  });
}

/** The files of a site once changes are made. */
export function filesWith(files: SiteFiles, changes: readonly SourceChange[]): SiteFiles {
  return withTexts(files, new Map(changes.map(({ file, text, edits }) => [file, applyEdits(text, edits)])));
}

/** Out: `undefined` where a rule came or went. */
function changesBetween(before: string, after: string): Wanted[] | undefined {
  const [old, fresh] = [parseSheet(before).rules, parseSheet(after).rules];
  if (old.length !== fresh.length) return undefined;
  const found: Wanted[] = [];
  for (const [at, rule] of old.entries()) {
    const other = fresh[at]!;
    if (rule.nesting.join('\n') !== other.nesting.join('\n')) return undefined;
    found.push(...changesOf(rule, other));
  }
  return found;
}

function changesOf({ declarations }: StyleRule, other: StyleRule): Wanted[] {
  const found: Wanted[] = [];
  let from = 0;
  const letGo = (to: number): void => {
    for (const old of declarations.slice(from, to)) found.push({ old, fresh: undefined, behind: undefined });
    from = to;
  };
  for (const fresh of other.declarations) {
    const at = declarations.findIndex(({ property }, own) => own >= from && property === fresh.property);
    if (at < 0) {
      found.push({ old: undefined, fresh, behind: declarations[from - 1] });
      continue;
    }
    letGo(at);
    const old = declarations[at]!;
    if (said(old) !== said(fresh)) found.push({ old, fresh, behind: undefined });
    from = at + 1;
  }
  letGo(declarations.length);
  return beside(found, declarations[0]);
}

/** What is to stand in front of all takes the place of one that goes, or stands behind the first. */
function beside(wanted: readonly Wanted[], first: Declaration | undefined): Wanted[] {
  const gone = wanted.filter(({ fresh }) => fresh === undefined);
  return wanted.flatMap((one) => {
    if (one.fresh === undefined) return gone.includes(one) ? one : [];
    if (one.old !== undefined || one.behind !== undefined) return one;
    const { old } = gone.shift() ?? {};
    return { ...one, old, behind: old === undefined ? first : undefined };
  });
}

function said({ value, important }: Declaration): string {
  return `${value}${important ? ' !important' : ''}`;
}

/** What writes a declaration wherever it is asked for: such are read, and not edited. */
export function writerAround(text: string, offset: number): string | undefined {
  return writersIn(text).find(({ start, end }) => start < offset && offset < end)?.prelude;
}

interface Writer {
  readonly prelude: string;
  readonly start: number;
  readonly end: number;
}

const writers = new BoundedMap<string, readonly Writer[]>(200);

/** The outermost first. */
function writersIn(text: string): readonly Writer[] {
  return writers.get(text, () => {
    const found: Writer[] = [];
    const open: { readonly prelude: string; readonly start: number }[] = [];
    let from = 0;
    for (const { 0: token, index } of text.matchAll(TOKENS)) {
      if (token === '{') open.push({ prelude: text.slice(from, index).trim(), start: index });
      const last = token === '}' ? open.pop() : undefined;
      if (last !== undefined && WRITES.test(last.prelude))
        found.push({ prelude: withSingleSpaces(last.prelude), start: last.start, end: index });
      if (/^[{};]$/.test(token)) from = index + 1;
    }
    return found.sort((a, b) => a.start - b.start);
  });
}

const WRITES = /^(?:@(?:mixin|function|each|for|while)\b|=|%|[.#][\w-]+\s*\()/;
const TOKENS = /"(?:[^"\\]|\\[\s\S])*"|'(?:[^'\\]|\\[\s\S])*'|\/\*[\s\S]*?\*\/|\/\/[^\n]*|#\{[^}]*\}|[{};]/g;

function editOf({ old, fresh }: Wanted, { text, start, value, isIndented }: SourcePlace): Edit {
  const ends = /^\s*;/.exec(text.slice(value.end))?.[0].length ?? 0;
  if (old !== undefined && fresh !== undefined)
    return old.property === fresh.property
      ? { ...value, text: said(fresh) }
      : { start, end: value.end, text: `${fresh.property}: ${said(fresh)}` };
  const line = /(?:^|[\r\n])([ \t]*)$/.exec(text.slice(0, start));
  if (old !== undefined) {
    const after = /^[ \t]*(?:\r\n|\n|\r)/.exec(text.slice(value.end + ends))?.[0].length ?? 0;
    const isAlone = line !== null && after > 0;
    const before = isAlone ? line[1]!.length : /[ \t]*$/.exec(text.slice(0, start))![0].length;
    return { start: start - before, end: value.end + ends + (isAlone ? after : 0), text: '' };
  }
  const gap = line === null ? ' ' : newlineOf(text) + line[1]!;
  const at = value.end + ends;
  const [before, behind] = isIndented ? ['', ''] : [ends === 0 ? ';' : '', ';'];
  return { start: at, end: at, text: `${before}${gap}${fresh!.property}: ${said(fresh!)}${behind}` };
}
