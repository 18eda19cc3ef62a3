// Values in the design token format of the community group (Design Tokens Format Module): types, groups, aliases; and back.

import culori from 'culori/require';
import { z } from 'zod';
import { DIGIT, either, isMadeOf, LETTER, LOWER, trimmedBefore } from '../../base/characters.js';
import { firstIssue } from '../../base/choices.js';
import { withSingleSpaces } from '../../base/phrases.js';
import { parseDeclarations } from '../../read/sheets/index.js';
import type { NamedValue } from './collect.js';
import type { ValueKind } from './kinds.js';

/**
 * Where the format has no word: which custom property it is, its key in the file when it was written, and its values in schemes
 * and sections. A key that is another one now gives the property another name.
 */
const EXTENSION = 'acervus';

type Json = string | number | boolean | null | readonly Json[] | { readonly [key: string]: Json };

/** Groups in the file, and the type that the format has for each kind. */
const GROUPS: Readonly<Record<ValueKind, readonly [group: string, type: string]>> = {
  color: ['color', 'color'],
  gradient: ['gradient', 'gradient'],
  fontFamily: ['font-family', 'fontFamily'],
  fontSize: ['font-size', 'dimension'],
  fontWeight: ['font-weight', 'fontWeight'],
  lineHeight: ['line-height', 'number'],
  shadow: ['shadow', 'shadow'],
  radius: ['radius', 'dimension'],
  duration: ['duration', 'duration'],
  dimension: ['dimension', 'dimension'],
  number: ['number', 'number'],
};

/** Out: the file, and the names of what has no type in the format, or a unit that it does not know. */
export function toTokens(named: readonly NamedValue[]): {
  readonly tokens: Json;
  readonly left: readonly string[];
} {
  const groups: Record<string, Record<string, Json>> = {};
  const left: string[] = [];
  const paths = new Map(
    named.flatMap((one) => {
      const kind = kindThrough(one, named);
      return kind === undefined || !isSayable(one, named)
        ? []
        : [[one.name, [GROUPS[kind][0], keyOf(one.name)] as const] as const];
    }),
  );
  for (const one of named) {
    const kind = kindThrough(one, named);
    const path = paths.get(one.name);
    const alias = one.alias === undefined ? undefined : paths.get(one.alias);
    const value = alias === undefined ? kind && jsonOf(kind, one.value) : `{${alias.join('.')}}`;
    if (kind === undefined || path === undefined || value === undefined) {
      left.push(one.name);
      continue;
    }
    const sets = Object.fromEntries(one.sets.map(({ where, value: own }) => [where, own]));
    const [group, key] = path;
    groups[group] ??= { $type: GROUPS[kind][1] };
    groups[group][key] = {
      $value: value,
      ...(one.note === undefined || one.note === '' ? {} : { $description: one.note }),
      $extensions: {
        [EXTENSION]: { property: one.name, key, ...(one.sets.length === 0 ? {} : { sets }) },
      },
    };
  }
  return { tokens: groups, left };
}

function kindThrough(one: NamedValue, named: readonly NamedValue[], depth = 0): ValueKind | undefined {
  if (one.alias === undefined || depth > 20) return one.kind;
  const other = named.find(({ name }) => name === one.alias);
  return other === undefined ? undefined : kindThrough(other, named, depth + 1);
}

/** Whether the format has a word for what it comes to: an alias of nothing is none. */
function isSayable(one: NamedValue, named: readonly NamedValue[], depth = 0): boolean {
  if (one.alias === undefined) return one.kind !== undefined && jsonOf(one.kind, one.value) !== undefined;
  const other = named.find(({ name }) => name === one.alias);
  return other !== undefined && depth <= 20 && isSayable(other, named, depth + 1);
}

/** The format keeps `$`, `{`, `}` and `.` for itself. */
function keyOf(property: string): string {
  return trimmedBefore(property.slice(2).replace(/[{}.]/g, '-'), '$');
}

export function jsonOf(kind: ValueKind, value: string): Json | undefined {
  switch (kind) {
    case 'color':
      return colourJson(value);
    case 'fontSize':
    case 'radius':
    case 'dimension':
      return unitJson(value, ['px', 'rem']);
    case 'duration':
      return unitJson(value, ['ms', 's']);
    case 'fontWeight':
      return isMadeOf(value, DIGIT) ? Number(value) : value.toLowerCase();
    case 'lineHeight':
    case 'number':
      return /^-?[\d.]+$/.test(value) ? Number(value) : undefined;
    case 'fontFamily': {
      const names = value.split(/\s*,\s*/).map((one) => one.replace(/^["']|["']$/g, ''));
      return names.length === 1 ? names[0]! : names;
    }
    case 'shadow':
      return shadowJson(value);
    case 'gradient':
      return undefined;
  }
}

function colourJson(value: string): Json | undefined {
  const rgb = culori.rgb(value);
  if (rgb === undefined) return undefined;
  const part = (one: number): number => Math.round(one * 1e4) / 1e4;
  return {
    colorSpace: 'srgb',
    components: [part(rgb.r), part(rgb.g), part(rgb.b)],
    ...(rgb.alpha === undefined || rgb.alpha === 1 ? {} : { alpha: part(rgb.alpha) }),
    hex: culori.formatHex(rgb) ?? value,
  };
}

function unitJson(value: string, units: readonly string[]): Json | undefined {
  const [, number = '', unit = ''] = /^(-?[\d.]+)([a-z%]+)$/i.exec(value) ?? [];
  return units.includes(unit.toLowerCase()) ? { value: Number(number), unit: unit.toLowerCase() } : undefined;
}

/** `1px 2px 3px 4px colour`, one or several. */
function shadowJson(value: string): Json | undefined {
  const all = value.split(/,(?![^(]*\))/).map((one): Json | undefined => {
    const inset = /(?:^|\s)inset(?:\s|$)/i.test(one);
    const rest = one.replace(/(?:^|\s)inset(?=\s|$)/i, ' ').trim();
    const lengths = [...rest.matchAll(/(?:^|\s)(-?[\d.]+(?:px|rem)?)(?=\s|$)/g)].map(([, text]) =>
      text === '0' ? { value: 0, unit: 'px' } : unitJson(text!, ['px', 'rem']),
    );
    const colour = colourJson(rest.replace(/(?:^|\s)-?[\d.]+(?:px|rem)?(?=\s|$)/g, ' ').trim());
    const [x, y, blur = { value: 0, unit: 'px' }, spread = { value: 0, unit: 'px' }] = lengths;
    if (
      x === undefined ||
      y === undefined ||
      blur === undefined ||
      spread === undefined ||
      colour === undefined
    )
      return undefined;
    return { color: colour, offsetX: x, offsetY: y, blur, spread, ...(inset ? { inset } : {}) };
  });
  if (all.some((one) => one === undefined)) return undefined;
  return all.length === 1 ? all[0] : (all as Json[]);
}

/** A token as it is read: the property it becomes, and its value in CSS. */
export interface ReadToken {
  /** `color.tide`. */
  readonly path: string;
  readonly property: string;
  /** The name that the property had when the file was written, where the file gives it another. */
  readonly was: string | undefined;
  readonly value: string;
  /** Its values in schemes, media and sections, by these. */
  readonly sets: ReadonlyMap<string, string>;
}

/** What can stand behind a custom property without ending it. */
const cssValue = z.string().refine(isOneValue, 'expected a value in CSS');
/** A scheme, a medium or a selector. */
const where = z
  .string()
  .regex(
    /^[^{};@]+$|^@(?:media|supports|container) [^{};]+$/,
    'expected dark, light, @media … or a selector',
  );
const extension = z
  .object({
    property: z.string().regex(/^--[^\s{};:,()'"\\]+$/),
    key: z.string(),
    sets: z.record(where, cssValue),
  })
  .partial();

function isOneValue(text: string): boolean {
  if (text.trim() === '') return false;
  const { declarations, defects } = parseDeclarations(`--x: ${text}`);
  return declarations.length === 1 && defects.length === 0 && declarations[0]!.value.trim() === text.trim();
}

interface FoundToken {
  readonly path: string[];
  readonly type: string | undefined;
  readonly value: unknown;
  readonly property: string | undefined;
  readonly was: string | undefined;
  readonly sets: ReadonlyMap<string, string>;
}

/** Out: the tokens of a file in their order, or what is wrong with it. */
export function readTokens(text: string): readonly ReadToken[] | string {
  let root: unknown;
  try {
    root = JSON.parse(text);
  } catch (error) {
    return (error as Error).message;
  }
  if (typeof root !== 'object' || root === null || Array.isArray(root)) return 'it is no group of tokens';
  const found: FoundToken[] = [];
  const problem = walk(root as Record<string, unknown>, [], undefined, found);
  if (problem !== undefined) return problem;
  const byPath = new Map(found.map((one) => [one.path.join('.'), one]));
  const propertyOf = (one: FoundToken): string => one.property ?? `--${one.path.join('-')}`;
  const tokens: ReadToken[] = [];
  for (const one of found) {
    const path = one.path.join('.');
    const alias = typeof one.value === 'string' ? /^\{([^{}]+)\}$/.exec(one.value)?.[1] : undefined;
    const target = alias === undefined ? undefined : byPath.get(alias);
    if (alias !== undefined && target === undefined) return `${path}: there is no ${alias}`;
    const value = target === undefined ? cssOf(one.type, one.value) : `var(${propertyOf(target)})`;
    if (value === undefined)
      return `${path}: ${JSON.stringify(one.value).slice(0, 60)} is no ${one.type ?? 'value of a known type'}`;
    tokens.push({ path, property: propertyOf(one), was: one.was, value, sets: one.sets });
  }
  return tokens;
}

function walk(
  group: Record<string, unknown>,
  path: string[],
  inherited: string | undefined,
  found: FoundToken[],
): string | undefined {
  if (path.length > 30) return 'its groups are nested without end';
  const type = typeof group.$type === 'string' ? group.$type : inherited;
  if ('$value' in group) {
    const own = (group.$extensions as Record<string, unknown> | undefined)?.[EXTENSION];
    const read = extension.safeParse(own ?? {});
    if (!read.success) return `${path.join('.')}: ${firstIssue(read.error)}`;
    const { property, key, sets = {} } = read.data;
    // A token that was moved into another group is called what it was.
    const isRenamed = property !== undefined && key !== undefined && !path.includes(key);
    found.push({
      ...{ path, type, value: group.$value, sets: new Map(Object.entries(sets)) },
      property: isRenamed ? `--${path.slice(path.length > 1 ? 1 : 0).join('-')}` : property,
      was: isRenamed ? property : undefined,
    });
    return undefined;
  }
  for (const [key, value] of Object.entries(group)) {
    if (key.startsWith('$')) continue;
    const at = [...path, key];
    if (!/^[^\s{};:,()'"\\.$][^\s{};:,()'"\\.]*$/.test(key))
      return `${at.join('.')}: is no name that a custom property can have`;
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      return `${at.join('.')}: is neither a token nor a group`;
    const problem = walk(value as Record<string, unknown>, at, type, found);
    if (problem !== undefined) return problem;
  }
  return undefined;
}

const unit = z.object({ value: z.number(), unit: z.string().regex(/^[a-z%]+$/i) });
const colour = z.union([
  z.string().regex(/^#[0-9a-f]{3,8}$/i),
  z.object({
    colorSpace: z.string(),
    components: z.array(z.number()).length(3),
    alpha: z.number().optional(),
    hex: z
      .string()
      .regex(/^#[0-9a-f]{6}$/i)
      .optional(),
  }),
]);
const shadow = z.object({
  color: colour,
  offsetX: unit,
  offsetY: unit,
  blur: unit,
  spread: unit,
  inset: z.boolean().optional(),
});

/** Out: `undefined` for what the type does not take. */
function cssOf(type: string | undefined, value: unknown): string | undefined {
  switch (type) {
    case 'color': {
      const read = colour.safeParse(value);
      return read.success ? colourCss(read.data) : undefined;
    }
    case 'dimension':
    case 'duration': {
      const read = unit.safeParse(value);
      return read.success ? `${read.data.value}${read.data.unit}` : undefined;
    }
    case 'number':
      return typeof value === 'number' && Number.isFinite(value) ? String(value) : undefined;
    case 'fontWeight':
      return typeof value === 'number' || (typeof value === 'string' && isMadeOf(value, either(LOWER, '-')))
        ? String(value)
        : undefined;
    case 'fontFamily': {
      const read = z.union([z.string(), z.array(z.string())]).safeParse(value);
      if (!read.success) return undefined;
      return [read.data].flat().map(familyCss).join(', ');
    }
    case 'shadow': {
      const read = z.union([shadow, z.array(shadow)]).safeParse(value);
      if (!read.success) return undefined;
      return [read.data].flat().map(shadowCss).join(', ');
    }
    default:
      return undefined;
  }
}

function colourCss(one: z.infer<typeof colour>): string {
  if (typeof one === 'string') return one;
  if (one.hex !== undefined && (one.alpha ?? 1) === 1) return one.hex;
  const [r = 0, g = 0, b = 0] = one.components;
  if (one.colorSpace === 'srgb') {
    const { alpha = 1 } = one;
    const hex = culori.formatHex8({ mode: 'rgb', r, g, b, alpha });
    // Half is no two hexadecimal digits.
    const isExact = Math.abs((culori.rgb(hex)?.alpha ?? 1) - alpha) < 1e-4;
    return isExact
      ? hex
      : `rgba(${[r, g, b].map((part) => Math.round(Number(part) * 255)).join(', ')}, ${alpha})`;
  }
  return `color(${one.colorSpace} ${r} ${g} ${b}${one.alpha === undefined ? '' : ` / ${one.alpha}`})`;
}

function familyCss(name: string): string {
  return isMadeOf(name, either(LETTER, '-')) ? name : `"${withSingleSpaces(name.replace(/["\\]/g, '\\$&'))}"`;
}

function shadowCss({ color, offsetX, offsetY, blur, spread, inset }: z.infer<typeof shadow>): string {
  const lengths = [offsetX, offsetY, blur, spread].map(({ value, unit: own }) => `${value}${own}`);
  return [...(inset === true ? ['inset'] : []), ...lengths, colourCss(color)].join(' ');
}
