// What the sources of SCSS take in, told by their own lines.

import { folderOf } from '../../core/base/addresses.js';
import { getOrInsert } from '../../core/base/get-or-insert.js';
import { withoutStart } from '../../core/base/phrases.js';
import type { SourceRange } from '../../core/base/source.js';
import { importedPart } from '../files/compiled.js';
import type { SiteFiles } from '../files/files.js';
import { APART, ownerByText } from '../files/owner.js';

export interface SheetImport {
  readonly kind: 'import' | 'use' | 'forward';
  /** The file that is taken in; `undefined` where it is not one of the site. */
  readonly file: string | undefined;
  /** The name as it is written, without its quotes. */
  readonly name: string;
  /** The whole line, up to what ends it. */
  readonly range: SourceRange;
  /** Of `@use`, what its names are called by: `*` for nothing. */
  readonly called: string | undefined;
}

const LINE = /^[ \t]*@(import|use|forward)[ \t]+((["'])[^;\r\n]+)(;|$)/gm;

export class SheetImports {
  readonly #files: SiteFiles;
  readonly #imports = new Map<string, readonly SheetImport[]>();
  readonly #reached = new Map<string, ReadonlySet<string>>();

  constructor(files: SiteFiles) {
    this.#files = files;
  }

  text(file: string): string {
    return this.#files.read(file)?.toString('utf8') ?? '';
  }

  /** In order. */
  of(file: string): readonly SheetImport[] {
    return getOrInsert(this.#imports, file, () => {
      const isThere = (one: string): boolean => this.#files.read(one) !== undefined;
      return [...this.text(file).matchAll(LINE)].flatMap(({ 0: line, 1: kind, 2: rest, index }) =>
        [...rest!.matchAll(/(["'])([^"']+)\1(?:\s+as\s+([\w-]+|\*))?/g)].map(
          ([, , name, called]): SheetImport => ({
            kind: kind as SheetImport['kind'],
            file: importedPart(isThere, withoutStart(name!, '~'), file),
            name: name!,
            range: { start: index, end: index + line.length },
            called: kind === 'use' ? (called ?? lastName(name!)) : undefined,
          }),
        ),
      );
    });
  }

  isOfModules(file: string): boolean {
    return this.of(file).some(({ kind }) => kind !== 'import');
  }

  /** All files that it takes in, itself among them. */
  reachedFrom(file: string): ReadonlySet<string> {
    const known = this.#reached.get(file);
    if (known !== undefined) return known;
    const found = new Set([file]);
    for (const one of found)
      for (const { file: next } of this.of(one)) if (next !== undefined) found.add(next);
    this.#reached.set(file, found);
    return found;
  }

  /** Whether a file sees what another one defines without a name in front: by imports alone, and directly where it uses it. */
  sees(file: string, home: string): boolean {
    if (!this.isOfModules(file)) return this.reachedFrom(file).has(home);
    return this.of(file).some((one) => one.file === home);
  }
}

function lastName(name: string): string {
  return withoutStart(name.slice(name.lastIndexOf('/') + 1), '_').replace(/\.\w+$/, '');
}

/** Sources of SCSS that are the site's own, and those among them that no other takes in. */
export function ownSheets(
  files: SiteFiles,
  isOwn: (file: string) => boolean,
): {
  readonly sources: readonly string[];
  readonly roots: readonly string[];
  readonly imports: SheetImports;
} {
  const imports = new SheetImports(files);
  const all = files
    .list()
    .filter((file) => file.toLowerCase().endsWith('.scss') && isOwn(file) && !APART.test(file));
  // A release brings all that lies beside it.
  const libraries = all.filter(
    (file) => ownerByText(file, () => imports.text(file), files).owner === 'platform',
  );
  const folders = libraries.map(folderOf).filter((folder) => folder !== '');
  const sources = all.filter(
    (file) =>
      !libraries.includes(file) &&
      !folders.some((folder) => file.startsWith(folder)) &&
      isPlain(files.read(file)),
  );
  const taken = new Set(sources.flatMap((file) => imports.of(file).flatMap((one) => one.file ?? [])));
  return { sources, roots: sources.filter((file) => !taken.has(file) && !isPart(file)), imports };
}

/** In UTF-8 without a mark, as nearly all are: offsets count its letters. */
function isPlain(bytes: Buffer | undefined): boolean {
  if (bytes === undefined) return false;
  const text = bytes.toString('utf8');
  return !text.startsWith('\uFEFF') && Buffer.from(text).equals(bytes);
}

/** Whether a source is made to stand in others. */
export function isPart(file: string): boolean {
  return /(?:^|\/)_[^/]*$/.test(file);
}
