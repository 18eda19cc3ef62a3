// A place in a source, or a page under the folder of the build, as a place on a built page.

import { readFileSync } from 'node:fs';
import path from 'node:path';
import { withoutStart } from '../../core/base/phrases.js';
import { offsetAt, placeIn } from '../../core/base/source.js';
import { isBuiltPage } from '../../core/read/kinds/index.js';
import { parsePage, sourceNumberOf } from '../../core/read/markup/index.js';
import { decodeFile } from '../files/encoding.js';
import { openFolder } from '../files/files.js';
import type { BuiltSite } from './build.js';

export interface Asked {
  /** Path of a built page. */
  readonly page: string;
  /** A selector, or line and column. */
  readonly element: string;
}

/**
 * What a person asks about a source, asked about the first page that shows it.
 * In: the path of a source or of a page; a selector, or `line` or `line:column` of a tag. Out: the same for what is no source.
 */
export function renderingOf(
  { command, folder, sourcePlaces }: BuiltSite,
  file: string,
  element: string,
): Asked {
  const asked = withoutStart(file.replaceAll('\\', '/'), './');
  const inside = path.posix.normalize(command.into).replace(/\/?$/, '/');
  const page = asked.startsWith(inside) ? asked.slice(inside.length) : asked;
  const files = openFolder(folder);
  if (files.read(page) !== undefined) return { page, element };
  const position = /^(\d+)(?::(\d+))?$/.exec(element);
  const text = sourcePlaces.data.sources.get(asked);
  if (text === undefined) return { page, element };
  const meant = [...sourcePlaces.data.tags].filter(([, tag]) => tag.path === asked);
  const at = position && meantBy(meant, text, Number(position[1]), position[2]);
  const wanted = new Set(at === undefined ? meant.map(([number]) => number) : [at]);
  for (const other of files.list().filter(isBuiltPage)) {
    const found = decodeFile(readFileSync(path.join(folder, other)))?.text ?? '';
    const shown = parsePage(other, found);
    const tag = shown.elements.find(({ tag: own }) => wanted.has(sourceNumberOf(shown, own) ?? -1))?.tag;
    if (tag === undefined) continue;
    if (position === null) return { page: other, element };
    const { line, column } = placeIn(other, found, tag.range.start);
    return { page: other, element: `${line}:${column}` };
  }
  return { page, element };
}

/** The number of the tag that a place means: the last that begins before it; of a line alone, the first on it. */
function meantBy(
  tags: readonly (readonly [number, { readonly range: { readonly start: number; readonly end: number } }])[],
  text: string,
  line: number,
  column: string | undefined,
): number | undefined {
  const start = offsetAt(text, line, 1);
  const end = offsetAt(text, line + 1, 1);
  if (column === undefined)
    return tags.find(([, { range }]) => range.start >= start && range.start < end)?.[0];
  const offset = offsetAt(text, line, Number(column));
  return tags.findLast(([, { range }]) => range.start <= offset)?.[0];
}
