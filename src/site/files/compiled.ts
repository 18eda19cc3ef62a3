// Sheets of a preprocessor, as its own compiler makes them.

import { createRequire } from 'node:module';
import path from 'node:path';
import { BoundedMap } from '../../core/base/bounded.js';
import type { BlockCompiler } from '../../core/read/components/index.js';
import { ByReads } from './by-reads.js';
import { type CompileOptions, type Files, isInside } from './compile-options.js';
import { lessResult } from './less.js';

export type { OutputStyle } from './compile-options.js';

const load = createRequire(import.meta.url);

/** Endings of sheets that are made CSS of. */

const SITE = 'site:';

/**
 * In: the files of a site, and the path of a sheet among them. Out: the CSS that comes of it; `undefined` where the compiler
 * takes it not, as a part that only stands in others.
 */
export function compiledText(files: Files, file: string, options: CompileOptions = {}): string | undefined {
  return compiled(files, file, options)?.css;
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
  files: Files,
  file: string,
  without: string | undefined,
): CompiledMap | undefined {
  const made = compiled(files, file, { without });
  if (made === undefined) return undefined;
  const fileOf = (source: string): string =>
    isLess(file)
      ? path.posix.join(path.posix.dirname(file), source)
      : decodeURIComponent(new URL(source).pathname);
  const { sources }: { readonly sources: readonly string[] } = JSON.parse(made.map);
  return { ...made, fileOf, files: sources.map(fileOf) };
}

function isLess(file: string): boolean {
  return file.toLowerCase().endsWith('.less');
}

type Result = { readonly css: string; readonly map: string } | { readonly problem: string };

/** Compilers are slow, and many ask for the same. */
const results = new ByReads<Result | undefined>(400);

function compiled(
  files: Files,
  file: string,
  { style = 'expanded', without }: CompileOptions,
): { readonly css: string; readonly map: string } | undefined {
  const made = results.get(`${style} ${without ?? ''} ${file}`, files, (read) => {
    const text = read.read(file)?.toString('utf8');
    if (text === undefined) return undefined;
    return (isLess(file) ? lessResult : sassResult)(read, file, text, { style, without });
  });
  if (made === undefined || !('problem' in made)) return made;
  problems.set(file, `cannot be compiled${made.problem}`);
  return undefined;
}

/** Compiles style blocks of components, with what they take in. */
export function blockCompiler(files: Files): BlockCompiler {
  return (file, text, lang) => {
    if (!['scss', 'sass', 'less'].includes(lang)) return undefined;
    const made = results.get(`block ${lang} ${file}\0${text}`, files, (read) =>
      lang === 'less'
        ? lessResult(read, file, text, {})
        : sassResult(read, file, text, { isIndented: lang === 'sass' }),
    );
    return made === undefined || 'problem' in made ? undefined : made.css;
  };
}

function sassResult(
  files: Files,
  file: string,
  text: string,
  { style, without, isIndented = file.endsWith('.sass') }: CompileOptions & { readonly isIndented?: boolean },
): Result {
  const sass = load('sass') as typeof import('sass');
  const importer = {
    canonicalize: (name: string, context: { readonly containingUrl: URL | null }): URL | null => {
      const from =
        context.containingUrl?.protocol === SITE ? decodeURIComponent(context.containingUrl.pathname) : file;
      const plain = name.startsWith(SITE)
        ? decodeURIComponent(new URL(name).pathname)
        : name.replace(/^~?@\/|^~/, '');
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
    const { css, sourceMap } = sass.compileString(text, {
      style: style ?? 'expanded',
      syntax: isIndented ? 'indented' : 'scss',
      url: new URL(SITE + encodeURI(file)),
      importer,
      importers: [importer],
      charset: false,
      quietDeps: true,
      logger: sass.Logger.silent,
      sourceMap: true,
    });
    return { css, map: JSON.stringify(sourceMap) };
  } catch (error) {
    return { problem: problemIn(error) };
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
  return `${line === undefined ? '' : `, line ${line + 1}`}: ${what}`;
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
