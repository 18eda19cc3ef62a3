// Edits of built pages as edits of their sources. One tag of a source may make tags on many pages: they all change alike, or
// none of them does.

import type { KeptReason } from '../../base/reasons/index.js';
import type { SiteModel } from '../../cascade/index.js';
import type { Page, SourceTag } from '../../read/markup/index.js';

import { type Edit, type Edits, push } from '../text/index.js';
import { editSource } from './edit-source.js';
import type { SourcePlaces } from './source-places.js';
import { isNothing, type TagChange, tagChange } from './tag-change.js';

export interface CarriedOver {
  /** By path of a source; a path that no source has is a new sheet. */
  readonly edits: Edits;
  /** By number of a tag, why it must stay as it is. */
  readonly refused: ReadonlyMap<number, KeptReason>;
  /** Pages that are to link the sheet that is new to them. */
  readonly unlinked: readonly string[];
  /** Pages with edits that no source could take. */
  readonly stray: readonly string[];
}

/**
 * In: the built pages, edits on them and on built sheets, and where a sheet that is to come would stand in the sources.
 * Out: the edits of the sources, as far as these can take them.
 */
export function carryOver(
  model: SiteModel,
  sourcePlaces: SourcePlaces,
  edits: Edits,
  placeNew: (sheet: string) => string | undefined,
): CarriedOver {
  const found = new Map<number, Rendering[]>();
  const unlinked: string[] = [];
  const stray: string[] = [];
  for (const page of model.pages) {
    const rest = new Set(edits.get(page.path) ?? []);
    for (const { tag } of page.elements) {
      const sourcePlace = sourcePlaces.of(page, tag);
      if (sourcePlace === undefined || tag === undefined) continue;
      const own = [...rest].filter(({ start, end }) => start > tag.range.start && end < tag.range.end);
      for (const edit of own) rest.delete(edit);
      const known = found.get(sourcePlace.number);
      if (known === undefined) found.set(sourcePlace.number, [{ page, tag, own }]);
      else known.push({ page, tag, own });
    }
    for (const { text } of rest) (/^\s*<link\s/.test(text) ? unlinked : stray).push(page.path);
  }
  const carried = new Map<string, Edit[]>();
  const refused = new Map<number, KeptReason>();
  for (const [number, renderings] of found) {
    if (renderings.every(({ own }) => own.length === 0)) continue;
    const made = carryTag(sourcePlaces, number, renderings);
    if ('kind' in made) refused.set(number, made);
    else push(carried, sourcePlaces.data.tags.get(number)!.path, made);
  }
  for (const [path, own] of edits) {
    if (model.sources.pages.has(path)) continue;
    const source = sourcePlaces.data.sheets.get(path) ?? placeNew(path);
    if (source === undefined) stray.push(path);
    else push(carried, source, own);
  }
  return { edits: carried, refused, unlinked: [...new Set(unlinked)], stray: [...new Set(stray)] };
}

interface Rendering {
  readonly page: Page;
  readonly tag: SourceTag;
  readonly own: readonly Edit[];
}

function carryTag(
  sourcePlaces: SourcePlaces,
  number: number,
  renderings: readonly Rendering[],
): Edit[] | KeptReason {
  let one: TagChange | undefined;
  let form: string | undefined;
  for (const { page, tag, own } of renderings) {
    const change = tagChange(page.text, tag.range, own);
    if (change === undefined) return { kind: 'written by code' };
    const key = JSON.stringify(change);
    if (form !== undefined && form !== key) return { kind: 'renderings differ' };
    one = change;
    form = key;
  }
  const tag = sourcePlaces.data.tags.get(number)!;
  if (one === undefined || isNothing(one)) return [];
  return editSource(sourcePlaces.data.sources.get(tag.path) ?? '', tag, one);
}
