// Of declarations in one tag that depend on each other, those that a rule declares by now: what is the element's own stays, and
// only that.

import type { SiteModel } from '../../cascade/index.js';
import { type Edit, type Edits, editTagStyle, push, stateAfter } from '../../edit/text/index.js';
import { hintDeclarations } from '../../read/hints/index.js';
import type { Declaration } from '../../read/sheets/index.js';
import { declarationKey, type StyledTag, unreadSheetOf } from '../../stock/index.js';

/** A declaration that leaves its tag. */
export interface PartGiven {
  readonly styledTag: StyledTag;
  readonly declaration: Declaration;
  readonly key: string;
}

export interface PartGivenResult {
  readonly parts: readonly PartGiven[];
  readonly edits: Edits;
  readonly after: SiteModel;
}

/** In: a state, its tags that carry styling, and whether a person would have a declaration gone. */
export function takePartGiven(
  model: SiteModel,
  styledTags: readonly StyledTag[],
  isWanted: (part: PartGiven) => boolean,
): PartGivenResult {
  const parts: PartGiven[] = [];
  const edits = new Map<string, Edit[]>();
  for (const styledTag of styledTags) {
    const own = givenIn(model, styledTag).filter(isWanted);
    const changes =
      own.length === 0
        ? undefined
        : editTagStyle(
            styledTag,
            own.map(({ declaration }) => declaration),
          );
    if (changes === undefined) continue;
    parts.push(...own);
    push(edits, styledTag.page.path, changes);
  }
  return { parts, edits, after: parts.length === 0 ? model : stateAfter(model, edits) };
}

function givenIn(model: SiteModel, styledTag: StyledTag): PartGiven[] {
  const { page, element, style, movables, tag } = styledTag;
  if (element === undefined || style === undefined || tag === undefined || !style.literal) return [];
  if (unreadSheetOf(model, page) !== undefined) return [];
  const given: Declaration[] = [];
  for (const { declarations, from, objection } of movables) {
    if (from.kind !== 'style' || objection !== undefined || declarations.length < 2) continue;
    // The last one is the element's own: what it says over was found to differ.
    for (const one of declarations.slice(0, -1))
      if (isGiven(model, styledTag, [...given, one])) given.push(one);
  }
  return given.map((declaration) => ({
    styledTag,
    declaration,
    key: declarationKey(declaration, page.path),
  }));
}

function isGiven(
  model: SiteModel,
  { page, element, style }: StyledTag,
  gone: readonly Declaration[],
): boolean {
  const left = style!.declarations
    .filter((one) => !gone.includes(one))
    .map(({ property, value, important }) => `${property}:${value}${important ? '!important' : ''}`);
  const own = { style: left.join(';'), hints: hintDeclarations(page, element!) };
  return model
    .readersOf(page)
    .every(
      (reader) =>
        reader.trialNumber(reader.matchedSheets(element!.index), own, []) ===
        reader.outcomeNumber(element!.index),
    );
}
