// Class names that the next person understands: what the elements are, then what the style does to them.

import type { PageElement } from '../markup/index.js';
import type { Declaration } from '../sheets/index.js';
import type { Sharing } from './propose.js';
import { amountsOf, traitsOf } from './traits.js';

const KINDS: ReadonlyMap<string, string> = new Map(
  (
    'td=cell th=heading-cell tr=row p=text span=words img=image a=link li=item ul=list ol=list div=block h1=title ' +
    'h2=heading h3=heading h4=heading h5=heading h6=heading input=field select=field textarea=field dl=list dt=term ' +
    'dd=detail hr=rule font=words center=block svg=icon b=strong i=em'
  )
    .split(' ')
    .map((pair) => pair.split('=') as [string, string]),
);

export interface NameRules {
  /** Names in use anywhere on the site, lower case. */
  readonly taken: ReadonlySet<string>;
  /** Texts that attribute selectors look for in `class`: a name must not make them match. */
  readonly sensitive: readonly { readonly operator: string; readonly value: string }[];
}

/** A valid class name as people write them: starts with a letter, then letters, digits, `-`, `_`. */
export const CLASS_NAME = /^-?[a-zA-Z_][a-zA-Z0-9_-]*$/;

/** Names for all sharings, in their order; stable for equal input. */
export function nameSharings(sharings: readonly Sharing[], rules: NameRules): string[] {
  const used = new Set(rules.taken);
  return sharings.map((sharing) => {
    const name = nameSharing(sharing, (candidate) => isFree(candidate, used, rules));
    used.add(name.toLowerCase());
    return name;
  });
}

function nameSharing(sharing: Sharing, free: (name: string) => boolean): string {
  const declarations = sharing.members[0]!.units.flatMap((unit) => unit.declarations);
  const elements = sharing.members.flatMap(({ carrier }) => carrier.element ?? []);
  const traits = [...new Set(lookWords(declarations))];
  const stems = stemsOf(sharing, elements);
  const amounts = amountsOf(declarations);
  for (const stem of stems) {
    for (let count = 1; count <= Math.min(3, traits.length); count++) {
      const name = joinWords(stem, ...traits.slice(0, count));
      if (free(name)) return name;
    }
  }
  const stem = stems[0] ?? 'shared';
  for (const amount of amounts) {
    const name = joinWords(stem, ...traits.slice(0, 2), amount);
    if (free(name)) return name;
  }
  // Alike in all that words can tell: the whole list of traits and amounts, then a letter.
  const long = joinWords(stem, ...traits.slice(0, 4), ...amounts.slice(0, 3));
  if (free(long)) return long;
  for (let number = 0; ; number++) {
    const name = joinWords(long, letters(number));
    if (free(name)) return name;
  }
}

/** A ground and padding make a panel; otherwise the traits stand for themselves. */
function lookWords(declarations: readonly Declaration[]): string[] {
  const words = traitsOf(declarations).map(({ word }) => word);
  const has = (pattern: RegExp): boolean => declarations.some(({ property }) => pattern.test(property));
  const panel = declarations.length >= 3 && has(/^padding/) && (has(/^background/) || has(/^border/));
  return panel ? ['panel', ...words.filter((word) => word !== 'padded')] : words.length > 0 ? words : ['look'];
}

function stemsOf(sharing: Sharing, elements: readonly PageElement[]): string[] {
  const stems: string[] = [];
  const add = (stem: string | undefined): void => {
    if (stem !== undefined && CLASS_NAME.test(stem) && !stems.includes(stem)) stems.push(stem);
  };
  const [first] = elements;
  if (first === undefined) return ['shared'];
  const shared = first.classes.filter((name) => elements.every(({ classes }) => classes.includes(name)));
  add(shared.filter((name) => name.length <= 24 && !/\d/.test(name)).sort((a, b) => b.length - a.length)[0]);
  const kinds = new Set(elements.map(({ name }) => KINDS.get(name) ?? name));
  const kind = kinds.size === 1 ? [...kinds][0] : undefined;
  const around = nearestCommonClass(sharing);
  if (around !== undefined && kind !== undefined) add(`${around}-${kind}`);
  add(kind);
  add(around);
  if (kind === undefined) add('shared');
  return stems;
}

/** A class that every element finds on an ancestor, the nearest to the first. */
function nearestCommonClass(sharing: Sharing): string | undefined {
  let common: string[] | undefined;
  for (const { carrier } of sharing.members) {
    if (carrier.element === undefined) continue;
    const around: string[] = [];
    for (let at = carrier.element.parent; at >= 0; at = carrier.page.elements[at]!.parent) {
      const { name, classes } = carrier.page.elements[at]!;
      if (name !== 'body' && name !== 'html') around.push(...classes);
    }
    common = common === undefined ? around : common.filter((name) => around.includes(name));
  }
  return common?.find((name) => name.length <= 20 && !/\d/.test(name) && CLASS_NAME.test(name));
}

function joinWords(...words: readonly string[]): string {
  const parts: string[] = [];
  for (const word of words) if (word !== '' && !parts.at(-1)?.endsWith(word)) parts.push(word);
  return parts.join('-').replace(/-{2,}/g, '-');
}

function letters(number: number): string {
  return number < 26 ? String.fromCharCode(97 + number) : `${letters(Math.floor(number / 26) - 1)}${letters(number % 26)}`;
}

function isFree(name: string, used: ReadonlySet<string>, rules: NameRules): boolean {
  if (used.has(name.toLowerCase()) || !CLASS_NAME.test(name)) return false;
  return !rules.sensitive.some(({ operator, value }) => {
    if (operator === '*=') return name.includes(value);
    if (operator === '^=') return name.startsWith(value);
    if (operator === '$=') return name.endsWith(value);
    return operator === '|=' && name.startsWith(`${value}-`);
  });
}
