// The sheets of a site of components: those that its modules import, in the order in which a bundler meets them.

import path from 'node:path';
import { startsWithOneOf } from '../../core/base/characters.js';
import { getOrInsert } from '../../core/base/get-or-insert.js';
import { withoutStart } from '../../core/base/phrases.js';
import { type Edit, newlineOf } from '../../core/edit/text/index.js';
import {
  type BlockCompiler,
  blocksWith,
  importsIn,
  reachesOut,
  readComponent,
} from '../../core/read/components/index.js';
import { isAnySheet, isComponentFile, isModule } from '../../core/read/kinds/index.js';
import type { SiteFiles } from '../files/files.js';
import { reachingRules } from './reaching-rules.js';

export interface ImportedSheets {
  /** Site paths, in order; those of packages begin with `node_modules/`. */
  readonly sheets: readonly string[];
  /** By sheet, the module that imports it first. */
  readonly importers: ReadonlyMap<string, string>;
  /** Those that style a component: of two packages in one site, each has its own. */
  readonly of: (component: string) => readonly string[];
}

/** A sheet that is to come. */
export interface AddedSheet {
  readonly sheet: string;
  /** The sheet that it is imported behind, and the module that does so. */
  readonly behind: string;
  readonly module: string;
}

/** What runs first, by the names that people and build programs give: what comes first here brings in what comes later. */
const ENTRIES: readonly RegExp[] = [
  /(^|\/)(main|index|entry[-.\w]*)\.m?[jt]sx?$/i,
  /(^|\/)(_app|\+layout)\.(m?[jt]sx?|vue|svelte)$/i,
  /(^|\/)app\.(m?[jt]sx?|vue|svelte)$/i,
];
/** Characters: larger files are libraries. */
const LARGEST = 500_000;
const ENDINGS = [
  '',
  '.ts',
  '.tsx',
  '.js',
  '.jsx',
  '.mjs',
  '.vue',
  '.svelte',
  '.scss',
  '.less',
  '.css',
  '/index.ts',
  '/index.tsx',
  '/index.js',
  '/index.jsx',
  '/index.vue',
  '/index.scss',
];

export function findImportedSheets(files: SiteFiles): ImportedSheets {
  const all = files.list();
  const known = new Set(all);
  const modules = all.filter((file) => isModule(file) && !/\.(min|test|spec|stories)\.[a-z]+$/i.test(file));
  const entries = ENTRIES.flatMap((entry) =>
    modules.filter((file) => entry.test(file)).sort((a, b) => depth(a) - depth(b) || (a < b ? -1 : 1)),
  );
  const importers = new Map<string, string>();
  const seen = new Set<string>();
  // What a module imports comes before what stands behind that import: depth first.
  const visit = (file: string): void => {
    if (seen.has(file)) return;
    seen.add(file);
    const text = textOf(files, file);
    for (const name of importsIn(text)) {
      const found = resolveImport(name, file, known, files);
      if (found === undefined) continue;
      if (isModule(found)) visit(found);
      else if (isAnySheet(found) && !importers.has(found)) importers.set(found, file);
    }
    for (const name of sharedBlocks(file, text)) importers.set(name, file);
  };
  for (const file of [...entries, ...modules]) visit(file);
  const sheets = [...importers.keys()];
  const packageOf = packagesIn(all);
  const byPackage = new Map<string, readonly string[]>();
  const isIn = (file: string, own: string): boolean => packageOf(file) === own;
  return {
    sheets,
    importers,
    of: (component) => {
      const own = packageOf(component);
      return getOrInsert(byPackage, own, () =>
        sheets.filter((sheet) => isIn(importers.get(sheet)!, own) || isIn(sheet, own)),
      );
    },
  };
}

/** In: the files of a site. Out: the folder of the package that a file belongs to, the innermost; empty for the site's own. */
function packagesIn(files: readonly string[]): (file: string) => string {
  const folders = files
    .filter((file) => file.endsWith('/package.json'))
    .map((file) => file.slice(0, -'package.json'.length))
    .sort((a, b) => b.length - a.length);
  return (file) => folders.find((folder) => file.startsWith(folder)) ?? '';
}

/** A block that styles more than its component is a sheet of the whole site, or some of its rules are: named by its file and its number in it. */
function sharedBlocks(file: string, text: string): string[] {
  if (!isComponentFile(file) || !/<style\b/i.test(text)) return [];
  const blocks = readComponent(file, text)?.blocks ?? [];
  return blocks.flatMap(({ isScoped, offset, end }, at) => {
    const name = `${file}${BLOCK}${at}`;
    return !isScoped ? [name] : reachesOut(text.slice(offset, end)) ? [`${name}${REACHING}`] : [];
  });
}

/** In an address nothing of it is a query or a fragment. */
const BLOCK = '~block-';
/** Of a scoped block what reaches out of its component. */
const REACHING = '~reaching';

/** The text of a block that is named so; `undefined` for one that cannot be read. In: who reads files. */
export function blockText(
  name: string,
  read: (file: string) => string | undefined,
  compile: BlockCompiler,
): string | undefined {
  const at = name.indexOf(BLOCK);
  if (at < 0) return undefined;
  const file = name.slice(0, at);
  const text = read(file);
  const component = text === undefined ? undefined : readComponent(file, text);
  const blocks = component === undefined ? [] : blocksWith(component, file, text!, compile);
  const number = name.slice(at + BLOCK.length).replace(REACHING, '');
  const block = blocks[Number(number)];
  if (name.endsWith(REACHING) && block !== undefined) return reachingRules(block.text);
  return block === undefined || block.unread !== undefined ? undefined : block.text;
}

export function isBlockName(name: string): boolean {
  return name.includes(BLOCK);
}

function depth(file: string): number {
  return file.split('/').length;
}

function textOf(files: SiteFiles, file: string): string {
  const bytes = files.read(file);
  return bytes === undefined || bytes.length > LARGEST ? '' : bytes.toString('utf8');
}

/** What an import names: beside the file, under a usual short name for the sources, or in a package. */
function resolveImport(
  name: string,
  from: string,
  known: ReadonlySet<string>,
  files: SiteFiles,
): string | undefined {
  const plain = name.replace(/\?.*$/, '');
  const tried = plain.startsWith('.')
    ? [path.posix.join(path.posix.dirname(from), plain)]
    : plain.startsWith('/')
      ? [plain.slice(1), `public${plain}`]
      : shortNames(plain);
  for (const one of tried) for (const ending of ENDINGS) if (known.has(one + ending)) return one + ending;
  if (startsWithOneOf(plain.replace(/^@[\w-]+\/[\w-]/, ''), '.@~$/') || !isAnySheet(plain)) return undefined;
  const inPackage = `node_modules/${withoutStart(plain, '~')}`;
  return files.read(inPackage) === undefined ? undefined : inPackage;
}

/** `@/styles/a.css`, `~/styles/a.css`, `$lib/a.css`, `src/a.css`. */
function shortNames(name: string): string[] {
  const rest = /^(?:@|~|\$lib|\$src|#)\/(.*)$/.exec(name)?.[1];
  if (rest === undefined) return [name, `src/${name}`];
  return name.startsWith('$lib') ? [`src/lib/${rest}`] : [`src/${rest}`, rest, `app/${rest}`];
}

/** The line that imports a sheet that is to come. In: the text of the module. Out: `undefined` where nothing shows where it would go. */
export function importEdit(text: string, { sheet, behind, module }: AddedSheet): Edit | undefined {
  const base = path.posix.basename(behind).replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const found = [...text.matchAll(new RegExp(`^[ \\t]*import\\s[^\\n]*${base}[^\\r\\n]*`, 'gm'))].at(-1);
  if (found === undefined) return undefined;
  const from = path.posix.relative(path.posix.dirname(module), sheet);
  const indent = /^[ \t]*/.exec(found[0])![0];
  const quote = found[0].includes('"') ? '"' : "'";
  const end = found[0].trimEnd().endsWith(';') ? ';' : '';
  const at = found.index + found[0].trimEnd().length;
  const name = from.startsWith('.') ? from : `./${from}`;
  return { start: at, end: at, text: `${newlineOf(text)}${indent}import ${quote}${name}${quote}${end}` };
}

/** Whether an edit does no more than import a sheet. */
export function isImport({ start, end, text }: Edit): boolean {
  return start === end && /^\r?\n[ \t]*import (["'])[^"'\n]+\.css\1;?$/.test(text);
}
