// Classes out of tags, and what rules ask for in their place, as edits.

import type { SourceRange } from '../../base/source.js';
import type { SiteModel } from '../../cascade/index.js';
import type { Page, SourceTag } from '../../read/markup/index.js';
import type { ClassMove } from '../../search/index.js';
import type { Edit } from './edit.js';
import { withoutWords } from './in-tag.js';
import { push, selectorEdit } from './plan.js';
import type { Edits } from './state.js';

export function planClassMoves(model: SiteModel, moves: readonly ClassMove[]): Edits {
  const edits = new Map<string, Edit[]>();
  // Several elements may be made from one tag.
  const gone = new Map<SourceTag, { readonly page: Page; readonly names: Set<string> }>();
  for (const { name, tags } of moves)
    for (const { page, element } of tags) {
      const known = gone.get(element.tag!) ?? { page, names: new Set() };
      gone.set(element.tag!, known);
      known.names.add(name);
    }
  for (const [tag, { page, names }] of gone) {
    const range = tag.attributes.get('class');
    if (range !== undefined) push(edits, page.path, [withoutWords(page.text, range, names)]);
  }
  for (const { own, selectors } of newSelectors(moves))
    for (const { path, text, offset } of placesOf(own, model))
      push(edits, path, [selectorEdit(text, offset, own.rule, selectors)]);
  return edits;
}

/** Takes classes off tags. In: which tags of the page, by their ranges. */
export function withoutClasses(
  page: Page,
  names: ReadonlySet<string>,
  isMeant: (tag: SourceRange) => boolean,
): Edit[] {
  const tags = new Set<SourceTag>();
  for (const { tag, classes } of page.elements)
    if (tag !== undefined && classes.some((name) => names.has(name)) && isMeant(tag.range)) tags.add(tag);
  return [...tags].flatMap((tag) => {
    const range = tag.attributes.get('class');
    return range === undefined ? [] : [withoutWords(page.text, range, names)];
  });
}

/** The moves of one round rewrite different classes: a rule that asks for two of them is left for the next. */
function newSelectors(moves: readonly ClassMove[]): ClassMove['rules'][number][] {
  const found = new Map<unknown, ClassMove['rules'][number]>();
  for (const one of moves.flatMap(({ rules }) => rules)) found.set(one.own, one);
  return [...found.values()];
}

function placesOf(
  { sheet, places }: ClassMove['rules'][number]['own'],
  { sources }: SiteModel,
): { path: string; text: string; offset: number }[] {
  if (sheet !== undefined) return [{ path: sheet, text: sources.sheets.get(sheet) ?? '', offset: 0 }];
  return places.map(({ page, reference }) => ({
    path: page.path,
    text: page.text,
    offset: reference.offset ?? 0,
  }));
}
