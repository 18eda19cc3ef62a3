// What a style attribute declares, where an engine may write values into it.

import { BoundedMap } from '../base/bounded.js';
import { INVISIBLE_MARK } from '../base/engine-marks.js';
import { hasTemplateText, maskTemplateText, type Page } from '../read/markup/index.js';
import { type Declaration, isTooDeep, parseDeclarations } from '../read/sheets/index.js';
import { beginsBranch, enginePieces } from '../read/templates/index.js';

/** Whether a style attribute is not read: it is equal to itself only. */
export function isOpaque(style: string): boolean {
  if (isTooDeep(style)) return true;
  return hasTemplateText(style) && !filled.get(style, () => isFilled(style));
}

const filled = new BoundedMap<string, boolean>(5000);

/**
 * Whether all that an engine writes are values, or parts of them: `color: red; width: {{ share }}%`. What it prints is taken to
 * end no declaration; a branch or a loop may leave declarations out, and a printed name may be any.
 */
function isFilled(style: string): boolean {
  const pieces = [
    ...enginePieces(style.replace(MARKED, (text) => ' '.repeat(text.length))).map(
      ({ start, end, role, prints }) => ({ start, end, isValue: role === 'none' && prints }),
    ),
    ...[...style.matchAll(MARKED)].map(({ 0: text, 1: code = '', index }) => ({
      ...{ start: index, end: index + text.length },
      isValue: !beginsBranch(code),
    })),
  ];
  const declarations = writtenDeclarations(style);
  const isInValue = (start: number, end: number): boolean =>
    declarations.some(
      ({ property, value, range }) =>
        range.start + property.length < start && end <= range.end && value.includes(style.slice(start, end)),
    );
  return pieces.length > 0 && pieces.every(({ start, end, isValue }) => isValue && isInValue(start, end));
}

/** Engine text that nothing else tells from other text. */
const MARKED = new RegExp(`${INVISIBLE_MARK}([^${INVISIBLE_MARK}]*)${INVISIBLE_MARK}`, 'g');

/** The declarations of any style attribute. Engine text would be taken for braces: it is read as a word, and the value keeps it. */
export function writtenDeclarations(style: string): readonly Declaration[] {
  if (!hasTemplateText(style)) return parseDeclarations(style).declarations;
  const masked = maskTemplateText(withoutPieces(style));
  return parseDeclarations(masked).declarations.map((one) => {
    const { start } = one.range;
    const at = masked.indexOf(one.value, start + one.property.length);
    const written = style.slice(start, start + one.property.length);
    const property = hasTemplateText(written) ? written : one.property;
    return { ...one, property, value: style.slice(at, at + one.value.length) };
  });
}

/** Every piece of engine text written over by letters. */
function withoutPieces(style: string): string {
  let masked = style;
  for (const { start, end } of enginePieces(style))
    masked = masked.slice(0, start) + 'x'.repeat(end - start) + masked.slice(end);
  return masked;
}

/** Whether an engine writes a part of a declaration. */
export function isWrittenByEngine({ property, value }: Declaration): boolean {
  return hasTemplateText(value) || hasTemplateText(property);
}

/** Whether an engine writes values into style attributes of a page. */
export function holdsWrittenValues({ elements }: Page): boolean {
  return elements.some(({ style }) => style !== undefined && hasTemplateText(style) && !isOpaque(style));
}
