// Whether it is confirmed that browsers keep a value that the grammar takes: every part of it is one that Chromium was asked
// about for the property (`confirmed-values.ts`), or a function whose arguments are checked here.

import * as csstree from 'css-tree/dist/csstree.esm';
import { DIGIT, either, hasOneOf, startsWithOneOf } from '../../base/characters.js';
import { startsWithAny } from '../../base/phrases.js';
import { normalColour } from './colours.js';
import { functionFits } from './confirmed-functions.js';
import { CONFIRMED_VALUES } from './confirmed-values.js';
import { longhands } from './properties.js';
import { behindBracket, isFinished, Token, type Tokens, tokenize, tokenText } from './tokens.js';
import { classOfNumber, PROBES, type ValueClass } from './value-classes.js';

/** What is confirmed of a property. */
export interface Confirmed {
  readonly classes: ReadonlySet<string>;
  readonly words: ReadonlySet<string>;
}

const WIDE = new Set(['inherit', 'initial', 'unset', 'revert', 'revert-layer']);

const CONFIRMED: ReadonlyMap<string, Confirmed> = new Map(
  CONFIRMED_VALUES.trim()
    .split(/[\n;]/)
    .map((line) => {
      const [property = '', classes = '', words = ''] = line.split(':');
      // `negative number` is one kind in two words.
      const kinds = classes.replaceAll('negative ', 'negative_').split(' ');
      return [
        property,
        {
          classes: new Set(kinds.map((kind) => kind.replace('_', ' '))),
          words: new Set(words.split(' ')),
        },
      ];
    }),
);

/** Properties whose values the grammar takes in too many forms. */
const NEVER = new Set(['initial-letter', 'font-language-override', 'grid-template-areas']);

/** In: a property and a value that its grammar takes, without `var()`. */
export function isConfirmed(property: string, value: string): boolean {
  const own = CONFIRMED.get(property);
  if (own === undefined || NEVER.has(property) || !isFinished(value)) return false;
  const tokens = tokenize(value);
  const parts = partsOf(tokens);
  if (parts === undefined) return false;
  const [only] = parts;
  if (parts.length === 1 && only?.type === Token.Ident && WIDE.has(only.text.toLowerCase())) return true;
  if (parts.length > 1 && /^(box|text)-shadow$/.test(property)) return shadowsFit(parts, tokens);
  if (parts.length > 1 && !mayJoin(property, parts)) return false;
  const known =
    parts.length === 1
      ? [own]
      : [own, ...longhands(property).set.flatMap((name) => CONFIRMED.get(name) ?? [])];
  // Numbers of a shorthand are asked of itself: a delay may be negative, and a duration beside it may not.
  const takes = (kind: ValueClass): boolean =>
    NUMERIC.has(kind) && property !== 'font'
      ? own.classes.has(kind)
      : known.some(({ classes }) => classes.has(kind));
  const isWord = (word: string): boolean => known.some(({ words }) => words.has(word));
  return parts.every(({ type, text, at }) => {
    switch (type) {
      case Token.Ident: {
        const word = text.toLowerCase();
        if (text.includes('\\') || text.startsWith('-') || WIDE.has(word)) return false;
        if (isWord(`!${word}`)) return false;
        return isWord(word) || takes('name') || (takes('colour') && isColourName(word));
      }
      case Token.Number:
      case Token.Percentage:
      case Token.Dimension: {
        const kind = classOfNumber(text);
        return kind !== undefined && takes(kind);
      }
      case Token.Hash:
        return takes('hash') && normalColour(text) !== undefined;
      case Token.String:
        return takes('text');
      case Token.Url:
        return takes('url');
      case Token.Function:
        return functionFits({ property, tokens, at, end: behindBracket(tokens, at), takes });
      default:
        return false;
    }
  });
}

const NUMERIC: ReadonlySet<string> = new Set(
  Object.keys(PROBES).filter((kind) => !['colour', 'hash', 'text', 'url', 'name'].includes(kind)),
);

/** Several parts, that the grammar lets stand together and Chromium does not, in one order or another. */
const ALONE =
  /^(column-rule|column-rule-.*|row-rule.*|rule.*|position-try.*|container.*|contain|counter-.*|columns|zoom|text-overflow|color-scheme|view-transition-.*|initial-letter|font-language-override|grid|grid-template|grid-template-areas|will-change)$/;
const LINES = new Set([
  'auto',
  'none',
  'hidden',
  'dotted',
  'dashed',
  'solid',
  'double',
  'groove',
  'ridge',
  'inset',
  'outset',
]);

function mayJoin(property: string, parts: readonly ValuePart[]): boolean {
  if (ALONE.test(property)) return false;
  const words = parts.map(({ text }) => text.toLowerCase());
  if (/^(transition|filter|backdrop-filter|transform$)/.test(property) && words.includes('none'))
    return false;
  // Of a place the words and the numbers have an order of their own.
  if (property === 'transform-origin')
    return new Set(words.map((word) => startsWithOneOf(word, either(DIGIT, '.+-')))).size === 1;
  if (words.filter((word) => /^-[\d.]+m?s$/.test(word)).length > 1) return false;
  if (property === 'animation' && words.some((word) => /^(none|auto|["'].*)$/.test(word))) return false;
  if (property === 'outline') return words.filter((word) => LINES.has(word)).length < 2;
  if (
    property.startsWith('grid-') &&
    words.includes('span') &&
    words.some((word) => startsWithAny(word, ['-', '0']))
  )
    return false;
  if (
    /^grid-(row|column|area)/.test(property) &&
    words.includes('auto') &&
    words.some((word) => hasOneOf(word, DIGIT))
  )
    return false;
  return !(['animation', 'transition'].includes(property) && words.includes('0'));
}

/** A shadow takes no number by itself: offsets of either sign, a blur that is not negative, then a spread. */
function shadowsFit(parts: readonly ValuePart[], tokens: Tokens): boolean {
  let item = 0;
  let numbers = 0;
  return parts.every(({ type, text, at, item: own }) => {
    if (own !== item) numbers = 0;
    item = own;
    const kind = classOfNumber(text);
    if (kind !== undefined) {
      numbers++;
      return kind === 'zero' || kind === 'length' || (kind === 'negative length' && numbers !== 3);
    }
    const word = text.toLowerCase();
    if (type === Token.Ident) return word === 'inset' || isColourName(word);
    const end = type === Token.Function ? behindBracket(tokens, at) : at + 1;
    return normalColour(tokens.text.slice(tokens.starts[at], tokens.starts[end])) !== undefined;
  });
}

interface ValuePart {
  readonly type: number;
  readonly text: string;
  readonly at: number;
  /** Number of commas before it. */
  readonly item: number;
}

/** The parts of a value, without what separates them; `undefined` for what is in none of the checked forms. */
function partsOf(tokens: Tokens): ValuePart[] | undefined {
  const parts: ValuePart[] = [];
  let item = 0;
  for (let at = 0; at < tokens.count; at++) {
    const type = tokens.types[at]!;
    const text = tokenText(tokens, at);
    if (type === Token.Comma) item++;
    if (type === Token.WhiteSpace || type === Token.Comma || (type === Token.Delim && text === '/')) continue;
    parts.push({ type, text, at, item });
    if (type === Token.Function) at = behindBracket(tokens, at) - 1;
    else if (type === Token.Comment || type === Token.LeftParenthesis) return undefined;
  }
  return parts.length === 0 ? undefined : parts;
}

function isColourName(word: string): boolean {
  return (
    word === 'transparent' ||
    word === 'currentcolor' ||
    csstree.lexer.matchType('named-color', word).error === null
  );
}
