// Which files the names in templates mean: the layout that `extends 'base'` names, the part behind `render 'menu'`.

import { folderOf } from '../../core/base/addresses.js';
import { getOrInsert } from '../../core/base/get-or-insert.js';
import { withoutStart } from '../../core/base/phrases.js';
import { endingOf, isCode, isTemplate, looksFromTop, mayLoadSheets } from '../../core/read/kinds/index.js';
import { type Mentions, NO_MENTIONS } from '../../core/read/standing/index.js';
import { type Inclusion, inclusionsIn } from '../../core/read/templates/index.js';
import { decodeFile } from '../files/encoding.js';
import type { SiteFiles } from '../files/files.js';
import { APART } from '../files/owner.js';
import { type Guessing, isForEngine } from './guessed-copies.js';

const known = new WeakMap<Guessing, Mentions>();

/** Out: of the pages and parts of a site, as far as an engine reads them; found once. */
export function mentionsOf(reader: Guessing): Mentions {
  return getOrInsert(known, reader, () => mentionsIn(reader));
}

function mentionsIn(reader: Guessing): Mentions {
  // What a running system has sent is finished.
  if (reader.visited !== undefined || !isForEngine(reader)) return NO_MENTIONS;
  const inclusions = new Map<string, readonly Inclusion[]>();
  for (const file of reader.pagePaths) {
    const found = inclusionsIn(reader.page(file) ?? '', file);
    if (found.length > 0) inclusions.set(file, found);
  }
  if (inclusions.size === 0) return NO_MENTIONS;
  const names = new FileNames(reader.pagePaths);
  const targets = new Map<string, readonly (readonly string[])[]>();
  for (const [file, own] of inclusions)
    targets.set(
      file,
      own.map(({ kind, names: written }) => {
        if (kind === 'include') return names.meant(written, file);
        // What is named like itself is the one that it takes the place of.
        return kind === 'extends' ? names.meant(written, file).filter((one) => one !== file) : [];
      }),
    );
  fillYields(reader, inclusions, targets);
  const computed = [...inclusions].flatMap(([path, own]) =>
    own.flatMap(({ kind, names: written }, at) =>
      kind === 'include' && written.length === 0 ? [{ path, at }] : [],
    ),
  );
  return { targets, elsewhere: namedByCode(reader.files, names, inclusions), computed };
}

/** What a layout puts between its own may be any view: a part that nobody names, and that names no layout itself. */
function fillYields(
  reader: Guessing,
  inclusions: ReadonlyMap<string, readonly Inclusion[]>,
  targets: Map<string, readonly (readonly string[])[]>,
): void {
  const named = new Set([...targets.values()].flat(2));
  const views = reader.pagePaths.filter((file) => {
    const own = inclusions.get(file) ?? [];
    const isPart = /(^|\/)_[^/]*$|(^|\/)(?:partials?|parts|components|includes?|snippets)\//.test(file);
    return (
      reader.isComponent(file) &&
      !named.has(file) &&
      !isPart &&
      !own.some(({ kind }) => kind === 'extends' || kind === 'yield')
    );
  });
  for (const [file, own] of inclusions) {
    if (!own.some(({ kind }) => kind === 'yield')) continue;
    const ending = endingOf(file);
    // One layout beside others is taken where it is asked for by its own name.
    const folder = folderOf(file).replace(/[^/]+\/$/, '');
    const filling = views.filter((view) => endingOf(view) === ending && view.startsWith(folder));
    const known = targets.get(file)!;
    targets.set(
      file,
      own.map(({ kind }, at) => (kind === 'yield' ? filling : known[at]!)),
    );
  }
}

/** Files by the names that templates call them by. */
class FileNames {
  /** By last name, without its endings and the mark of a part. */
  readonly #byName = new Map<string, string[]>();

  constructor(files: readonly string[]) {
    for (const file of files) getOrInsert(this.#byName, lastName(file), () => []).push(file);
  }

  /** In: names as they are written, one of which is meant; the file that they stand in. */
  meant(names: readonly string[], holder: string): string[] {
    for (const name of names) {
      const found = this.#find(name, holder);
      if (found.length > 0) return found;
    }
    return [];
  }

  #find(written: string, holder: string): string[] {
    if (written.endsWith('*')) return this.#beginning(written.slice(0, -1), holder);
    const name = normal(written);
    const found = (this.#byName.get(lastName(name)) ?? []).filter((file) => endsWith(file, name));
    return nearest(found, holder, name);
  }

  #beginning(start: string, holder: string): string[] {
    const name = normal(start);
    const last = name.slice(name.lastIndexOf('/') + 1);
    if (last === '') return [];
    const names = [...this.#byName.keys()].filter((one) => one.startsWith(last));
    const folder = name.slice(0, -last.length);
    const found = names.flatMap((one) =>
      this.#byName.get(one)!.filter((file) => endsWith(file, `${folder}${one}`)),
    );
    return nearest(found, holder, name);
  }

  all(last: string): readonly string[] {
    return this.#byName.get(last) ?? [];
  }
}

/** Of files that a name may mean those beside its holder, else all. */
function nearest(found: readonly string[], holder: string, name: string): string[] {
  const ending = endingOf(holder);
  const alike = found.filter((file) => endingOf(file) === ending);
  const among = alike.length > 0 ? alike : found;
  if (name.includes('/') || looksFromTop(holder)) return [...among];
  const beside = among.filter((file) => folderOf(file) === folderOf(holder));
  return beside.length > 0 ? beside : [...among];
}

/** `./parts/_card.html.erb`, `parts.card` as `parts/card`. */
function normal(written: string): string {
  const bare = written.replace(/^(?:@[\w-]+\/|~?\/|(?:\.{1,2}\/)+|[\w-]+::?)/, '');
  const path = isMarkupName(bare) ? bare : bare.replace(/\.(?=\w)/g, '/');
  return path
    .split('/')
    .map((part, at, all) => (at === all.length - 1 ? lastName(part) : part))
    .join('/')
    .toLowerCase();
}

/** Whether a name has the ending of a template or a page, rather than dots between its folders. */
function isMarkupName(name: string): boolean {
  return (
    name.split('.').some((_, at, parts) => at > 0 && isTemplate(`x.${parts[at]}`)) || mayLoadSheets(name)
  );
}

function lastName(file: string): string {
  return withoutStart(file.slice(file.lastIndexOf('/') + 1), '_')
    .replace(/\..*$/, '')
    .toLowerCase();
}

function endsWith(file: string, name: string): boolean {
  const own = `${folderOf(file)}${lastName(file)}`.toLowerCase();
  return own === name || own.endsWith(`/${name}`);
}

/** A call that shows a template, with its name. */
const SHOWS =
  /\b(?:render\w*|view|template\w*|partial\w*|get_template\w*|locate_template|include\w*|require\w*|load\w*|display|fetch|make|renderAsync|fragment\w*)\b[^\n;]{0,80}?["']([\w./-]{2,80})["']/g;
/** Characters. */
const LARGEST = 500_000;

/** The parts that code names where it shows something: it may put them anywhere. */
function namedByCode(
  files: SiteFiles,
  names: FileNames,
  inclusions: ReadonlyMap<string, readonly Inclusion[]>,
): Set<string> {
  const found = new Set<string>();
  for (const file of files.list()) {
    if (!isCode(file) || APART.test(file) || inclusions.has(file)) continue;
    const bytes = files.read(file);
    if (bytes === undefined || bytes.length > LARGEST) continue;
    const text = decodeFile(bytes)?.text ?? '';
    for (const [, written] of text.matchAll(SHOWS)) {
      const name = normal(written!);
      for (const one of names.all(lastName(name))) if (endsWith(one, name)) found.add(one);
    }
  }
  return found;
}
