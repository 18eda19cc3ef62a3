// Custom properties that get another name: in every style that mentions them, and in no case where somebody else may.

import { ident } from 'css-tree/utils';
import { endsWithOneOf } from '../../base/characters.js';
import { refusalText } from '../../base/reasons/index.js';
import { placeIn } from '../../base/source.js';
import type { SiteModel } from '../../cascade/index.js';
import { type Edit, type Edits, push } from '../../edit/text/index.js';
import type { Difference, StyleDifference } from '../../proof/index.js';
import { isComponentFile } from '../../read/kinds/index.js';
import { maskTemplateText, type Page } from '../../read/markup/index.js';
import { Token, tokenize, tokenText } from '../../read/sheets/tokens.js';
import { usesVariables } from '../../read/sheets/variables.js';

/** By old name, the new one. */
export type Renamings = ReadonlyMap<string, string>;

/** Where names may stand that the model has no styles of. */
export interface RenameTexts {
  /** Texts of the site's local scripts, by path. */
  readonly scripts: ReadonlyMap<string, string>;
  /** In: a name. Out: texts of files that hold it and are neither page, sheet nor script of a page. */
  readonly othersWith: (name: string) => ReadonlyMap<string, string>;
  /** Whether a file may be written. */
  readonly isOwn: (path: string) => boolean;
}

export interface RenamedNames {
  readonly edits: Edits;
  readonly refused: readonly { readonly property: string; readonly why: string }[];
}

/** In: names that are declared, each with one that is not yet. */
export function renameNames(model: SiteModel, names: Renamings, texts: RenameTexts): RenamedNames {
  const edits = new Map<string, Edit[]>();
  const refused: { property: string; why: string }[] = [];
  for (const [from, to] of names) {
    const found = editsOf(model, from, to, texts);
    if (typeof found === 'string') refused.push({ property: from, why: found });
    else for (const [path, own] of found) push(edits, path, own);
  }
  return { edits, refused };
}

/** Out: why there are none, where a name stands in what may not be written, or may mean something else. */
function editsOf(
  model: SiteModel,
  from: string,
  to: string,
  { scripts, othersWith, isOwn }: RenameTexts,
): Map<string, Edit[]> | string {
  const edits = new Map<string, Edit[]>();
  for (const [path, text] of model.sources.sheets) {
    if (hasWord(text, to))
      return refusalText('new name there', { to, place: placeIn(path, text, wordsIn(text, to)[0]!) });
    const own = namesIn(text, from);
    if (own.length > 0 && !isOwn(path))
      return refusalText('named in what is not yours', { place: placeIn(path, text, own[0]!.start) });
    push(
      edits,
      path,
      own.map((one) => ({ ...one, text: to })),
    );
  }
  for (const [path, text] of model.sources.pages) {
    if (hasWord(text, to))
      return refusalText('new name there', { to, place: placeIn(path, text, wordsIn(text, to)[0]!) });
    if (!hasWord(text, from)) continue;
    const found = inPage(model.page(path)!, from, to);
    if (typeof found === 'number')
      return refusalText('named outside a style', { place: placeIn(path, text, found) });
    push(edits, path, found);
  }
  for (const [path, text] of scripts) {
    const found = inScript(text, from, to);
    const [first] = [...wordsIn(text, to), ...found.unsure, ...(isOwn(path) ? [] : found.edits.map(startOf))];
    if (first !== undefined) return refusalText('named by a script', { place: placeIn(path, text, first) });
    push(edits, path, found.edits);
  }
  for (const [path, text] of othersWith(from)) {
    const [first] = wordsIn(text, from);
    if (first !== undefined)
      return refusalText('named where nothing is read', { place: placeIn(path, text, first) });
  }
  return edits;
}

const startOf = ({ start }: Edit): number => start;

/** Out: edits; or the offset of what nobody can be sure of. */
function inPage(page: Page, from: string, to: string): Edit[] | number {
  const { text, path } = page;
  const edits: Edit[] = [];
  const inCss = (start: number, end: number): void => {
    for (const one of namesIn(text.slice(start, end), from))
      edits.push({ start: start + one.start, end: start + one.end, text: to });
  };
  const tags: { start: number; end: number }[] = page.inert.map(({ range }) => range);
  for (const { tag } of page.elements) {
    if (tag === undefined) continue;
    tags.push(tag.range);
    // A presentation attribute takes values too.
    for (const [name, { start, end }] of tag.attributes)
      if (name === 'style' || usesVariables(text.slice(start, end))) {
        const value = /^[^=]*=\s*["']?/.exec(text.slice(start, end))?.[0].length ?? 0;
        inCss(start + value, end - (endsWithOneOf(text.slice(start, end), '"\'') ? 1 : 0));
      }
  }
  for (const sheet of page.sheets)
    if (sheet.kind === 'block' && sheet.offset !== undefined)
      inCss(sheet.offset, sheet.offset + sheet.text.length);
  for (const { start, end } of page.inertBlocks) inCss(start, end);
  const masked = maskTemplateText(text);
  const scripts = page.scripts.flatMap((script) => (script.kind === 'inline' ? [script] : []));
  for (const script of scripts) {
    if (script.how !== 'script') continue;
    const found = inScript(script.text, from, to);
    for (const one of found.edits)
      edits.push({ ...one, start: one.start + script.offset, end: one.end + script.offset });
  }
  const known = new Set(edits.map(startOf));
  const isInside = (at: number, { start, end }: { start: number; end: number }): boolean =>
    start <= at && at < end;
  const doubt = wordsIn(text, from).find(
    (at) =>
      !known.has(at) &&
      (isComponentFile(path) ||
        masked[at] !== text[at] ||
        tags.some((one) => isInside(at, one)) ||
        scripts.some(({ offset, text: own }) => isInside(at, { start: offset, end: offset + own.length }))),
  );
  return doubt ?? edits;
}

/** What sets or reads the property, and `var()` in a string, is sure; any other word of a script may be anything. */
function inScript(text: string, from: string, to: string): { edits: Edit[]; unsure: number[] } {
  const sure = new RegExp(
    `(?:\\.(?:setProperty|getPropertyValue|removeProperty)\\(\\s*["'\`]|\\bvar\\(\\s*)(${escaped(from)})(?![\\w-])`,
    'g',
  );
  const edits = [...text.matchAll(sure)].map((match): Edit => {
    const end = match.index + match[0].length;
    return { start: end - from.length, end, text: to };
  });
  const known = new Set(edits.map(startOf));
  return { edits, unsure: wordsIn(text, from).filter((at) => !known.has(at)) };
}

/** Where CSS declares the name, as a whole identifier, outside strings and comments. */
function namesIn(css: string, name: string): { start: number; end: number }[] {
  if (!css.includes('--') && !css.includes('\\')) return [];
  const tokens = tokenize(css);
  const found: { start: number; end: number }[] = [];
  for (let at = 0; at < tokens.count; at++) {
    if (tokens.types[at] !== Token.Ident) continue;
    const text = tokenText(tokens, at);
    if (text === name || (text.includes('\\') && ident.decode(text) === name))
      found.push({ start: tokens.starts[at]!, end: tokens.starts[at + 1]! });
  }
  return found;
}

function wordsIn(text: string, name: string): number[] {
  if (!text.includes(name)) return [];
  return [...text.matchAll(new RegExp(`(?<![\\w-])${escaped(name)}(?![\\w-])`, 'g'))].map(
    ({ index }) => index,
  );
}

function hasWord(text: string, name: string): boolean {
  return wordsIn(text, name).length > 0;
}

function escaped(name: string): string {
  return name.replace(/[^\w-]/g, '\\$&');
}

/** A text with the names that it says renamed. */
export function renamedText(text: string, names: Renamings): string {
  let result = text;
  for (const [from, to] of names)
    for (const { start, end } of namesIn(result, from).reverse())
      result = result.slice(0, start) + to + result.slice(end);
  return result;
}

/**
 * The differences that are more than the names: an element whose declarations, with every name put in, are those of the other
 * state looks as it did, since a name says nothing but which property is meant.
 */
export function beyondNames(differences: readonly Difference[], names: Renamings): Difference[] {
  if (names.size === 0) return [...differences];
  const form = (list: StyleDifference['before']): string =>
    list.map(({ value, condition }) => renamedText(`${value}?${condition}`, names)).join('|');
  const keyOf = ({ page, element, target }: StyleDifference, property: string): string =>
    `${page} ${element} ${target} ${property}`;
  const styles = differences.filter((one) => one.kind === 'style');
  const byKey = new Map(styles.map((one) => [keyOf(one, one.property), one]));
  const olds = new Map([...names].map(([from, to]) => [to, from]));
  const isName = (one: StyleDifference): boolean => {
    const { property, before, after } = one;
    const old = olds.get(property);
    const fresh = names.get(property);
    if (fresh !== undefined) {
      const other = byKey.get(keyOf(one, fresh));
      return after.length === 0 && other?.before.length === 0 && form(before) === form(other.after);
    }
    if (old !== undefined) {
      const other = byKey.get(keyOf(one, old));
      return before.length === 0 && other?.after.length === 0 && form(other.before) === form(after);
    }
    return before.length + after.length > 0 && form(before) === form(after);
  };
  return differences.filter((one) => one.kind !== 'style' || !isName(one));
}
