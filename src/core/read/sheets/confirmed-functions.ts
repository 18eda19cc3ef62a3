// Which functions are kept where, and with which arguments: what the grammar takes and browsers do not is left out. Each row
// was asked of Chromium; `npm run bench:validity` asks again.

import { DIGIT, isMadeOf } from '../../base/characters.js';
import { normalColour } from './colours.js';
import { type MathType, mathType } from './math-types.js';
import { isSpace, type Tokens, tokenText } from './tokens.js';
import { classOfNumber, solidTexts, type ValueClass } from './value-classes.js';

export interface FunctionUse {
  readonly property: string;
  readonly tokens: Tokens;
  /** The function's token, and the one behind its bracket. */
  readonly at: number;
  readonly end: number;
  /** Whether the property takes a kind of value. */
  readonly takes: (kind: ValueClass) => boolean;
}

/** Numbers in the arguments, each by its kind; `undefined` where one is too new. */
type Numbers = readonly (ValueClass | undefined)[];
type Fits = (use: FunctionUse, args: readonly string[], numbers: Numbers) => boolean;

const only =
  (...kinds: ValueClass[]): Fits =>
  (_, __, numbers) =>
    numbers.every((kind) => kind !== undefined && kinds.includes(kind));
const on =
  (properties: RegExp, fits: Fits): Fits =>
  (use, args, numbers) =>
    properties.test(use.property) && fits(use, args, numbers);

const LENGTHS: readonly ValueClass[] = ['zero', 'length', 'percentage'];
const SIGNED: readonly ValueClass[] = [...LENGTHS, 'negative length', 'negative percentage'];
const NUMBERS: readonly ValueClass[] = ['zero', 'whole', 'large', 'fraction', 'negative number'];
const ANGLES: readonly ValueClass[] = ['zero', 'angle', 'negative angle'];
const AMOUNTS: readonly ValueClass[] = ['zero', 'whole', 'fraction', 'percentage'];
const plain: Fits = (_, args) => !args.some((one) => one.endsWith('('));
const numeric: Fits = (_, args) => args.every((one) => one === ',' || classOfNumber(one) !== undefined);
const both =
  (...all: Fits[]): Fits =>
  (...given) =>
    all.every((fits) => fits(...given));

const TRANSFORM = /^transform$/;
const FILTER = /^(filter|backdrop-filter)$/;
const EASING = /^(transition|animation)(-timing-function)?$/;
const transform = (...kinds: ValueClass[]): Fits => on(TRANSFORM, both(numeric, only(...kinds)));
const filter = (...kinds: ValueClass[]): Fits => on(FILTER, both(numeric, only(...kinds)));
const math: Fits = ({ tokens, at, end, takes }) => {
  const parts: string[] = [];
  for (let i = at + 1; i < end - 1; i++)
    parts.push(isSpace(tokens.types[i]) ? ' ' : tokenText(tokens, i).toLowerCase());
  const type = mathType(tokenText(tokens, at).toLowerCase(), parts);
  return type !== undefined && FITTING[type].every(takes);
};
const FITTING: Readonly<Record<MathType, readonly ValueClass[]>> = {
  number: ['fraction'],
  length: ['length'],
  percentage: ['percentage'],
  'length-percentage': ['length', 'percentage'],
  angle: ['angle'],
  time: ['time'],
};
const colour: Fits = ({ tokens, at, end, takes }) =>
  takes('hash') && normalColour(tokens.text.slice(tokens.starts[at], tokens.starts[end])) !== undefined;
const GRADIENT_WORDS = new Set([
  'to',
  'top',
  'right',
  'bottom',
  'left',
  'at',
  'center',
  'circle',
  'ellipse',
  'closest-side',
  'closest-corner',
  'farthest-side',
  'farthest-corner',
  ',',
  ')',
  'rgb(',
  'rgba(',
  'hsl(',
  'hsla(',
]);
const gradient =
  (...kinds: ValueClass[]): Fits =>
  ({ takes }, args, numbers) =>
    takes('url') &&
    only(...kinds)({} as FunctionUse, args, numbers) &&
    args.every(
      (one) =>
        GRADIENT_WORDS.has(one) ||
        classOfNumber(one) !== undefined ||
        normalColour(one) !== undefined ||
        ['transparent', 'currentcolor'].includes(one),
    );
const bezier: Fits = (_, args) => {
  const numbers = args.filter((one) => one !== ',').map(Number);
  return numbers.length === 4 && [0, 2].every((at) => numbers[at]! >= 0 && numbers[at]! <= 1);
};
const steps: Fits = (_, [count = '', comma, word]) =>
  isMadeOf(count, DIGIT) &&
  Number(count) >= (word === 'jump-none' ? 2 : 1) &&
  (comma === undefined ||
    ['start', 'end', 'jump-start', 'jump-end', 'jump-both', 'jump-none'].includes(word ?? ''));
const shadow: Fits = (_, args, numbers) =>
  numbers.every(
    (kind, at) => kind === 'zero' || kind === 'length' || (kind === 'negative length' && at < 2),
  ) &&
  numbers.length >= 2 &&
  args.every(
    (one) =>
      classOfNumber(one) !== undefined ||
      normalColour(one) !== undefined ||
      ['currentcolor', 'transparent'].includes(one),
  );

const FUNCTIONS: Readonly<Record<string, Fits>> = {
  calc: math,
  min: math,
  max: math,
  clamp: math,
  rgb: colour,
  rgba: colour,
  hsl: colour,
  hsla: colour,
  url: ({ takes }, args) => takes('url') && args.length === 1,
  'linear-gradient': gradient(...SIGNED, ...ANGLES),
  'repeating-linear-gradient': gradient(...SIGNED, ...ANGLES),
  'radial-gradient': gradient(...LENGTHS),
  'repeating-radial-gradient': gradient(...LENGTHS),
  translate: transform(...SIGNED),
  translatex: transform(...SIGNED),
  translatey: transform(...SIGNED),
  translatez: transform('zero', 'length', 'negative length'),
  translate3d: transform('zero', 'length', 'negative length'),
  rotate: transform(...ANGLES),
  rotatex: transform(...ANGLES),
  rotatey: transform(...ANGLES),
  rotatez: transform(...ANGLES),
  scale: transform(...NUMBERS),
  scalex: transform(...NUMBERS),
  scaley: transform(...NUMBERS),
  scalez: transform(...NUMBERS),
  scale3d: transform(...NUMBERS),
  skew: transform(...ANGLES),
  skewx: transform(...ANGLES),
  skewy: transform(...ANGLES),
  matrix: transform(...NUMBERS),
  matrix3d: transform(...NUMBERS),
  perspective: transform('length'),
  'cubic-bezier': on(EASING, bezier),
  steps: on(EASING, steps),
  blur: filter('length'),
  brightness: filter(...AMOUNTS),
  contrast: filter(...AMOUNTS),
  grayscale: filter(...AMOUNTS),
  invert: filter(...AMOUNTS),
  opacity: filter(...AMOUNTS),
  saturate: filter(...AMOUNTS),
  sepia: filter(...AMOUNTS),
  'hue-rotate': filter(...ANGLES),
  'drop-shadow': on(FILTER, shadow),
  counter: on(/^content$/, plain),
  counters: on(/^content$/, plain),
  attr: on(/^content$/, (_, args) => args.length === 1 && /^[a-z][\w-]*$/i.test(args[0]!)),
  minmax: on(/^grid-(template|auto)-(rows|columns)$/, both(plain, only(...LENGTHS, 'flex'))),
  'fit-content': on(/^grid-(template|auto)-(rows|columns)$/, both(plain, only('length', 'percentage'))),
  repeat: on(
    /^grid-template-(rows|columns)$/,
    (_, [count = '', , ...rest], numbers) =>
      /^[1-9]\d*$/.test(count) &&
      numbers.every(
        (kind) =>
          kind === 'zero' ||
          kind === 'whole' ||
          kind === 'length' ||
          kind === 'percentage' ||
          kind === 'flex',
      ) &&
      rest.every(
        (one) =>
          ['minmax(', ',', ')', 'auto', 'min-content', 'max-content'].includes(one) ||
          classOfNumber(one) !== undefined,
      ),
  ),
};

/** Whether it is confirmed that a function stands where it stands, in a value that the grammar takes. */
export function functionFits(use: FunctionUse): boolean {
  const { tokens, at, end } = use;
  const fits = FUNCTIONS[tokenText(tokens, at).slice(0, -1).toLowerCase()];
  if (fits === undefined || tokenText(tokens, end - 1) !== ')') return false;
  const args = solidTexts(tokens, at + 1, end - 1).map((text) => text.toLowerCase());
  const numbers = args.filter((text) => /^[+-]?[\d.]/.test(text)).map(classOfNumber);
  return fits(use, args, numbers);
}
