// One tag of a source, edited as its renderings are to change.

import type { KeptReason } from '../../base/reasons/index.js';
import type { SourceRange } from '../../base/source.js';
import { isOpaque, writtenDeclarations } from '../../cascade/index.js';
import { classAttributeOf } from '../../read/components/index.js';
import { hasTemplateText } from '../../read/markup/index.js';

import {
  type Edit,
  joined,
  withClasses,
  withoutAttribute,
  withoutDeclarations,
  withoutEntries,
  withoutWords,
} from '../text/index.js';
import type { MarkedTag } from './mark.js';
import { declarationKey, type TagChange } from './tag-change.js';

/** In: the text of the source. Out: edits on it, or why the tag must stay as it is. */
export function editSource(text: string, tag: MarkedTag, change: TagChange): Edit[] | KeptReason {
  const edits: Edit[] = [];
  const whole: SourceRange[] = [];
  for (const name of change.gone) {
    const range = tag.attributes.get(name);
    if (range === undefined || hasTemplateText(text.slice(range.start, range.end))) return BY_CODE;
    whole.push(range);
  }
  if (change.declarations.length > 0) {
    const range = tag.attributes.get('style');
    const cut = range && cutStyle(text, range, tag, change.declarations);
    if (range === undefined || cut === undefined) return BY_CODE;
    if (cut === 'all') whole.push(range);
    else edits.push(...cut);
  }
  const classRange = tag.attributes.get('class');
  const names = [...change.added];
  if (classRange !== undefined && names.length + change.removed.length > 0) {
    const edit = changeClasses(text, classRange, change);
    if (edit === undefined) return BY_CODE;
    edits.push(edit);
    names.length = 0;
  } else if (change.removed.length > 0) return BY_CODE;
  let attribute = names.length === 0 ? undefined : `${classAttributeOf(tag.path, text)}="${names.join(' ')}"`;
  // A class takes the place of the first attribute that goes.
  for (const range of whole.sort((a, b) => a.start - b.start)) {
    if (attribute === undefined) edits.push(withoutAttribute(text, tag.range.start, range));
    else edits.push({ ...range, text: attribute });
    attribute = undefined;
  }
  if (attribute !== undefined) {
    const at = tag.range.start + 1 + tag.name.length;
    edits.push({ start: at, end: at, text: ` ${attribute}` });
  }
  return joined(edits);
}

const BY_CODE: KeptReason = { kind: 'written by code' };

/** Out: edits that cut declarations out of a style; `all` where nothing of it is left. */
function cutStyle(
  text: string,
  range: SourceRange,
  { styleObject }: MarkedTag,
  gone: readonly string[],
): Edit[] | 'all' | undefined {
  const literal = styleObject === undefined ? literalOf(text, range) : undefined;
  const style = styleObject?.style ?? literal?.value;
  if (style === undefined || isOpaque(style) || (literal?.value.includes('&') ?? false)) return undefined;
  const declarations = writtenDeclarations(style);
  const left = [...gone];
  const isTaken = declarations.map((one) => {
    const at = left.indexOf(declarationKey(one));
    if (at >= 0) left.splice(at, 1);
    return at >= 0;
  });
  if (left.length > 0) return undefined;
  if (isTaken.every(Boolean)) return 'all';
  if (styleObject === undefined)
    return withoutDeclarations(
      style,
      literal!.at,
      declarations.filter((_, at) => isTaken[at]),
    );
  const { entries } = styleObject;
  return declarations.length === entries.length ? withoutEntries(text, entries, isTaken) : undefined;
}

/** The value of an attribute, and where it begins; `undefined` where it is no text in quotes or a word. */
function literalOf(text: string, { start, end }: SourceRange): { value: string; at: number } | undefined {
  const match = /^[^\s=]+\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s"'{}]+))$/.exec(text.slice(start, end));
  const value = match?.[1] ?? match?.[2] ?? match?.[3];
  if (match === null || value === undefined) return undefined;
  const isQuoted = match[3] === undefined;
  return { value, at: end - value.length - (isQuoted ? 1 : 0) };
}

/** Out: `undefined` where the classes are not written as words. */
function changeClasses(text: string, range: SourceRange, { added, removed }: TagChange): Edit | undefined {
  if (removed.length === 0) return withClasses(text, range, added);
  const words = literalOf(text, range)?.value;
  // Space inside an expression is not ours to set anew.
  if (words === undefined || hasTemplateText(words)) return undefined;
  const known = words.split(/\s+/);
  return removed.every((name) => known.includes(name))
    ? withoutWords(text, range, new Set(removed), added)
    : undefined;
}
