// Edits of a tag as text: what goes leaves no gap, and all else stays as it is written. The same for tags of pages and of sources.

import { either, endsWithOneOf, hasOneOf, not, SPACE } from '../../base/characters.js';
import type { SourceRange } from '../../base/source.js';
import { classAttribute, classPlace } from '../../read/components/index.js';
import type { Declaration } from '../../read/sheets/index.js';
import type { Edit } from './edit.js';

/** A whole attribute goes with the space before it. In: the offset where its tag begins. */
export function withoutAttribute(text: string, tagStart: number, range: SourceRange): Edit {
  let start = range.start;
  while (start > tagStart && hasOneOf(text[start - 1]!, '\t\n\f\r ')) start--;
  // `<p class=a style="…">` keeps the space that ends an unquoted value only where something follows.
  const follows = hasOneOf(text[range.end] ?? '', not(either(SPACE, '/>')));
  return { start: follows ? range.start : start, end: range.end, text: '' };
}

/** Attributes that stood side by side leave one gap, not two that overlap. */
export function joined(edits: readonly Edit[]): Edit[] {
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

/** Cuts declarations out of a style, each with its semicolon and the space behind it. In: where the style begins in the file. */
export function withoutDeclarations(value: string, offset: number, taken: readonly Declaration[]): Edit[] {
  const cuts: { start: number; end: number }[] = [];
  for (const { range } of [...taken].sort((a, b) => a.range.start - b.range.start)) {
    const behind = /^\s*(?:;\s*)?/.exec(value.slice(range.end))?.[0].length ?? 0;
    const end = range.end + behind;
    const previous = cuts.at(-1);
    if (previous !== undefined && previous.end >= range.start) previous.end = end;
    else cuts.push({ start: range.start, end });
  }
  const last = cuts.at(-1);
  if (last !== undefined && last.end >= value.length) {
    // What stands last goes with the space before it; a semicolon at the end stays where there was one.
    const before = /;\s*$/.test(value) ? /\s*$/ : /\s*;?\s*$/;
    last.start -= before.exec(value.slice(0, last.start))![0].length;
  }
  return cuts.map(({ start, end }) => ({ start: offset + start, end: offset + end, text: '' }));
}

/** Cuts entries out of a style that is an object in code. In: which of the entries go; not all of them do. */
export function withoutEntries(
  text: string,
  entries: readonly SourceRange[],
  gone: readonly boolean[],
): Edit[] {
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

/** Names behind those of a class attribute; `undefined` where code writes it so that no word may simply be added. */
export function withClasses(text: string, range: SourceRange, names: readonly string[]): Edit | undefined {
  const source = text.slice(range.start, range.end);
  const shape = /^([^=\s]+)(\s*=\s*)?(["']?)([\s\S]*)$/.exec(source)!;
  const quote = shape[3] ?? '';
  if (quote === '' && shape[4]?.startsWith('{') === true) {
    const place = classPlace(text, range);
    return place && { start: place.start, end: place.end, text: place.text(names) };
  }
  const isAsked = names.some((name) => name.startsWith('${'));
  if (shape[2] === undefined || isAsked) {
    const own = shape[2] === undefined ? '' : shape[4]!.replace(/["']$/, '').trim();
    const text = classAttribute(shape[1]!.trimEnd(), own === '' ? names : [own, ...names]);
    return { start: range.start, end: range.end, text };
  }
  const added = names.join(' ');
  if (quote === '') {
    const start = range.start + shape[1]!.length + shape[2].length;
    return { start, end: range.end, text: `"${shape[4]} ${added}"` };
  }
  const at = range.end - 1;
  const space = endsWithOneOf(text.slice(range.start, at), either(SPACE, '"\'')) ? '' : ' ';
  return { start: at, end: at, text: space + added };
}

/** The attribute without names; it goes with the last of them. In: the names to put in their place. */
export function withoutWords(
  text: string,
  { start, end }: SourceRange,
  names: ReadonlySet<string>,
  instead: readonly string[] = [],
): Edit {
  const source = text.slice(start, end);
  const match = /^([^=]*=\s*)(["']?)([\s\S]*?)(["']?)$/.exec(source)!;
  const left = match[3]!.split(/\s+/).filter((one) => one !== '' && !names.has(one));
  const all = [...left, ...instead];
  if (all.length > 0) return { start, end, text: `${match[1]}${match[2]}${all.join(' ')}${match[4]}` };
  const before = /\s*$/.exec(text.slice(0, start))![0].length;
  return { start: start - before, end, text: '' };
}
