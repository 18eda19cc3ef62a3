// Sets of declarations that repeat in the sources of SCSS, each defined once as a mixin and asked for by its name. What is compiled
// stays the same to the letter, or nothing of it is done.

import { getOrInsert } from '../../core/base/get-or-insert.js';
import { withSingleSpaces } from '../../core/base/phrases.js';
import { placeIn, showPlace } from '../../core/base/source.js';
import type { Draft } from '../../core/edit/draft/index.js';
import { type FoundMixin, findMixins, runsOf, type Written } from '../../core/edit/factor/index.js';
import { applyEdits, type Edit } from '../../core/edit/text/index.js';
import { parseSheet } from '../../core/read/sheets/index.js';
import type { Config } from '../config.js';
import { compiledText, compiledWithMap } from '../files/compiled.js';
import type { SiteFiles } from '../files/files.js';
import { withTexts } from '../files/overlay.js';
import type { FileChange } from '../ledger/change.js';
import { blockComparer } from '../rendering/blocks-of-sources.js';
import { ownSources } from '../rendering/compiled-sheets.js';
import { writerAround } from '../rendering/source-edits.js';
import { SourcePlaces } from '../rendering/source-places-of-sheets.js';
import { definitions, fileOf, homeOf, importLine, prefixIn } from './home.js';
import { isPart, ownSheets, type SheetImports } from './imports.js';

export type DraftMixin = Draft['mixins'][number];

export interface Factored {
  /** For the draft. */
  readonly mixins: readonly DraftMixin[];
  readonly changes: readonly FileChange[];
}

const NOTHING: Factored = { mixins: [], changes: [] };

/** In: the files of a site; what a person has decided before. */
export function factorOut(
  files: SiteFiles,
  config: Config,
  earlier: readonly DraftMixin[],
  onStep?: (step: string) => void,
): Factored {
  const sheets = new Sheets(files, ownSources(config, files));
  if (sheets.sources.size === 0) return NOTHING;
  onStep?.('compiling sources');
  const written = writtenIn(sheets);
  const known = new Map(earlier.map((one) => [one.id, one]));
  const found = findMixins(
    runsOf(written, (file) => sheets.imports.text(file)).filter((run) => isPlain(run, sheets.imports)),
    {
      taken: namesOf(sheets),
      given: new Map(earlier.map(({ id, name }) => [id, name])),
    },
  );
  const wanted = found.filter(({ id }) => known.get(id)?.take !== false);
  const { done, edits, home } = carriedOut(wanted, sheets);
  const listed = found.filter((one) => done.includes(one) || known.get(one.id)?.take === false);
  return {
    mixins: listed.map((one) => entryOf(one, known.get(one.id), home, sheets.imports)),
    changes: [...edits].map(([path, own]) => ({
      path,
      text: sheets.imports.text(path),
      encoding: { name: 'utf-8', mark: false },
      edits: own,
    })),
  };
}

/** The sheets of a site, and what is made of them. */
class Sheets {
  readonly imports: SheetImports;
  /** Those that may be edited. */
  readonly sources: ReadonlySet<string>;
  /** Those that no other takes in. */
  readonly roots: readonly string[];
  readonly #before = new Map<string, string | undefined>();
  /** A component of which a style block would say something else. */
  readonly changedBlock: (after: SiteFiles) => string | undefined;

  constructor(
    readonly files: SiteFiles,
    isOwn: (file: string) => boolean,
  ) {
    const { sources, roots, imports } = ownSheets(files, isOwn);
    this.sources = new Set(sources);
    this.roots = roots;
    this.imports = imports;
    this.changedBlock = blockComparer(files);
  }

  before(file: string): string | undefined {
    return getOrInsert(this.#before, file, () => compiledText(this.files, file));
  }

  /** Sheets that something comes of by themselves, and that take in one of these. */
  madeOf(changed: ReadonlySet<string>): string[] {
    const meant = (file: string): boolean =>
      [...this.imports.reachedFrom(file)].some((one) => changed.has(one));
    const alone = [...changed].filter((file) => this.sources.has(file) && !isPart(file));
    return [...new Set([...this.roots.filter(meant), ...alone])].filter(
      (file) => this.before(file) !== undefined,
    );
  }
}

/** Every declaration of the sources that stands in no mixin, function or loop, once. */
function writtenIn({ files, roots, sources }: Sheets): Written[] {
  const found = new Map<string, Written>();
  for (const root of roots) {
    const made = compiledWithMap(files, root, undefined);
    if (made === undefined) continue;
    const sourcePlaces = new SourcePlaces(files, made, made.css);
    const all = parseSheet(made.css).rules.flatMap(({ declarations, selector }) =>
      declarations.map((declaration) => ({ declaration, selector })),
    );
    for (const { declaration, selector } of all) {
      const sourcePlace = sourcePlaces.of(declaration);
      if (sourcePlace === undefined || !sources.has(sourcePlace.file) || sourcePlace.isIndented) continue;
      const { file, text, start, value } = sourcePlace;
      const key = `${file} ${start}`;
      if (found.has(key) || writerAround(text, start) !== undefined) continue;
      const said = withSingleSpaces(text.slice(start, value.end).replace(/\s*:\s*/, ': '));
      found.set(key, { file, start, end: value.end, said, made: declaration, selector });
    }
  }
  return [...found.values()];
}

/** What a file of modules says by the names of others means something else elsewhere. */
function isPlain(run: readonly Written[], imports: SheetImports): boolean {
  return (
    !imports.isOfModules(run[0]!.file) ||
    run.every(({ said }) => !/[$#]\{?[\w-]*[a-z_]|\w\.[\w$]/i.test(said.replace(/#[0-9a-f]{3,8}\b/gi, '')))
  );
}

/** Of mixins, in lower case. */
function namesOf({ sources, imports }: Sheets): Set<string> {
  return new Set(
    [...sources].flatMap((file) =>
      [...imports.text(file).matchAll(/@mixin\s+([\w-]+)/g)].map(([, name]) => name!.toLowerCase()),
    ),
  );
}

interface CarriedOut {
  readonly done: readonly FoundMixin[];
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  readonly home: string;
}

/** All of them where what is compiled stays as it is; else those of each half for which it does. */
function carriedOut(wanted: readonly FoundMixin[], sheets: Sheets): CarriedOut {
  let done: readonly FoundMixin[] = [];
  const attempt = (more: readonly FoundMixin[]): void => {
    if (more.length === 0) return;
    if (changesNothing(editsFor([...done, ...more], sheets).edits, sheets)) done = [...done, ...more];
    else if (more.length > 1) {
      const half = Math.ceil(more.length / 2);
      attempt(more.slice(0, half));
      attempt(more.slice(half));
    }
  };
  attempt(wanted);
  const { edits, home } = done.length === 0 ? { edits: new Map(), home: '' } : editsFor(done, sheets);
  return { done, edits, home };
}

function changesNothing(edits: ReadonlyMap<string, readonly Edit[]>, sheets: Sheets): boolean {
  const after = withTexts(
    sheets.files,
    new Map([...edits].map(([file, own]) => [file, applyEdits(sheets.imports.text(file), own)])),
  );
  return (
    sheets.madeOf(new Set(edits.keys())).every((file) => compiledText(after, file) === sheets.before(file)) &&
    sheets.changedBlock(after) === undefined
  );
}

function editsFor(
  mixins: readonly FoundMixin[],
  sheets: Sheets,
): { readonly edits: ReadonlyMap<string, readonly Edit[]>; readonly home: string } {
  const { imports } = sheets;
  const home = homeOf(mixins, imports, (file) => sheets.sources.has(file));
  const before = imports.text(home);
  const edits = new Map<string, Edit[]>();
  const add = (file: string, edit: Edit): void => void getOrInsert(edits, file, () => []).push(edit);
  add(home, { start: before.length, end: before.length, text: definitions(mixins, before) });
  for (const { name, places } of mixins)
    for (const run of places) {
      const file = fileOf(run);
      const { end } = run.at(-1)!;
      const closing = /^\s*;/.exec(imports.text(file).slice(end))?.[0].length ?? 0;
      const text = `@include ${prefixIn(file, home, imports)}${name};`;
      add(file, { start: run[0]!.start, end: end + closing, text });
    }
  const asking = [...edits.keys()].filter((file) => file !== home);
  for (const [file, front] of takingIn(asking, home, sheets))
    add(file, importLine(file, home, imports, front));
  for (const own of edits.values()) own.sort((a, b) => a.start - b.start);
  return { edits, home };
}

/** Which files must take the home in, and in front of what: a part that only stands in others has it from these. */
function takingIn(
  asking: readonly string[],
  home: string,
  { imports, roots }: Pick<Sheets, 'imports' | 'roots'>,
): Map<string, number | undefined> {
  const found = new Map<string, number | undefined>();
  for (const file of asking) {
    if (imports.sees(file, home)) continue;
    const above =
      isPart(file) && !imports.isOfModules(file)
        ? roots.filter((root) => imports.reachedFrom(root).has(file))
        : [];
    const firsts = above.map((root) =>
      imports.of(root).find((one) => one.file !== undefined && imports.reachedFrom(one.file).has(file)),
    );
    const isByImport = above.length > 0 && firsts.every((one) => one?.kind === 'import');
    if (!isByImport) found.set(file, undefined);
    else
      for (const [at, root] of above.entries()) {
        const front = firsts[at]!.range.start;
        found.set(root, Math.min(found.get(root) ?? front, front));
      }
  }
  return found;
}

function entryOf(
  { id, name, declarations, places, saves }: FoundMixin,
  known: DraftMixin | undefined,
  home: string,
  imports: SheetImports,
): DraftMixin {
  return {
    id,
    name,
    take: known?.take ?? true,
    times: places.length,
    ...(home === '' ? {} : { into: home }),
    'such as': places.slice(0, 2).map((run) => {
      const [{ file, start }] = run as [Written];
      return showPlace(placeIn(file, imports.text(file), start));
    }),
    saves: Math.floor(saves),
    declarations: declarations.map((one) => `${one};\n`).join(''),
  };
}
