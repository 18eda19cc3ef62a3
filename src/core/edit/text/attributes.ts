// Edits inside one tag: classes added beside those that are there, declarations taken out of the style, old attributes taken
// away, an outdated name made a neutral one.

import { INVISIBLE_MARK } from '../../base/engine-marks.js';
import type { SourceRange } from '../../base/source.js';
import { classAttribute, classAttributeOf } from '../../read/components/index.js';
import { neutralFor, ownHints } from '../../read/hints/index.js';
import { type Page, type SourceTag, valueOffset } from '../../read/markup/index.js';
import type { Declaration } from '../../read/sheets/index.js';
import type { MovableDeclaration, StyleAttribute, StyledTag } from '../../stock/index.js';
import type { Edit } from './edit.js';
import { joined, withClasses, withoutAttribute, withoutDeclarations, withoutEntries } from './in-tag.js';

/**
 * The edits that take movable declarations off a tag and put classes on it.
 * In: the tag; the movable declarations to take out; the class names to add. Out: edits on the page's text, or `undefined` where the
 * source cannot be cut.
 */
export function editTag(
  styledTag: StyledTag,
  movables: readonly MovableDeclaration[],
  names: readonly string[],
): Edit[] | undefined {
  const { page, tag, element, style } = styledTag;
  if (tag === undefined || element === undefined) return undefined;
  const taken = movables
    .filter(({ from }) => from.kind === 'style')
    .flatMap(({ declarations }) => declarations);
  const whole = style !== undefined && taken.length > 0 && isAll(style, taken);
  const gone = movables.flatMap(({ from }) => (from.kind === 'attributes' ? from.names : []));
  const edits: Edit[] = [];
  if (taken.length > 0 && !whole) {
    const cut = style === undefined ? undefined : takeOut(page, tag, style, taken);
    if (cut === undefined) return undefined;
    edits.push(...cut);
  }
  // Whole attributes go; the new class takes the place of the first of them.
  const removed = [...(whole ? ['style'] : []), ...gone]
    .flatMap((name) => tag.attributes.get(name) ?? [])
    .sort((a, b) => a.start - b.start);
  if (removed.length < gone.length + (whole ? 1 : 0)) return undefined;
  const classRange = tag.attributes.get('class');
  if (names.length > 0 && classRange !== undefined) {
    const added = withClasses(page.text, classRange, names);
    if (added === undefined) return undefined;
    edits.push(added);
  }
  let attribute =
    names.length > 0 && classRange === undefined
      ? classAttribute(classAttributeOf(page.path, page.text), names)
      : undefined;
  for (const range of removed) {
    if (attribute !== undefined) edits.push({ ...range, text: attribute });
    else edits.push(withoutAttribute(page.text, tag.range.start, range));
    attribute = undefined;
  }
  if (attribute !== undefined) edits.push(newAttribute(styledTag, tag, attribute));
  if (movables.some(({ from }) => from.kind === 'name')) edits.push(...neutralName(styledTag, tag, gone));
  return joined(edits);
}

/** In front of a style attribute that stays, else behind the tag's name. */
function newAttribute({ page, style }: StyledTag, tag: SourceTag, attribute: string): Edit {
  if (style !== undefined) return { start: style.range.start, end: style.range.start, text: `${attribute} ` };
  const name = /^<[^\s/>]+/.exec(page.text.slice(tag.range.start, tag.range.end))?.[0].length ?? 1;
  const at = tag.range.start + name;
  return { start: at, end: at, text: ` ${attribute}` };
}

/** `<font>` becomes `<span>`, once nothing else of it is left to declare. */
function neutralName({ page, element }: StyledTag, tag: SourceTag, gone: readonly string[]): Edit[] {
  const neutral = element && neutralFor(element.name);
  const end = element && page.outdatedEnds.get(element.index);
  if (element === undefined || neutral === undefined || end === undefined) return [];
  const left = ownHints(page, element).some(({ attribute }) => attribute && !gone.includes(attribute));
  if (left) return [];
  const { length } = element.name;
  return [
    { start: tag.range.start + 1, end: tag.range.start + 1 + length, text: neutral },
    { start: end + 2, end: end + 2 + length, text: neutral },
  ];
}

/** Whether these are all declarations, and the attribute holds nothing else that a person would miss. */
function isAll({ value, declarations }: StyleAttribute, taken: readonly Declaration[]): boolean {
  if (taken.length !== declarations.length) return false;
  let rest = '';
  let at = 0;
  for (const { range } of declarations) {
    rest += value.slice(at, range.start);
    at = range.end;
  }
  return /^[\s;]*$/.test(rest + value.slice(at));
}

/** Declarations out of a tag whose style attribute keeps others; `undefined` where the source cannot be cut. */
export function editTagStyle(
  { page, tag, style }: StyledTag,
  taken: readonly Declaration[],
): Edit[] | undefined {
  return style === undefined ? undefined : takeOut(page, tag, style, taken);
}

/** Cuts declarations out of the value, each with its semicolon and the space behind it. */
function takeOut(
  page: Page,
  tag: SourceTag | undefined,
  { range: attribute, value, declarations }: StyleAttribute,
  taken: readonly Declaration[],
): Edit[] | undefined {
  if (tag?.styleEntries !== undefined) return takeEntries(page, tag.styleEntries, declarations, taken);
  // In the source nothing marks what an engine reads.
  const plain = value.replaceAll(INVISIBLE_MARK, '');
  const offset = valueOffset(page, attribute, plain);
  if (offset === undefined) return undefined;
  const before = (at: number): number => at - value.slice(0, at).split(INVISIBLE_MARK).length + 1;
  const inSource = taken.map((one) => ({
    ...one,
    range: { start: before(one.range.start), end: before(one.range.end) },
  }));
  return withoutDeclarations(plain, offset, inSource);
}

/** Cuts entries out of a style that is an object in code; `undefined` where something stands among them that is no declaration. */
function takeEntries(
  page: Page,
  entries: readonly SourceRange[],
  declarations: readonly Declaration[],
  taken: readonly Declaration[],
): Edit[] | undefined {
  if (entries.length !== declarations.length) return undefined;
  return withoutEntries(
    page.text,
    entries,
    declarations.map((one) => taken.includes(one)),
  );
}
