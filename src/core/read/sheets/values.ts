// Values in one normal form: two values with the same form are the same to every browser.

import { holdsAddress, type Resolved, resolveAddress } from '../../base/addresses.js';
import { BoundedMap } from '../../base/bounded.js';
import { CSS_SPACE, trimmed } from '../../base/characters.js';
import { includesAny } from '../../base/phrases.js';
import { normalColour } from './colours.js';
import { behindBracket, isSpace, Token, type Tokens, tokenize, tokenText } from './tokens.js';

/** Properties whose values hold names that people make up, where upper and lower case differ. */
const NAMED =
  /^(--|animation|font|grid|counter|list-style|will-change|transition|container|view-transition|quotes|color-scheme|page$|content$|anchor|position-anchor|timeline|scroll-timeline|view-timeline|string-set|src$)/;
const COLOURED = [
  'color',
  'background',
  'border',
  'outline',
  'shadow',
  'fill',
  'stroke',
  'rule',
  'decoration',
  'emphasis',
  'caret',
  'filter',
  'mask',
  'flood',
  'lighting',
  'stop',
];
/** Properties where a zero length needs no movable declaration and a bare zero is a length. */
const LENGTHS =
  /^(margin|padding|inset|top|right|bottom|left|width|height|min-|max-|border(-(top|right|bottom|left))?(-width)?$|border-(spacing|radius)|border-.*-radius|gap|row-gap|column-gap|text-indent|letter-spacing|word-spacing|outline(-width|-offset)?$)/;
const ZERO_LENGTH = /^[+-]?0*\.?0+(px|em|rem|ex|ch|pt|pc|in|cm|mm|q|vw|vh|vmin|vmax)?$/;
const WEIGHTS: ReadonlyMap<string, string> = new Map([
  ['bold', '700'],
  ['normal', '400'],
]);

const known = new BoundedMap<string, string>(50_000);

/**
 * The normal form of a declared value.
 * In: the canonical property, the value as written, the path of the file it stands in (addresses in `url()` are
 * resolved against it). Out: a string for comparing, not for writing. Comments and needless space are gone.
 */
export function normalValue(property: string, value: string, holder: string): string {
  const located = holdsAddress(value) && !property.startsWith('--');
  const key = located ? `${property}\0${value}\0${holder}` : `${property}\0${value}`;
  return known.get(key, () => computeNormalValue(property, value, holder));
}

function computeNormalValue(property: string, value: string, holder: string): string {
  // A custom property keeps its tokens as they are, for whoever reads it: only the space at its ends goes.
  if (property.startsWith('--')) return trimmed(value, CSS_SPACE);
  const tokens = tokenize(value);
  const parts: string[] = [];
  // Inside a function a zero that is no length may be what makes it invalid: `max(0, 50%)` is not `max(0px, 50%)`.
  let depth = 0;
  for (let at = 0; at < tokens.count; at++) {
    const type = tokens.types[at]!;
    const text = tokenText(tokens, at);
    switch (type) {
      case Token.Comment:
        // It keeps apart what stands beside it, as a space does, but is none where a sum needs one.
        if (
          !isSpace(tokens.types[at - 1]) &&
          !isSpace(tokens.types[at + 1]) &&
          needsSpace(parts.at(-1), tokens, at)
        )
          parts.push(depth === 0 ? ' ' : '/**/');
        break;
      case Token.WhiteSpace:
        if (needsSpace(parts.at(-1), tokens, at)) parts.push(' ');
        break;
      case Token.LeftParenthesis:
        depth++;
        parts.push(text);
        break;
      case Token.RightParenthesis:
        depth--;
        parts.push(text);
        break;
      case Token.Function: {
        const end = behindBracket(tokens, at);
        const name = text.toLowerCase();
        const whole = tokens.text.slice(tokens.starts[at], tokens.starts[end]);
        const colour = /^rgba?\($/.test(name) ? normalColour(whole) : undefined;
        if (colour !== undefined) {
          parts.push(colour);
          at = end - 1;
        } else if (name === 'url(') {
          parts.push(normalUrl(whole.replace(/^url\(\s*["']?|["']?\s*\)$/gi, ''), holder));
          at = end - 1;
        } else {
          depth++;
          parts.push(name);
        }
        break;
      }
      case Token.Url:
        parts.push(normalUrl(text.replace(/^url\(\s*|\s*\)$/gi, ''), holder));
        break;
      case Token.Hash:
        parts.push(normalColour(text) ?? text);
        break;
      case Token.Ident:
        parts.push(normalIdent(property, text));
        break;
      case Token.Number:
      case Token.Percentage:
      case Token.Dimension:
        parts.push(normalNumber(depth === 0 && LENGTHS.test(property), text));
        break;
      case Token.String:
        parts.push(text.includes('\\') || text.slice(1, -1).includes('"') ? text : `"${text.slice(1, -1)}"`);
        break;
      default:
        parts.push(text);
    }
  }
  return parts.join('').trim();
}

/** Whether space between two tokens means anything: at a bracket, a comma or a slash it does not, nor twice. */
function needsSpace(before: string | undefined, tokens: Tokens, at: number): boolean {
  if (before === undefined || before === ' ' || /^[,/]$|\($/.test(before)) return false;
  let next = at + 1;
  while (next < tokens.count && isSpace(tokens.types[next])) next++;
  const type = tokens.types[next];
  if (next >= tokens.count || type === Token.Comma || type === Token.RightParenthesis) return false;
  return !(type === Token.Delim && tokenText(tokens, next) === '/');
}

function normalIdent(property: string, text: string): string {
  const lower = text.toLowerCase();
  if (property === 'font-weight') return WEIGHTS.get(lower) ?? lower;
  // A dashed name is somebody's own, in any property.
  if (NAMED.test(property) || text.startsWith('--')) return text;
  return (includesAny(property, COLOURED) ? normalColour(lower) : undefined) ?? lower;
}

/** In: whether it stands where a zero is a length. */
function normalNumber(isLength: boolean, text: string): string {
  const lower = text.toLowerCase();
  if (isLength && ZERO_LENGTH.test(lower)) return '0';
  const match = /^([+-]?[0-9.]+(?:e[+-]?[0-9]+)?)(.*)$/.exec(lower);
  if (match === null) return lower;
  const number = Number(match[1]);
  return Number.isFinite(number) ? `${number}${match[2]}` : lower;
}

function normalUrl(address: string, holder: string): string {
  return `url(${addressKey(resolveAddress(address, holder))})`;
}

function addressKey(resolved: Resolved): string {
  switch (resolved.kind) {
    case 'site':
    case 'above':
      return `/${resolved.path}${resolved.suffix}`;
    case 'elsewhere':
    case 'fragment':
      return resolved.address;
  }
}
