// Where a selector, class, value, custom property or rule has effect.

import path from 'node:path';
import { reachOf, readAsked } from '../../core/ask/reach/index.js';
import { placeIn, showPlace } from '../../core/base/source.js';
import { UsageError } from '../../core/base/usage-error.js';
import { loadBuilt, openBuilt } from '../../site/building/build.js';
import { inSources } from '../../site/building/places.js';
import { openFolder } from '../../site/files/files.js';
import { loadSite, type Site } from '../../site/rendering/load.js';
import { withPlaces } from '../../site/rendering/places-in.js';
import type { ReachDocument } from './document.js';

export interface ReachOptions {
  readonly onStep?: ((step: string) => void) | undefined;
  /** Hears of each element that counts: its page, and its number on it. */
  readonly onElement?: ((page: string, element: number) => void) | undefined;
}

/**
 * Which declarations win, wait or are beaten, on how many elements of which pages.
 * In: the site's folder; a selector, `.class`, `#id`, `--name`, a value, `property: value` or `sheet.css:line`.
 * Throws `UsageError` for what is none of them.
 */
export async function reach(site: string, asked: string, options: ReachOptions = {}): Promise<ReachDocument> {
  const built = await openBuilt(site, openFolder(site), options.onStep);
  if (built === undefined) {
    const opened = loadSite(openFolder(site), { outlinesIn: path.resolve(site) });
    const document = reachOn(opened, placeMade(opened, asked), options);
    return { ...withPlaces(document, opened.writtenAt), asked };
  }
  if (options.onElement !== undefined) throw new UsageError('built-no-picture', {});
  // A sheet is named by its source, or by the path that it is built to.
  const copy = [...built.copies].find(([, source]) => asked.startsWith(`${source}:`));
  const meant = copy === undefined ? asked : copy[0] + asked.slice(copy[1].length);
  const { document, built: how } = inSources(built, { ...reachOn(loadBuilt(built), meant), asked });
  return { ...document, built: how };
}

function reachOn(
  { model, shared, isPlatform, sourceOf }: Site,
  asked: string,
  { onElement }: ReachOptions = {},
): ReachDocument {
  const { sheets, pages } = model.sources;
  const modules = [...sheets.keys()].filter((path) => model.sources.isModule?.(path) === true);
  const read = readAsked(asked, (path) => sheets.has(path) || pages.has(path), modules);
  if (read === undefined) throw new UsageError('reach-nothing', { text: asked, sheet: shared });
  return {
    format: 1,
    command: 'reach',
    asked,
    kind: read.kind,
    ...reachOf(
      model,
      read,
      // What is made of the site's own sources is changed there.
      (path) => isPlatform(path) && !modules.includes(path) && sourceOf(path) === undefined,
      ({ path: file }, { index }) => onElement?.(file, index),
    ),
  };
}

/** The place of a rule in what is made of a source, where a source is named; any other text is itself. */
function placeMade({ model, writtenAt }: Site, asked: string): string {
  const [, file = '', line] = /^(.+\.\w+):(\d+)(?::\d+)?$/.exec(asked) ?? [];
  if (file === '' || model.sources.sheets.has(file)) return asked;
  for (const [path, text] of model.sources.sheets)
    for (const { selectorRange, declarations } of model.sheetAt(path)?.sheet.rules ?? [])
      for (const { start } of [selectorRange, ...declarations.map(({ range }) => range)]) {
        const made = placeIn(path, text, start);
        const written = writtenAt(made);
        if (written.path === file && written.line === Number(line)) return showPlace(made);
      }
  return asked;
}
