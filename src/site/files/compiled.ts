// Sheets of a preprocessor, as its own compiler makes them.

import { createRequire } from 'node:module';
import path from 'node:path';
import type { CompileResult } from 'sass';
import { BoundedMap } from '../../core/bounded.js';
import { type CompileOptions, type Files, isInside } from './compile-options.js';
import type { SiteFiles } from './files.js';
import { lessText } from './less.js';

export type { OutputStyle } from './compile-options.js';

const load = createRequire(import.meta.url);

/** Endings of sheets that are made CSS of. */
export const PREPROCESSED: readonly string[] = ['scss', 'sass', 'less', 'styl', 'pcss'];

export function isCompiled(file: string): boolean {
  return /\.(scss|sass|less)$/i.test(file);
}

const SITE = 'site:';

/**
 * In: the files of a site, and the path of a sheet among them. Out: the CSS that comes of it; `undefined` where the compiler
 * takes it not, as a part that only stands in others.
 */
export function compiledText(
  files: SiteFiles,
  file: string,
  { style = 'expanded', without }: CompileOptions = {},
): string | undefined {
  const text = files.read(file)?.toString('utf8');
  if (text === undefined) return undefined;
  if (!/\.less$/i.test(file)) return sassResult(files, file, text, { style, without })?.css;
  const made = lessText(files, file, text, { style, without });
  if ('css' in made) return made.css;
  problems.set(file, `cannot be compiled${made.problem}`);
  return undefined;
}

/** A sheet with the map that tells where each of its declarations is written. */
export interface CompiledMap {
  readonly css: string;
  /** As JSON. */
  readonly map: string;
  /** The file of the site that a source of the map is. */
  readonly fileOf: (source: string) => string;
  /** All files that something of it is written in. */
  readonly files: readonly string[];
}

/** The same with a map. */
export function compiledWithMap(
  files: SiteFiles,
  file: string,
  without: string | undefined,
): CompiledMap | undefined {
  const text = files.read(file)?.toString('utf8');
  if (text === undefined) return undefined;
  const isLess = /\.less$/i.test(file);
  const made = isLess
    ? lessText(files, file, text, { without }, true)
    : sassResult(files, file, text, { without }, true);
  const map = made === undefined || 'problem' in made ? undefined : 'map' in made ? made.map : made.sourceMap;
  if (made === undefined || 'problem' in made || map === undefined) return undefined;
  const fileOf = (source: string): string =>
    isLess ? path.posix.join(path.posix.dirname(file), source) : decodeURIComponent(new URL(source).pathname);
  const read: { readonly sources: readonly string[] } = typeof map === 'string' ? JSON.parse(map) : map;
  return {
    css: made.css.replace(/\/\*# sourceMappingURL=[^*]*\*\/\s*$/, ''),
    map: typeof map === 'string' ? map : JSON.stringify(map),
    fileOf,
    files: read.sources.map(fileOf),
  };
}

function sassResult(
  files: Files,
  file: string,
  text: string,
  { style = 'expanded', without }: CompileOptions,
  sourceMap = false,
): CompileResult | undefined {
  const sass = load('sass') as typeof import('sass');
  const importer = {
    canonicalize: (name: string, context: { readonly containingUrl: URL | null }): URL | null => {
      const from =
        context.containingUrl?.protocol === SITE ? decodeURIComponent(context.containingUrl.pathname) : file;
      const plain = name.startsWith(SITE)
        ? decodeURIComponent(new URL(name).pathname)
        : name.replace(/^~/, '');
      const isThere = (one: string): boolean => one === without || files.read(one) !== undefined;
      const found = name.startsWith(SITE) ? partAt(isThere, plain) : importedPart(isThere, plain, from);
      return found === undefined ? null : new URL(SITE + encodeURI(found));
    },
    load: (url: URL) => {
      const own = decodeURIComponent(url.pathname);
      const contents = own === without ? '' : files.read(own)?.toString('utf8');
      const syntax = own.endsWith('.sass')
        ? ('indented' as const)
        : own.endsWith('.css')
          ? ('css' as const)
          : ('scss' as const);
      // Without it a map names no file for what is taken in.
      return contents === undefined ? null : { contents, syntax, sourceMapUrl: url };
    },
  };
  try {
    return sass.compileString(text, {
      style,
      syntax: file.endsWith('.sass') ? 'indented' : 'scss',
      url: new URL(SITE + encodeURI(file)),
      importer,
      importers: [importer],
      charset: false,
      quietDeps: true,
      logger: sass.Logger.silent,
      sourceMap,
    });
  } catch (error) {
    problems.set(file, problemIn(error));
    return undefined;
  }
}

const problems = new BoundedMap<string, string>(200);

/** What is wrong with a sheet that did not compile, and where. */
export function compileProblem(file: string): string {
  return problems.peek(file) ?? 'cannot be compiled';
}

function problemIn(error: unknown): string {
  const {
    sassMessage,
    message = '',
    span,
  } = error as {
    readonly sassMessage?: string;
    readonly message?: string;
    readonly span?: { readonly start?: { readonly line?: number } };
  };
  const line = span?.start?.line;
  const what = (sassMessage ?? message).split(/[\r\n]/)[0] ?? '';
  return `cannot be compiled${line === undefined ? '' : `, line ${line + 1}`}: ${what}`;
}

/** The file that a sheet means by a name: beside itself, then from the top, in packages, and in the usual folder of sources. */
export function importedPart(
  isThere: (file: string) => boolean,
  name: string,
  from: string,
): string | undefined {
  for (const root of [path.posix.dirname(from), '', 'node_modules', 'src']) {
    const found = partAt(isThere, path.posix.join(root, name));
    if (found !== undefined) return found;
  }
  return undefined;
}

/** `a/b` is `a/b.scss`, `a/_b.scss`, `a/b/_index.scss` and so on (Sass, "Finding the file"). */
function partAt(isThere: (file: string) => boolean, name: string): string | undefined {
  const folder = path.posix.dirname(name);
  const base = path.posix.basename(name);
  const tried = /\.(scss|sass|css)$/i.test(name)
    ? [name, path.posix.join(folder, `_${base}`)]
    : ['.scss', '.sass', '.css'].flatMap((ending) => [
        path.posix.join(folder, base + ending),
        path.posix.join(folder, `_${base}${ending}`),
        path.posix.join(name, `index${ending}`),
        path.posix.join(name, `_index${ending}`),
      ]);
  return tried.find((one) => isInside(one) && isThere(one));
}
