// Edits inside one start tag: classes added beside those that are there, declarations taken out of the style.

import { type Page, type SourceTag, valueOffset } from '../markup/index.js';
import type { Declaration } from '../sheets/index.js';
import type { SourceRange } from '../source.js';
import type { Carrier } from '../stock/index.js';
import type { Edit } from './edit.js';

/**
 * The edits that move declarations from a style attribute to classes.
 * In: the attribute; the declarations to take out; the class names to add. Out: edits on the page's text, or
 * `undefined` where the attribute's source cannot be cut.
 */
export function moveToClasses(
  carrier: Carrier,
  taken: readonly Declaration[],
  names: readonly string[],
): Edit[] | undefined {
  const { page, tag, element } = carrier;
  if (tag === undefined || element === undefined) return undefined;
  const all = taken.length === carrier.declarations.length && isOnlyDeclarations(carrier);
  const classRange = tag.attributes.get('class');
  if (classRange === undefined) {
    const attribute = `class="${names.join(' ')}"`;
    if (all) return [{ ...carrier.range, text: attribute }];
    const cut = takeOut(carrier, taken);
    return cut && [{ start: carrier.range.start, end: carrier.range.start, text: `${attribute} ` }, ...cut];
  }
  const cut = all ? [withSpaceBefore(page.text, tag, carrier.range)] : takeOut(carrier, taken);
  return cut && [addClasses(page, classRange, names), ...cut];
}

/** Whether the style attribute holds nothing but its declarations: no comment, no text that a browser skips. */
function isOnlyDeclarations({ value, declarations }: Carrier): boolean {
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

/** Cuts declarations out of the value, each with its semicolon and the space behind it. */
function takeOut(carrier: Carrier, taken: readonly Declaration[]): Edit[] | undefined {
  const offset = valueOffset(carrier.page, carrier.range, carrier.value);
  if (offset === undefined) return undefined;
  const { value } = carrier;
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

function addClasses(page: Page, range: SourceRange, names: readonly string[]): Edit {
  const source = page.text.slice(range.start, range.end);
  const added = names.join(' ');
  const shape = /^([^=\s]+)(\s*=\s*)?(["']?)([\s\S]*)$/.exec(source)!;
  const quote = shape[3] ?? '';
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
