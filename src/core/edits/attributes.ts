// Edits inside one tag: classes added beside those that are there, declarations taken out of the style, old attributes taken
// away, an outdated name made a neutral one.

import { classAttributeOf, classPlace } from '../components/index.js';
import { neutralFor, ownHints } from '../hints/index.js';
import { type Page, type SourceTag, valueOffset } from '../markup/index.js';
import type { Declaration } from '../sheets/index.js';
import type { SourceRange } from '../source.js';
import type { CarriedUnit, Carrier, StyleAttribute } from '../stock/index.js';
import type { Edit } from './edit.js';

/**
 * The edits that take units off a tag and put classes on it.
 * In: the tag; the units to take out; the class names to add. Out: edits on the page's text, or `undefined` where the
 * source cannot be cut.
 */
export function editTag(
  carrier: Carrier,
  units: readonly CarriedUnit[],
  names: readonly string[],
): Edit[] | undefined {
  const { page, tag, element, style } = carrier;
  if (tag === undefined || element === undefined) return undefined;
  const taken = units.filter(({ from }) => from.kind === 'style').flatMap(({ declarations }) => declarations);
  const whole = style !== undefined && taken.length > 0 && isAll(style, taken);
  const gone = units.flatMap(({ from }) => (from.kind === 'attributes' ? from.names : []));
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
    const added = addClasses(page, classRange, names);
    if (added === undefined) return undefined;
    edits.push(added);
  }
  let attribute =
    names.length > 0 && classRange === undefined
      ? `${classAttributeOf(page.path, page.text)}="${names.join(' ')}"`
      : undefined;
  for (const range of removed) {
    if (attribute !== undefined) edits.push({ ...range, text: attribute });
    else edits.push(withSpaceBefore(page.text, tag, range));
    attribute = undefined;
  }
  if (attribute !== undefined) edits.push(newAttribute(carrier, tag, attribute));
  if (units.some(({ from }) => from.kind === 'name')) edits.push(...neutralName(carrier, tag, gone));
  return joined(edits);
}

/** In front of a style attribute that stays, else behind the tag's name. */
function newAttribute({ page, style }: Carrier, tag: SourceTag, attribute: string): Edit {
  if (style !== undefined) return { start: style.range.start, end: style.range.start, text: `${attribute} ` };
  const name = /^<[^\s/>]+/.exec(page.text.slice(tag.range.start, tag.range.end))?.[0].length ?? 1;
  const at = tag.range.start + name;
  return { start: at, end: at, text: ` ${attribute}` };
}

/** `<font>` becomes `<span>`, once nothing else of it is left to say. */
function neutralName({ page, element }: Carrier, tag: SourceTag, gone: readonly string[]): Edit[] {
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

/** Attributes that stood side by side leave one gap, not two that overlap. */
function joined(edits: readonly Edit[]): Edit[] {
  const result: Edit[] = [];
  for (const edit of [...edits].sort((a, b) => a.start - b.start || a.end - b.end)) {
    const last = result.at(-1);
    if (last !== undefined && edit.start < last.end)
      result[result.length - 1] = {
        start: last.start,
        end: Math.max(last.end, edit.end),
        text: last.text + edit.text,
      };
    else result.push(edit);
  }
  return result;
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

function withSpaceBefore(text: string, tag: SourceTag, range: SourceRange): Edit {
  let start = range.start;
  while (start > tag.range.start && /[\t\n\f\r ]/.test(text[start - 1]!)) start--;
  // `<p class=a style="…">` keeps the space that ends an unquoted value only where something follows.
  const follows = /[^\s/>]/.test(text[range.end] ?? '');
  return { start: follows ? range.start : start, end: range.end, text: '' };
}

/** Declarations out of a tag whose style attribute keeps others; `undefined` where the source cannot be cut. */
export function editTagStyle(
  { page, tag, style }: Carrier,
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
  const offset = valueOffset(page, attribute, value);
  if (offset === undefined) return undefined;
  const edits: Edit[] = [];
  for (const { range } of [...taken].sort((a, b) => a.range.start - b.range.start)) {
    const behind = /^\s*(?:;\s*)?/.exec(value.slice(range.end))?.[0].length ?? 0;
    let start = range.start;
    let end = range.end + behind;
    if (end >= value.length) {
      // The last one goes with the space before it; a semicolon at the end stays where there was one.
      end = value.length;
      const ended = /;\s*$/.test(value);
      while (start > 0 && /\s/.test(value[start - 1]!)) start--;
      if (!ended && value[start - 1] === ';') start--;
      while (start > 0 && /\s/.test(value[start - 1]!)) start--;
    }
    const previous = edits.at(-1);
    if (previous !== undefined && previous.end >= offset + start) {
      edits[edits.length - 1] = {
        start: Math.min(previous.start, offset + start),
        end: offset + end,
        text: '',
      };
    } else edits.push({ start: offset + start, end: offset + end, text: '' });
  }
  return edits;
}

/** Cuts entries out of a style that is an object in code; `undefined` where something stands among them that is no declaration. */
function takeEntries(
  page: Page,
  entries: readonly SourceRange[],
  declarations: readonly Declaration[],
  taken: readonly Declaration[],
): Edit[] | undefined {
  if (entries.length !== declarations.length) return undefined;
  return entriesCut(
    page.text,
    entries,
    declarations.map((one) => taken.includes(one)),
  );
}

/** In: which of the entries go; not all of them do. */
export function entriesCut(text: string, entries: readonly SourceRange[], gone: readonly boolean[]): Edit[] {
  const lastKept = gone.lastIndexOf(false);
  return entries.flatMap(({ start, end }, at): Edit[] => {
    if (gone[at] !== true) return [];
    // The last ones go with the comma before them.
    const isFirstOfLast = at === lastKept + 1 && at > 0;
    const before = isFirstOfLast
      ? /\s*,?\s*$/.exec(text.slice(entries[lastKept]!.start, start))![0].length
      : 0;
    return [{ start: start - before, end, text: '' }];
  });
}

function addClasses(page: Page, range: SourceRange, names: readonly string[]): Edit | undefined {
  const source = page.text.slice(range.start, range.end);
  const added = names.join(' ');
  const shape = /^([^=\s]+)(\s*=\s*)?(["']?)([\s\S]*)$/.exec(source)!;
  const quote = shape[3] ?? '';
  if (quote === '' && shape[4]?.startsWith('{') === true) {
    const place = classPlace(page.text, range);
    return place && { start: place.start, end: place.end, text: place.text(added) };
  }
  if (shape[2] === undefined)
    return { start: range.start, end: range.end, text: `${source.trimEnd()}="${added}"` };
  if (quote === '') {
    const start = range.start + shape[1]!.length + shape[2].length;
    return { start, end: range.end, text: `"${shape[4]} ${added}"` };
  }
  const at = range.end - 1;
  const space = /[\s"']$/.test(page.text.slice(range.start, at)) ? '' : ' ';
  return { start: at, end: at, text: space + added };
}
