// One tag of a source, edited as its renderings are to change.

import { classAttributeOf, classPlace } from '../components/index.js';
import { type Edit, entriesCut } from '../edits/index.js';
import { hasTemplateText } from '../markup/index.js';
import { parseDeclarations } from '../sheets/index.js';
import type { SourceRange } from '../source.js';
import type { KeptReason } from '../stock/index.js';
import type { OriginTag } from './mark.js';
import { declarationKey, type TagChange } from './tag-change.js';

/** In: the text of the source. Out: edits on it, or why the tag must stay as it is. */
export function editSource(text: string, tag: OriginTag, change: TagChange): Edit[] | KeptReason {
  const edits: Edit[] = [];
  let place: SourceRange | undefined;
  for (const name of change.gone) {
    const range = tag.attributes.get(name);
    if (range === undefined || hasTemplateText(text.slice(range.start, range.end))) return BY_CODE;
    place ??= range;
    edits.push(withSpaceBefore(text, range));
  }
  if (change.declarations.length > 0) {
    const range = tag.attributes.get('style');
    const cut =
      range &&
      (tag.styleObject === undefined
        ? cutStyle(text, range, change.declarations)
        : cutEntries(text, tag.styleObject, change.declarations));
    if (cut === undefined) return BY_CODE;
    if (cut === 'all') {
      place ??= range;
      edits.push(withSpaceBefore(text, range!));
    } else edits.push(...cut);
  }
  const classes = changeClasses(text, tag, change, place);
  return classes === undefined ? BY_CODE : joined([...edits, ...classes]);
}

const BY_CODE: KeptReason = { kind: 'written by code' };

/** The value of an attribute in quotes, and where it begins; `undefined` where an engine or nobody writes it so. */
function literalOf(text: string, { start, end }: SourceRange): { value: string; at: number } | undefined {
  const match = /^[^\s=]+\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s"'{}]+))$/.exec(text.slice(start, end));
  const value = match?.[1] ?? match?.[2] ?? match?.[3];
  if (match === null || value === undefined) return undefined;
  const isQuoted = match[3] === undefined;
  return { value, at: end - value.length - (isQuoted ? 1 : 0) };
}

/** Out: edits that cut declarations out of a style attribute; `all` where nothing of it is left. */
function cutStyle(text: string, range: SourceRange, gone: readonly string[]): Edit[] | 'all' | undefined {
  const literal = literalOf(text, range);
  if (literal === undefined || hasTemplateText(literal.value) || literal.value.includes('&'))
    return undefined;
  const { declarations } = parseDeclarations(literal.value);
  const left = [...gone];
  const taken = declarations.filter((one) => {
    const at = left.indexOf(declarationKey(one));
    if (at >= 0) left.splice(at, 1);
    return at >= 0;
  });
  if (left.length > 0) return undefined;
  if (taken.length === declarations.length) return 'all';
  return taken.map(({ range: own }) => {
    const behind = /^\s*;?\s*/.exec(literal.value.slice(own.end))![0].length;
    const isLast = own.end + behind >= literal.value.length;
    const before = isLast ? /\s*;?\s*$/.exec(literal.value.slice(0, own.start))![0] : '';
    const keepsEnd = isLast && /;\s*$/.test(literal.value) && before.includes(';');
    return {
      start: literal.at + own.start - before.length + (keepsEnd ? before.indexOf(';') + 1 : 0),
      end: literal.at + own.end + behind,
      text: '',
    };
  });
}

/** The same for a style that is an object in code. */
function cutEntries(
  text: string,
  { style, entries }: NonNullable<OriginTag['styleObject']>,
  gone: readonly string[],
): Edit[] | 'all' | undefined {
  const { declarations } = parseDeclarations(style);
  if (declarations.length !== entries.length) return undefined;
  const left = [...gone];
  const taken = declarations.map((one) => {
    const at = left.indexOf(declarationKey(one));
    if (at >= 0) left.splice(at, 1);
    return at >= 0;
  });
  if (left.length > 0) return undefined;
  return taken.every(Boolean) ? 'all' : entriesCut(text, entries, taken);
}

/** Out: `undefined` where the classes are not written as words. */
function changeClasses(
  text: string,
  tag: OriginTag,
  { added, removed }: TagChange,
  place: SourceRange | undefined,
): Edit[] | undefined {
  if (added.length + removed.length === 0) return [];
  const range = tag.attributes.get('class');
  if (range === undefined) {
    if (removed.length > 0) return undefined;
    const attribute = `${classAttributeOf(tag.path, text)}="${added.join(' ')}"`;
    // The new class takes the place of what it stands for.
    if (place !== undefined) return [{ start: place.start, end: place.start, text: attribute }];
    const at = tag.range.start + 1 + tag.name.length;
    return [{ start: at, end: at, text: ` ${attribute}` }];
  }
  const written = text.slice(range.start, range.end);
  const quoted = /^[^\s=]+\s*=\s*(["'])([\s\S]*)\1$/.exec(written);
  if (quoted === null) {
    const code = removed.length > 0 ? undefined : classPlace(text, range);
    return code && [{ start: code.start, end: code.end, text: code.text(added.join(' ')) }];
  }
  const [, , value = ''] = quoted;
  const at = range.end - 1 - value.length;
  const words = [...value.matchAll(/\S+/g)];
  const gone = removed.map((name) => words.find(([word]) => word === name));
  if (gone.includes(undefined)) return undefined;
  if (removed.length > 0 && added.length === 0 && words.length === removed.length)
    return [withSpaceBefore(text, range)];
  const edits = gone.map((word): Edit => {
    const start = at + word!.index;
    const isFirst = value.slice(0, word!.index).trim() === '';
    const space = (isFirst ? /^\s*/ : /\s*$/).exec(
      isFirst ? value.slice(word!.index + word![0].length) : value.slice(0, word!.index),
    )![0].length;
    return isFirst
      ? { start, end: start + word![0].length + space, text: '' }
      : { start: start - space, end: start + word![0].length, text: '' };
  });
  if (added.length === 0) return edits;
  const end = at + value.trimEnd().length;
  const isEmpty = value.trim() === '' || words.length === removed.length;
  return [...edits, { start: end, end, text: `${isEmpty ? '' : ' '}${added.join(' ')}` }];
}

function withSpaceBefore(text: string, { start, end }: SourceRange): Edit {
  const space = /\s*$/.exec(text.slice(Math.max(0, start - 200), start))![0].length;
  const follows = /[^\s/>]/.test(text[end] ?? '');
  return { start: follows ? start : start - space, end, text: '' };
}

/** A class that is put where an attribute goes keeps the space in front of it. */
function joined(edits: readonly Edit[]): Edit[] {
  const result: Edit[] = [];
  for (const edit of [...edits].sort((a, b) => a.start - b.start || a.end - b.end)) {
    const last = result.at(-1);
    if (
      last !== undefined &&
      edit.text !== '' &&
      last.text === '' &&
      edit.start > last.start &&
      edit.start < last.end
    )
      result[result.length - 1] = { start: edit.start, end: last.end, text: edit.text };
    else if (last !== undefined && edit.start < last.end)
      result[result.length - 1] = {
        start: last.start,
        end: Math.max(last.end, edit.end),
        text: last.text + edit.text,
      };
    else result.push(edit);
  }
  return result;
}
