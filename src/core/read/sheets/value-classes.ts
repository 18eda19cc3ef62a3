// Kinds of tokens that browsers tell apart when they decide whether a value fits: a property that takes lengths need not take
// negative ones, nor a zero, nor a fraction.

import { isSpace, type Tokens, tokenText } from './tokens.js';

/** One text of each kind, for asking a browser. */
export const PROBES = {
  zero: '0',
  whole: '2',
  large: '1001',
  fraction: '1.5',
  'negative number': '-1',
  length: '5px',
  'negative length': '-5px',
  percentage: '5%',
  'negative percentage': '-5%',
  angle: '5deg',
  'negative angle': '-5deg',
  time: '5s',
  'negative time': '-5s',
  flex: '2fr',
  resolution: '2dppx',
  colour: 'rebeccapurple',
  hash: '#a1b2c3',
  text: '"x"',
  url: 'url(x)',
  name: 'acervus-probe',
} as const;

export type ValueClass = keyof typeof PROBES;

const UNITS: ReadonlyMap<string, string> = new Map([
  ...'px em rem ex ch vw vh vmin vmax pt pc in cm mm q'.split(' ').map((unit) => [unit, 'length'] as const),
  ...'deg grad rad turn'.split(' ').map((unit) => [unit, 'angle'] as const),
  ...'s ms'.split(' ').map((unit) => [unit, 'time'] as const),
  ...'dpi dpcm dppx'.split(' ').map((unit) => [unit, 'resolution'] as const),
  ['fr', 'flex'],
]);

/** In: a number with or without its unit. Out: its kind; `undefined` for a unit that is too new to be sure of. */
export function classOfNumber(text: string): ValueClass | undefined {
  const match = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)(%|[a-z]*)$/i.exec(text);
  if (match === null) return undefined;
  const [number, unit] = [Number(match[1]), match[2]!.toLowerCase()];
  if (unit === '') {
    if (Object.is(number, -0)) return undefined;
    if (number < 0) return 'negative number';
    if (number === 0) return 'zero';
    return !Number.isInteger(number) || /[.e]/i.test(match[1]!)
      ? 'fraction'
      : number > 1000
        ? 'large'
        : 'whole';
  }
  const kind = unit === '%' ? 'percentage' : UNITS.get(unit);
  if (kind === undefined) return undefined;
  if (Object.is(number, -0)) return undefined;
  if (number >= 0) return kind as ValueClass;
  return kind === 'flex' || kind === 'resolution' ? undefined : (`negative ${kind}` as ValueClass);
}

/** Tokens between two places that are neither space nor comment, as text. */
export function solidTexts(tokens: Tokens, from: number, to: number): string[] {
  const texts: string[] = [];
  for (let at = from; at < to; at++) if (!isSpace(tokens.types[at])) texts.push(tokenText(tokens, at));
  return texts;
}
