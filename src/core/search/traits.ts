// What a declaration does, in a word that fits into a class name.

import type { Color } from 'culori';
import culori from 'culori/require';
import type { Declaration } from '../read/sheets/index.js';
import { normalColour } from '../read/sheets/index.js';

export interface Trait {
  readonly word: string;
  /** Higher is more telling. */
  readonly weight: number;
}

const PALETTE: readonly (readonly [string, string])[] = [
  ['black', '#000000'],
  ['white', '#ffffff'],
  ['charcoal', '#34383c'],
  ['grey', '#808080'],
  ['silver', '#c4c8cc'],
  ['ash', '#e6e6e6'],
  ['red', '#cc1f1f'],
  ['maroon', '#7a1020'],
  ['rust', '#b3471d'],
  ['orange', '#f08a24'],
  ['amber', '#f5b83d'],
  ['brown', '#7a4a24'],
  ['sand', '#e9dcc0'],
  ['cream', '#fdf6e3'],
  ['yellow', '#f7e948'],
  ['olive', '#7d7f2a'],
  ['lime', '#9fd43a'],
  ['green', '#2e8b3d'],
  ['moss', '#5b7a4a'],
  ['mint', '#cfeedd'],
  ['teal', '#12807f'],
  ['cyan', '#35c4dc'],
  ['sky', '#a9d3ee'],
  ['mist', '#e7f0f5'],
  ['blue', '#2763d0'],
  ['navy', '#12305c'],
  ['slate', '#51606e'],
  ['indigo', '#4638a3'],
  ['violet', '#7d3fb0'],
  ['pink', '#ee8fb4'],
  ['rose', '#fbe3e6'],
];
const palette: readonly (readonly [string, Color])[] = PALETTE.map(([name, hex]) => [
  name,
  culori.parse(hex) as Color,
]);
const distance = culori.differenceCiede2000();

/** The palette's nearest name for a colour as written; `undefined` for what is no plain colour. */
export function colourWord(value: string): string | undefined {
  const normal = normalColour(value)?.split('/')[0];
  const colour = normal === undefined ? undefined : culori.parse(normal);
  if (colour === undefined) return undefined;
  let nearest: string | undefined;
  let least = Number.POSITIVE_INFINITY;
  for (const [name, known] of palette) {
    const apart = distance(colour, known);
    if (apart < least) [nearest, least] = [name, apart];
  }
  return nearest;
}

/** Says nothing of which colour it is that is called so. */
const NO_COLOUR =
  /^(colou?rs?|clr|text|font|bg|back|background|fg|fore|foreground|fill|border|theme|main|base|body|default)$/i;

/** What a house calls a colour: `danger` for `var(--kit-color-danger)`. */
function variableWord(value: string): string | undefined {
  const name = /^var\(\s*--([\w-]+)/.exec(value)?.[1];
  const words = name?.split(/[-_]/).filter((word) => /^[a-z]{3,16}$/i.test(word) && !NO_COLOUR.test(word));
  return words?.at(-1)?.toLowerCase();
}

/** The traits of a set of declarations, most telling first. */
export function traitsOf(declarations: readonly Declaration[]): Trait[] {
  const traits = declarations.flatMap((declaration) => traitOf(declaration) ?? []);
  return traits
    .map(({ word, weight }) => ({ word: word.replace(/[^a-z0-9-]+/gi, '-').replace(/^-+|-+$/g, ''), weight }))
    .filter(({ word }) => word !== '')
    .sort((a, b) => b.weight - a.weight);
}

const SIDES: ReadonlyMap<string, string> = new Map([
  ['top', 'above'],
  ['bottom', 'below'],
  ['left', 'before'],
  ['right', 'after'],
]);

function traitOf({ property, value }: Declaration): Trait | undefined {
  const text = value.toLowerCase();
  const amount = amountWord(text);
  const side = /-(top|right|bottom|left)$/.exec(property)?.[1];
  switch (property) {
    case 'background':
    case 'background-color': {
      const colour = colourWord(firstColour(text) ?? text) ?? variableWord(text);
      if (colour !== undefined) return { word: `on-${colour}`, weight: 9 };
      return text.includes('gradient')
        ? { word: 'shaded', weight: 8 }
        : text.includes('url(')
          ? { word: 'pictured', weight: 8 }
          : { word: 'backed', weight: 4 };
    }
    case 'color': {
      const colour = colourWord(text) ?? variableWord(text);
      // Which one it is, its name does not tell.
      if (colour === undefined) return text.startsWith('var(') ? { word: 'coloured', weight: 3 } : undefined;
      return { word: colour, weight: 8 };
    }
    case 'display':
      return text === 'none'
        ? { word: 'hidden', weight: 10 }
        : { word: text.replace(/[^a-z]+/g, '-'), weight: 6 };
    case 'text-align':
    case 'float':
      return {
        word: /center$/.test(text) ? 'centred' : text.replace('-webkit-', ''),
        weight: 7,
      };
    case 'vertical-align':
      return { word: `align-${text.replace(/[^a-z0-9]+/g, '-')}`, weight: 5 };
    case 'font-weight':
      return { word: /^(bold|bolder|[6-9]00)$/.test(text) ? 'bold' : 'plain', weight: 6 };
    case 'font-style':
      return { word: text, weight: 6 };
    case 'font-size':
      return sizeTrait(text, amount);
    case 'font-family':
    case 'font':
      return { word: text.includes('mono') ? 'mono' : 'typeface', weight: 4 };
    case 'text-transform':
      return { word: text === 'uppercase' ? 'caps' : text, weight: 6 };
    case 'text-decoration':
      return {
        word: text === 'none' ? 'undecorated' : text.split(' ')[0]!.replace(/[^a-z-]/g, ''),
        weight: 5,
      };
    case 'letter-spacing':
      return { word: 'spaced', weight: 4 };
    case 'white-space':
      return text === 'nowrap'
        ? { word: 'unbroken', weight: 6 }
        : { word: text.replace(/[^a-z]+/g, '-'), weight: 4 };
    case 'fill':
    case 'stroke': {
      const colour = colourWord(text) ?? variableWord(text);
      const verb = property === 'fill' ? 'filled' : 'drawn';
      return {
        word: text === 'none' ? `un${verb}` : colour === undefined ? verb : `${verb}-${colour}`,
        weight: 7,
      };
    }
    case 'stroke-width':
      return { word: `stroke-${amount ?? 'width'}`, weight: 4 };
    case 'opacity':
      return { word: 'faded', weight: 7 };
    case 'border-radius':
      return { word: 'rounded', weight: 5 };
    case 'box-shadow':
      return { word: 'raised', weight: 6 };
    case 'cursor':
      return { word: text.replace(/[^a-z]+/g, '-'), weight: 3 };
    case 'list-style':
    case 'list-style-type':
      return {
        word: text === 'none' ? 'unmarked' : `marked-${text.split(' ')[0]!.replace(/[^a-z-]/g, '')}`,
        weight: 6,
      };
    case 'clear':
      return { word: 'clear', weight: 5 };
    case 'line-height':
      return { word: 'leading', weight: 3 };
    case 'position':
      return { word: text, weight: 5 };
    case 'overflow':
    case 'overflow-x':
    case 'overflow-y':
      return { word: text === 'hidden' ? 'clipped' : 'scrolling', weight: 4 };
    default:
  }
  const row = rowTrait(property, text);
  if (row !== undefined) return row;
  if (/^border/.test(property)) {
    if (/^(none|0)/.test(text)) return { word: 'unframed', weight: 4 };
    return { word: side === undefined ? 'framed' : `line-${SIDES.get(side)}`, weight: 6 };
  }
  if (property.startsWith('padding'))
    return {
      word: text === '0' ? 'flush' : side === undefined ? 'padded' : `padded-${SIDES.get(side)}`,
      weight: 4,
    };
  if (property.startsWith('margin'))
    return {
      word: marginWord(text, side),
      weight: 4,
    };
  const short = /^(?:(min|max)-)?(width|height)$/.exec(property);
  if (short !== null)
    return {
      word: [short[1], short[2] === 'width' ? 'wide' : 'high', amount].filter(Boolean).join('-'),
      weight: 5,
    };
  return { word: property.replace(/^-+|[^a-z-]/g, ''), weight: 2 };
}

/** What a flexible row or column does with what is in it, or does in one. */
function rowTrait(property: string, text: string): Trait | undefined {
  const place = text.replace(/^flex-/, '').replace(/[^a-z]+/g, '-');
  switch (property) {
    case 'flex':
    case 'flex-grow':
    case 'flex-shrink':
      return { word: /^(0|none)\b/.test(text) ? 'rigid' : 'grow', weight: 4 };
    case 'flex-direction':
      return { word: place, weight: 5 };
    case 'flex-flow':
    case 'flex-wrap':
      return { word: /nowrap/.test(text) ? 'unwrapped' : /wrap/.test(text) ? 'wrapping' : place, weight: 3 };
    case 'justify-content':
      return {
        word: /^space-/.test(text) ? 'spread' : place === 'center' ? 'centred' : `packed-${place}`,
        weight: 4,
      };
    case 'align-items':
      return { word: `align-${place}`, weight: 3 };
    case 'place-items':
      return { word: `place-${place}`, weight: 3 };
    case 'align-self':
    case 'justify-self':
      return { word: `self-${place}`, weight: 3 };
    case 'gap':
    case 'column-gap':
    case 'row-gap':
    case 'grid-gap':
      return { word: 'gapped', weight: 2 };
    default:
      return undefined;
  }
}

function marginWord(text: string, side: string | undefined): string {
  if (/auto/.test(text)) return 'middle';
  const word = /^0(px)?$/.test(text) ? 'tight' : 'apart';
  return side === undefined ? word : `${word}-${SIDES.get(side)}`;
}

/** Against the usual 16 pixels: clearly smaller or larger has a word, the rest its amount. */
function sizeTrait(text: string, amount: string | undefined): Trait {
  const match = /^([0-9.]+)(px|%|em|rem|pt)$/.exec(text);
  const per = new Map([
    ['px', 1 / 16],
    ['%', 1 / 100],
    ['em', 1],
    ['rem', 1],
    ['pt', 1 / 12],
  ]);
  const factor = match === null ? undefined : Number(match[1]) * (per.get(match[2]!) ?? 1);
  if (factor !== undefined && factor < 0.9) return { word: 'small', weight: 8 };
  if (factor !== undefined && factor > 1.05) return { word: factor > 1.6 ? 'huge' : 'large', weight: 8 };
  return { word: amount === undefined ? text.replace(/[^a-z0-9]+/g, '-') : `size-${amount}`, weight: 5 };
}

function firstColour(text: string): string | undefined {
  return /#[0-9a-f]{3,8}|rgba?\([^)]*\)|\b[a-z]+\b/.exec(text)?.[0];
}

/** `70%` is `70`, `1.5em` is `1-5em`, `300px` is `300`. */
function amountWord(text: string): string | undefined {
  const match = /^([0-9]*\.?[0-9]+)(px|%|em|rem|vh|vw|pt)?$/.exec(text);
  if (match === null) return undefined;
  const unit = match[2] === undefined || match[2] === 'px' || match[2] === '%' ? '' : match[2];
  return `${String(Number(match[1])).replace('.', '-')}${unit}`;
}

/** Words that tell one amount from another, for names that are alike without them. */
export function amountsOf(declarations: readonly Declaration[]): string[] {
  return declarations.flatMap(({ value }) =>
    value
      .toLowerCase()
      .split(/\s+/)
      .flatMap((word) => amountWord(word) ?? []),
  );
}
