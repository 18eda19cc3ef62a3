// What a declaration does, in a word that fits into a class name.

import type { Color } from 'culori';
import culori from 'culori/require';
import { either, LOWER, not, without } from '../base/characters.js';
import { startsWithAny, withoutStart } from '../base/phrases.js';
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
const NO_COLOUR = new Set([
  'color',
  'colors',
  'colour',
  'colours',
  'clr',
  'text',
  'font',
  'bg',
  'back',
  'background',
  'fg',
  'fore',
  'foreground',
  'fill',
  'border',
  'theme',
  'main',
  'base',
  'body',
  'default',
]);

/** What a house calls a colour: `danger` for `var(--kit-color-danger)`. */
function variableWord(value: string): string | undefined {
  const name = /^var\(\s*--([\w-]+)/.exec(value)?.[1];
  const words = name
    ?.split(/[-_]/)
    .filter((word) => /^[a-z]{3,16}$/i.test(word) && !NO_COLOUR.has(word.toLowerCase()));
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

/** What a value declares of a property, in a word. In: the value in small letters. */
type Telling = (text: string) => Trait | undefined;

/** By property, what its values are called. */
const TRAITS: ReadonlyMap<string, Telling> = new Map<string, Telling>([
  ...each('background background-color', groundTrait),
  ['color', textColour],
  ['display', (text) => (text === 'none' ? told('hidden', 10) : told(dashed(text), 6))],
  ...each('text-align float', (text) =>
    told(text.endsWith('center') ? 'centred' : text.replace('-webkit-', ''), 7),
  ),
  ['vertical-align', (text) => told(`align-${text.replace(/[^a-z0-9]+/g, '-')}`, 5)],
  ['font-weight', (text) => told(BOLD.has(text) ? 'bold' : 'plain', 6)],
  ['font-style', (text) => told(text, 6)],
  ['font-size', sizeTrait],
  ...each('font-family font', (text) => told(text.includes('mono') ? 'mono' : 'typeface', 4)),
  ['text-transform', (text) => told(text === 'uppercase' ? 'caps' : text, 6)],
  ['text-decoration', (text) => told(text === 'none' ? 'undecorated' : firstWord(text), 5)],
  ['letter-spacing', () => told('spaced', 4)],
  ['white-space', (text) => (text === 'nowrap' ? told('unbroken', 6) : told(dashed(text), 4))],
  ['fill', (text) => drawnTrait(text, 'filled')],
  ['stroke', (text) => drawnTrait(text, 'drawn')],
  ['stroke-width', (text) => told(`stroke-${amountWord(text) ?? 'width'}`, 4)],
  ['opacity', () => told('faded', 7)],
  ['border-radius', () => told('rounded', 5)],
  ['box-shadow', () => told('raised', 6)],
  ['cursor', (text) => told(dashed(text), 3)],
  ...each('list-style list-style-type', (text) =>
    told(text === 'none' ? 'unmarked' : `marked-${firstWord(text)}`, 6),
  ),
  ['clear', () => told('clear', 5)],
  ['line-height', () => told('leading', 3)],
  ['position', (text) => told(text, 5)],
  ...each('overflow overflow-x overflow-y', (text) => told(text === 'hidden' ? 'clipped' : 'scrolling', 4)),
  ...each('flex flex-grow flex-shrink', (text) => told(/^(0|none)\b/.test(text) ? 'rigid' : 'grow', 4)),
  ['flex-direction', (text) => told(placeWord(text), 5)],
  ...each('flex-flow flex-wrap', (text) => told(wrapWord(text), 3)),
  ['justify-content', (text) => told(spreadWord(text), 4)],
  ['align-items', (text) => told(`align-${placeWord(text)}`, 3)],
  ['place-items', (text) => told(`place-${placeWord(text)}`, 3)],
  ...each('align-self justify-self', (text) => told(`self-${placeWord(text)}`, 3)),
  ...each('gap column-gap row-gap grid-gap', () => told('gapped', 2)),
]);

const BOLD = new Set(['bold', 'bolder', '600', '700', '800', '900']);

function traitOf({ property, value }: Declaration): Trait | undefined {
  const text = value.toLowerCase();
  const own = TRAITS.get(property);
  return own === undefined ? boxTrait(property, text) : own(text);
}

function each(properties: string, telling: Telling): [string, Telling][] {
  return properties.split(' ').map((property) => [property, telling]);
}

function told(word: string, weight: number): Trait {
  return { word, weight };
}

/** A value as one word. */
function dashed(text: string): string {
  return text.replace(/[^a-z]+/g, '-');
}

function firstWord(text: string): string {
  return without(text.split(' ')[0]!, not(either(LOWER, '-')));
}

function groundTrait(text: string): Trait {
  const colour = colourWord(firstColour(text) ?? text) ?? variableWord(text);
  if (colour !== undefined) return told(`on-${colour}`, 9);
  if (text.includes('gradient')) return told('shaded', 8);
  return text.includes('url(') ? told('pictured', 8) : told('backed', 4);
}

function textColour(text: string): Trait | undefined {
  const colour = colourWord(text) ?? variableWord(text);
  if (colour !== undefined) return told(colour, 8);
  // Which one it is, its name does not tell.
  return text.startsWith('var(') ? told('coloured', 3) : undefined;
}

function drawnTrait(text: string, verb: string): Trait {
  const colour = colourWord(text) ?? variableWord(text);
  return told(text === 'none' ? `un${verb}` : colour === undefined ? verb : `${verb}-${colour}`, 7);
}

/** Borders, space around and inside, sizes; of anything else its own name. */
function boxTrait(property: string, text: string): Trait {
  const last = property.slice(property.lastIndexOf('-') + 1);
  const side = property.includes('-') ? SIDES.get(last) : undefined;
  const behind = side === undefined ? '' : `-${side}`;
  if (property.startsWith('border')) {
    if (startsWithAny(text, ['none', '0'])) return told('unframed', 4);
    return told(side === undefined ? 'framed' : `line-${side}`, 6);
  }
  if (property.startsWith('padding')) return told(text === '0' ? 'flush' : `padded${behind}`, 4);
  if (property.startsWith('margin')) return told(marginWord(text, behind), 4);
  const bound = property.startsWith('min-') || property.startsWith('max-') ? property.slice(0, 3) : undefined;
  const size = bound === undefined ? property : property.slice(4);
  if (size === 'width' || size === 'height') {
    const parts = [bound, size === 'width' ? 'wide' : 'high', amountWord(text)];
    return told(parts.filter(Boolean).join('-'), 5);
  }
  return told(property.replace(/^-+|[^a-z-]/g, ''), 2);
}

/** Where a flexible row or column puts what is in it. */
function placeWord(text: string): string {
  return dashed(withoutStart(text, 'flex-'));
}

function wrapWord(text: string): string {
  if (text.includes('nowrap')) return 'unwrapped';
  return text.includes('wrap') ? 'wrapping' : placeWord(text);
}

function spreadWord(text: string): string {
  if (text.startsWith('space-')) return 'spread';
  const place = placeWord(text);
  return place === 'center' ? 'centred' : `packed-${place}`;
}

/** In: `behind`, the side. */
function marginWord(text: string, behind: string): string {
  if (text.includes('auto')) return 'middle';
  return `${text === '0' || text === '0px' ? 'tight' : 'apart'}${behind}`;
}

/** Against the usual 16 pixels: clearly smaller or larger has a word, the rest its amount. */
function sizeTrait(text: string): Trait {
  const amount = amountWord(text);
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
