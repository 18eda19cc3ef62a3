// Edits of sheets that a preprocessor makes: carried over to the sources, and what is made of them made anew.

import { UsageError } from '../../core/base/usage-error.js';
import { applyEdits, type Edit } from '../../core/edit/text/edit.js';
import { compiledText, compiledWithMap } from '../files/compiled.js';
import { blockComparer } from '../rendering/blocks-of-sources.js';
import { ownSources, rebuilt } from '../rendering/compiled-sheets.js';
import type { Site } from '../rendering/load.js';
import { filesWith, inSources, type SourceChange } from '../rendering/source-edits.js';

export interface SourcedChange {
  /** Edits of all other files. */
  readonly others: ReadonlyMap<string, readonly Edit[]>;
  /** Of the sources, and of built sheets. */
  readonly changes: readonly SourceChange[];
}

/** In: edits on the texts of a loaded site. Throws `UsageError` where its sources cannot say what is asked. */
export function sourceChanges(
  {
    model,
    files,
    sheets,
    sourceOf,
    compiledAs,
    config,
  }: Pick<Site, 'model' | 'files' | 'sheets' | 'sourceOf' | 'compiledAs' | 'config'>,
  edits: ReadonlyMap<string, readonly Edit[]>,
): SourcedChange {
  // One that a person calls the theme's own is written as it is.
  const made = new Set(sheets.flatMap(({ path, owner }) => (owner === 'platform' ? path : [])));
  const sourced = [...edits].filter(
    ([path, own]) => own.length > 0 && made.has(path) && sourceOf(path) !== undefined,
  );
  if (sourced.length === 0) return { others: edits, changes: [] };
  const isOwn = ownSources(config, files);
  const found = new Map<string, Map<string, Edit>>();
  const texts = new Map<string, string>();
  for (const [path, own] of sourced) {
    const before = model.sources.sheets.get(path) ?? '';
    const change = { sheet: path, source: sourceOf(path)!, before, after: applyEdits(before, own) };
    for (const one of inSources(files, change, isOwn)) {
      texts.set(one.file, one.text);
      const known = found.get(one.file) ?? new Map<string, Edit>();
      for (const edit of one.edits) known.set(`${edit.start} ${edit.end} ${edit.text}`, edit);
      found.set(one.file, known);
    }
  }
  const changes = [...found].map(
    ([file, own]): SourceChange => ({
      file,
      text: texts.get(file)!,
      edits: [...own.values()].sort((a, b) => a.start - b.start),
    }),
  );
  const after = filesWith(files, changes);
  for (const { path } of sheets) {
    const source = sourceOf(path);
    if (source === undefined) continue;
    const isMeant = sourced.some(([meant]) => meant === path);
    const [was, is] = [files, after].map((state) =>
      compiledText(state, source.entry, { without: source.without }),
    );
    if (!isMeant && was !== is)
      throw new UsageError('not-in-source', { place: source.entry, why: `${path} is made of it, too` });
    const built = isMeant ? compiledAs(path) : undefined;
    if (built !== undefined) changes.push(...rebuilt(files, after, built));
  }
  const component = blockComparer(files)(after);
  if (component !== undefined)
    throw new UsageError('not-in-source', {
      place: changes[0]?.file ?? '',
      why: `a style block of ${component} takes it in, too`,
    });
  const meant = new Set(sourced.map(([path]) => path));
  return { others: new Map([...edits].filter(([path]) => !meant.has(path))), changes };
}

/** The sheets of a site that can be changed in what they are made of, and the files that these are. */
export function sourcedSheets({
  files,
  sheets,
  sourceOf,
  model,
}: Pick<Site, 'files' | 'sheets' | 'sourceOf' | 'model'>): {
  readonly sheets: readonly string[];
  readonly files: ReadonlySet<string>;
} {
  const sources = new Set<string>();
  const found = sheets.flatMap(({ path, owner }) => {
    // The classes of a module are no names that could be asked for.
    const isOpen = owner === 'platform' && model.sources.isModule?.(path) !== true;
    const source = isOpen ? sourceOf(path) : undefined;
    const made = source && compiledWithMap(files, source.entry, source.without);
    for (const file of made?.files ?? []) sources.add(file);
    return made === undefined ? [] : path;
  });
  return { sheets: found, files: sources };
}
