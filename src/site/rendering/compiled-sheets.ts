// Sheets that a preprocessor makes of sources in the site. What is made is read; rules go into a part of our own that the source
// takes in last, and what is made is made anew.

import path from 'node:path';
import { generate, parse, walk } from 'css-tree/dist/csstree.esm';
import { endsWithOneOf } from '../../core/base/characters.js';
import { getOrInsert } from '../../core/base/get-or-insert.js';
import { UsageError } from '../../core/base/usage-error.js';
import { applyEdits, type Edit, newlineOf } from '../../core/edit/text/index.js';
import { isCompiled, isStyleSheet, sheetStem } from '../../core/read/kinds/index.js';
import type { Config } from '../config.js';
import { compiledText, type OutputStyle } from '../files/compiled.js';
import type { SiteFiles } from '../files/files.js';
import { withTexts } from '../files/overlay.js';
import { ownerByName, ownerByText } from '../files/owner.js';

export interface CompiledSheet {
  /** What pages link. */
  readonly built: string;
  /** What it is made of. */
  readonly source: string;
  /** Our own part of it, there or not. */
  readonly part: string;
  readonly style: OutputStyle;
  /** Whether the source takes it in already. */
  readonly isTaken: boolean;
}

/** What a sheet is made of. */
export interface SheetSource {
  /** What the compiler is given. */
  readonly entry: string;
  /** A part of our own that is looked at by itself. */
  readonly without: string | undefined;
}

/** Which sources are the site's own: those of its packages are, where several lie in one site; releases of others are not. */
export function ownSources(config: Config, files: SiteFiles): (source: string) => boolean {
  const known = new Map<string, boolean>();
  const isRelease = (file: string): boolean =>
    getOrInsert(known, file, () => {
      const read = (): string | undefined => files.read(file)?.toString('utf8');
      return ownerByText(file, read, files).owner === 'platform';
    });
  const isPlatform = (file: string): boolean => {
    const found = ownerByName(config, file);
    if (found?.because === 'folder packages') return isPlatform(file.replace(/(^|\/)packages\//g, '$1'));
    return found?.owner === 'platform';
  };
  return (source) => !source.startsWith('node_modules/') && !isPlatform(source) && !isRelease(source);
}

/** So many sources of one name are tried. */
const MOST = 6;

export class CompiledSheets {
  readonly #known = new Map<string, CompiledSheet | 'none'>();

  constructor(readonly files: SiteFiles) {}

  /** How a sheet is made; `undefined` where it is none of a preprocessor's, or not what its source makes now. */
  of(built: string): CompiledSheet | undefined {
    if (!isStyleSheet(built)) return undefined;
    let found = this.#known.get(built);
    if (found === undefined) {
      found = this.#find(built) ?? 'none';
      this.#known.set(built, found);
    }
    return found === 'none' ? undefined : found;
  }

  /** What the sources of a sheet are, where changes of it can be made in them: those of the site's own. */
  sourceOf(sheet: string, isOwn: (source: string) => boolean): SheetSource | undefined {
    if (isCompiled(sheet))
      return this.isPart(sheet) || !isOwn(sheet) ? undefined : { entry: sheet, without: undefined };
    const made = this.of(sheet);
    if (made === undefined || !isOwn(made.source)) return undefined;
    return { entry: made.source, without: made.isTaken ? made.part : undefined };
  }

  /** Whether a file is a part of our own. */
  isPart(file: string): boolean {
    if (!isCompiled(file)) return false;
    for (const one of this.#known.values()) if (one !== 'none' && one.part === file) return true;
    return false;
  }

  /** What a built sheet says without our own part. */
  textWithout({ source, part, style }: CompiledSheet): string | undefined {
    return compiledText(this.files, source, { style, without: part });
  }

  /** Sources that a sheet is named as, nearest by first: one that was edited since, or that more is done to, makes it no more. */
  sourcesOf(built: string): string[] {
    const stem = sheetStem(path.posix.basename(built));
    return this.files
      .list()
      .filter((file) => isCompiled(file) && path.posix.basename(file).replace(/\.\w+$/, '') === stem)
      .slice(0, MOST);
  }

  #find(built: string): CompiledSheet | undefined {
    const text = this.files.read(built)?.toString('utf8');
    if (text === undefined) return undefined;
    // Pressed sheets stand on a line or two.
    const isPressed = withoutMap(text).trim().split('\n').length <= 2;
    const styles: readonly OutputStyle[] = isPressed
      ? ['compressed', 'expanded']
      : ['expanded', 'compressed'];
    for (const source of this.sourcesOf(built))
      for (const style of styles) {
        const made = compiledText(this.files, source, { style });
        // Whatever the style, there are as many blocks.
        if (made === undefined || blocksIn(made) !== blocksIn(text)) break;
        if (made.trim() === withoutMap(text).trim() || isSameSheet(made, text))
          return { built, source, style, ...this.#partOf(source) };
      }
    return undefined;
  }

  #partOf(source: string): Pick<CompiledSheet, 'part' | 'isTaken'> {
    const text = this.files.read(source)?.toString('utf8') ?? '';
    const ending = path.posix.extname(source);
    const parts = ['shared', 'house'].map((name) => ({
      part: path.posix.join(path.posix.dirname(source), `_${name}${ending}`),
      isTaken: lineFor(name, text, ending).some((line) => text.includes(line)),
    }));
    const isFree = ({ part }: { readonly part: string }): boolean => this.files.read(part) === undefined;
    return parts.find((one) => one.isTaken) ?? parts.find(isFree) ?? parts[0]!;
  }
}

/** How a source takes in a part: as its other lines do. Out: the lines, each at its place. */
function lineFor(name: string, text: string, ending: string): string[] {
  // Less knows a part by the whole of its name.
  if (ending.toLowerCase() === '.less') return [`@import '_${name}'`, `@import "_${name}"`];
  return isOfModules(text)
    ? [`@include meta.load-css('${name}')`]
    : [`@import '${name}'`, `@import "${name}"`];
}

function isOfModules(text: string): boolean {
  return /^\s*@(use|forward)\b/m.test(text);
}

/** What changes with a part of our own: the source that takes it in, and what is made of it. */
export interface Remade {
  readonly file: string;
  readonly text: string;
  readonly edits: readonly Edit[];
}

/** In: the files; how the sheet is made; the text of our part as it is to be. Throws `UsageError` where other CSS would come of it. */
export function remake(files: SiteFiles, sheet: CompiledSheet, part: string): Remade[] {
  const { source, built } = sheet;
  const text = files.read(source)?.toString('utf8') ?? '';
  const edits = sheet.isTaken ? [] : takeIn(text, sheet);
  const after = withTexts(
    files,
    new Map([
      [source, applyEdits(text, edits)],
      [sheet.part, part],
    ]),
  );
  // Pressed sheets write values in other words.
  const before = compiledText(files, source, { without: sheet.part }) ?? '';
  const plain = compiledText(after, source);
  if (plain === undefined || !isSameSheet(plain, `${before}\n${part}`))
    throw new UsageError('compiled-differs', { source, built });
  const result: Remade[] = edits.length === 0 ? [] : [{ file: source, text, edits }];
  return [...result, ...rebuilt(files, after, sheet)];
}

/** What pages link, made of the sources as they are to be. */
export function rebuilt(
  files: SiteFiles,
  after: SiteFiles,
  { source, built, style }: CompiledSheet,
): Remade[] {
  const old = files.read(built)?.toString('utf8') ?? '';
  const made = compiledText(after, source, { style }) ?? '';
  const whole = made + (old.endsWith('\n') ? '\n' : '') + mapLine(old);
  return whole === old ? [] : [{ file: built, text: old, edits: [endEdit(old, whole)] }];
}

/** One edit that leaves what two texts begin with. */
function endEdit(old: string, whole: string): Edit {
  let same = 0;
  while (same < old.length && same < whole.length && old[same] === whole[same]) same++;
  return { start: same, end: old.length, text: whole.slice(same) };
}

function partName({ part }: CompiledSheet): string {
  return path.posix.basename(part).replace(/^_|\.\w+$/g, '');
}

function takeIn(text: string, sheet: CompiledSheet): Edit[] {
  const eol = newlineOf(text);
  const lead = text === '' || endsWithOneOf(text, '\r\n') ? '' : eol;
  const [line = ''] = lineFor(partName(sheet), text, path.posix.extname(sheet.source));
  const edits: Edit[] = [{ start: text.length, end: text.length, text: `${lead}${line};${eol}` }];
  if (!isOfModules(text) || /@use\s+["']sass:meta["']/.test(text)) return edits;
  const first = /^[ \t]*@(use|forward)\b/m.exec(text)?.index ?? 0;
  return [{ start: first, end: first, text: `@use 'sass:meta';${eol}` }, ...edits];
}

function blocksIn(text: string): number {
  return text.replace(/\/\*[\s\S]*?\*\//g, '').split('{').length;
}

const MAP = /\s*\/\*[#@]\s*sourceMappingURL=[^*]*\*\/\s*$/;

function withoutMap(text: string): string {
  return text.replace(MAP, '');
}

function mapLine(text: string): string {
  return MAP.exec(text)?.[0].trimStart() ?? '';
}

/** Whether two sheets say the same, whatever space and comments they are written with. */
export function isSameSheet(one: string, other: string): boolean {
  return formOf(one) === formOf(other);
}

function formOf(text: string): string {
  try {
    const tree = parse(text.replace(/^\uFEFF|@charset[^;]*;/g, ''), { parseCustomProperty: false });
    walk(tree, (node, item, list) => {
      if (node.type === 'Comment') list?.remove(item);
    });
    return generate(tree);
  } catch {
    return text;
  }
}
