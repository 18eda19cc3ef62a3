// How values of presentational attributes are read: the microsyntaxes of the HTML standard, which forgive nearly anything
// (https://html.spec.whatwg.org/multipage/common-microsyntaxes.html).

// Not through the stage's entry: threads that only count need not load the grammar.
import { withoutStart } from '../../base/phrases.js';
import { colourName } from '../sheets/colours.js';

/**
 * "Rules for parsing dimension values": `12`, ` 12.5px`, `50%`. Out: a CSS length or percentage, `undefined` for what
 * has no effect. With `aboveZero`, zero has none either.
 */
export function dimension(value: string, aboveZero = false): string | undefined {
  const match = /^[\t\n\f\r ]*(\d+(?:\.\d+)?)([%*]?)/.exec(value);
  // `12*` was a share of what is left over, and browsers pass over it.
  if (match === null || match[2] === '*') return undefined;
  const number = Number(match[1]);
  if (aboveZero && number === 0) return undefined;
  return match[2] === '%' ? `${number}%` : pixels(number);
}

/** A length as a person writes it: `0`, `12px`. */
export function pixels(number: number): string {
  return number === 0 ? '0' : `${number}px`;
}

/** "Rules for parsing integers": leading space, a sign, digits, and whatever stands behind them. */
export function wholeNumber(value: string): number | undefined {
  const match = /^[\t\n\f\r ]*([+-]?\d+)/.exec(value);
  return match === null ? undefined : Number(match[1]);
}

/** "Rules for parsing a legacy color value": `red`, `#f00`, `ff0000`, and any nonsense. Out: `undefined` for no effect. */
export function legacyColour(value: string): string | undefined {
  if (value === '') return undefined;
  const word = value.replace(/^[\t\n\f\r ]+|[\t\n\f\r ]+$/g, '').toLowerCase();
  if (word === 'transparent') return undefined;
  const named = colourName(word);
  if (named !== undefined) return named;
  if (/^#[0-9a-f]{3}$/.test(word)) return word;
  let digits = withoutStart(word.replace(/[\u{10000}-\u{10ffff}]/gu, '00').slice(0, 128), '#').replace(
    /[^0-9a-f]/g,
    '0',
  );
  while (digits.length === 0 || digits.length % 3 !== 0) digits += '0';
  let parts = [0, 1, 2].map((at) => digits.slice((at * digits.length) / 3, ((at + 1) * digits.length) / 3));
  parts = parts.map((part) => part.slice(-8));
  while (parts[0]!.length > 2 && parts.every((part) => part.startsWith('0')))
    parts = parts.map((part) => part.slice(1));
  return `#${parts.map((part) => part.slice(0, 2).padStart(2, '0')).join('')}`;
}

const FONT_SIZES = ['x-small', 'small', 'medium', 'large', 'x-large', 'xx-large', 'xxx-large'];

/** "Rules for parsing a legacy font size": `5`, `+1`, `-2`. */
export function fontSize(value: string): string | undefined {
  const match = /^[\t\n\f\r ]*([+-]?)(\d+)/.exec(value);
  if (match === null) return undefined;
  const number = Number(match[2]);
  const size = match[1] === '+' ? 3 + number : match[1] === '-' ? 3 - number : number;
  return FONT_SIZES[Math.min(7, Math.max(1, size)) - 1];
}
