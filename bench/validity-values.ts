// Values for the bench of validity: derived at random from the grammar, then some of them bent.

import * as csstree from 'css-tree/dist/csstree.esm';
import type { Random } from '../test/support/generate.js';

/** A node of css-tree's definition syntax, as far as it is read here. */
interface Syntax {
  readonly type: string;
  readonly name?: string;
  readonly value?: string;
  readonly combinator?: string;
  readonly terms?: readonly Syntax[];
  readonly term?: Syntax;
  readonly min?: number;
  readonly max?: number;
}

const definitions = csstree.lexer as unknown as Readonly<
  Record<'properties' | 'types', Readonly<Record<string, { readonly syntax: Syntax | null }>>>
>;

const LENGTHS = ['0', '1px', '1.5em', '20px', '-1px', '-3em', '5vw', '2rem', '0.5ch'];
const BASIC: Readonly<Record<string, readonly string[]>> = {
  length: LENGTHS,
  'length-percentage': [
    ...LENGTHS,
    '50%',
    '-5%',
    'calc(1px + 2%)',
    'calc(100%-20px)',
    'max(0, 50%)',
    'calc(2 * 3px)',
  ],
  percentage: ['0%', '50%', '120%', '-5%'],
  number: ['0', '1', '2', '0.5', '1.5', '-1', '-0.5', 'calc(1 + 2)'],
  integer: ['0', '1', '2', '5', '-1', '1.5'],
  angle: ['0deg', '45deg', '-1turn', '0.5rad', '0'],
  time: ['0s', '1s', '-1s', '200ms', '0'],
  frequency: ['1Hz'],
  resolution: ['1dppx', '96dpi', '-1dpi'],
  flex: ['1fr', '0fr', '-1fr'],
  color: [
    'red',
    '#abc',
    '#12345678',
    'rgb(1, 2, 3)',
    'rgb(1 2 3 / 50%)',
    'transparent',
    'currentColor',
    'hsl(10, 20%, 30%)',
    'rgb(1, 2%, 3)',
    'gray',
  ],
  string: ['"x"', "'y z'"],
  url: ['url(a.png)', 'url("b.svg")'],
  image: [
    'url(a.png)',
    'linear-gradient(red, blue)',
    'radial-gradient(circle, red 10%, blue)',
    'linear-gradient(45deg, red -5px, blue)',
  ],
  'custom-ident': ['tide', 'Quay', 'x-1'],
  'dashed-ident': ['--tide'],
  'hex-color': ['#fff', '#ab'],
  'easing-function': [
    'ease',
    'linear',
    'steps(3)',
    'steps(0)',
    'steps(2, end)',
    'cubic-bezier(0.1, 0.2, 0.3, 0.4)',
    'cubic-bezier(2, 0, 0, 1)',
  ],
  zero: ['0'],
  'declaration-value': ['x'],
  'any-value': ['x'],
};
const ABSURD = [
  'tide',
  '-1',
  '0',
  '1.5',
  '3px',
  'none',
  'auto',
  'inherit',
  '/ 2',
  ', x',
  'red',
  'always',
  '#12',
  'calc(1px+2px)',
  '-webkit-auto',
];
const DEEPEST = 12;

/** A value of the property by the grammar, perhaps bent; `undefined` where it has no grammar. */
export function randomValue(property: string, random: Random): string | undefined {
  const syntax = definitions.properties[property]?.syntax;
  if (syntax === null || syntax === undefined) return undefined;
  const value = derive(syntax, random, 0).replace(/\s+/g, ' ').trim();
  if (!random.chance(25)) return value;
  const words = value.split(' ');
  const at = random.number(words.length);
  switch (random.number(4)) {
    case 0:
      words[at] = random.pick(ABSURD);
      break;
    case 1:
      words.splice(at, 1);
      break;
    case 2:
      words.splice(at, 0, random.pick(ABSURD));
      break;
    default:
      words[at] = (words[at] ?? '').replace(/^[\d.]/, '-$&');
  }
  return words.join(' ').trim();
}

function derive(syntax: Syntax, random: Random, depth: number): string {
  const inside = (one: Syntax): string => derive(one, random, depth + 1);
  if (depth > DEEPEST) return random.pick(['1px', 'auto', 'none', '1']);
  switch (syntax.type) {
    case 'Group':
      return group(syntax, random, inside);
    case 'Multiplier': {
      const { min = 0, max = 0, term } = syntax;
      const most = max === 0 ? Math.max(min, 2) : Math.min(max, Math.max(min, 3));
      const separator = (syntax as { comma?: boolean }).comma === true ? ', ' : ' ';
      return random.times(min, most, () => inside(term!)).join(separator);
    }
    case 'Type': {
      const name = (syntax.name ?? '').replace(/\(\)$/, '');
      const basic = BASIC[name];
      if (basic !== undefined) return random.pick(basic);
      const own = definitions.types[syntax.name ?? '']?.syntax ?? definitions.types[name]?.syntax;
      return own === null || own === undefined ? random.pick(ABSURD) : inside(own);
    }
    case 'Property': {
      const own = definitions.properties[syntax.name ?? '']?.syntax;
      return own === null || own === undefined ? 'auto' : inside(own);
    }
    case 'Keyword':
    case 'AtKeyword':
      return syntax.name ?? '';
    case 'Function':
      return `${syntax.name}(${random.pick(['', '1px', '1', 'red', '50%'])})`;
    case 'Token':
    case 'String':
      return (syntax.value ?? '').replace(/^'|'$/g, '');
    case 'Comma':
      return ',';
    default:
      return '';
  }
}

function group({ combinator, terms = [] }: Syntax, random: Random, inside: (one: Syntax) => string): string {
  if (combinator === '|') return inside(random.pick(terms));
  if (combinator === '||') {
    const some = terms.filter(() => random.chance(45));
    return (some.length === 0 ? [random.pick(terms)] : some).map(inside).join(' ');
  }
  return terms.map(inside).join(' ');
}
