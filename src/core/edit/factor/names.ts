// What a set of declarations is called: by the word that people have for it, by the variables that it is made of, by what its
// rules style where their classes end alike; else by what it looks like.

import { nameStyles, USUAL } from '../../search/index.js';
import type { Run } from './runs.js';

/** By what is declared, in any order. */
const PATTERNS: readonly (readonly [name: string, said: readonly string[]])[] = [
  ['full-size', ['width: 100%', 'height: 100%']],
  ['cover', ['position: absolute', 'top: 0', 'left: 0', 'width: 100%', 'height: 100%']],
  ['cover', ['position: absolute', 'top: 0', 'right: 0', 'bottom: 0', 'left: 0']],
  ['all-sides', ['top: 0', 'right: 0', 'bottom: 0', 'left: 0']],
  ['top-left', ['position: absolute', 'top: 0', 'left: 0']],
  ['flex-middle', ['display: flex', 'align-items: center']],
  ['inline-middle', ['display: inline-block', 'vertical-align: middle']],
  ['ellipsis', ['overflow: hidden', 'text-overflow: ellipsis']],
  ['truncated', ['overflow: hidden', 'text-overflow: ellipsis', 'white-space: nowrap']],
  ['flex-centred', ['display: flex', 'align-items: center', 'justify-content: center']],
  ['plain-list', ['list-style: none', 'margin: 0', 'padding: 0']],
];

/** In: the places of each set; names in use, lower case. */
export function nameSets(sets: readonly (readonly Run[])[], taken: ReadonlySet<string>): string[] {
  const used = new Set(taken);
  const looks = nameStyles(
    sets.map(([first = []]) => ({ declarations: first.map(({ made }) => made), wearers: [] })),
    { platform: new Set(), taken, sensitive: [], convention: USUAL },
  );
  return sets.map((places, at) => {
    const word = wordOf(places);
    const told = variablesOf(places[0]!);
    // `button-disabled` says more than a class, `fare` says less.
    const words = told?.includes('-') ? [told, word] : [word, told];
    const tried = [patternOf(places[0]!), ...words, word && `${word}-${looks[at]}`, looks[at]];
    const free = tried.find((one) => one !== undefined && !used.has(one.toLowerCase()));
    let name = free ?? looks[at]!;
    for (let number = 2; used.has(name.toLowerCase()); number++) name = `${looks[at]}-${number}`;
    used.add(name.toLowerCase());
    return name;
  });
}

/** The word that people have for a set, where they have one. */
export function patternOf(run: Run): string | undefined {
  const said = new Set(run.map((one) => one.said));
  return PATTERNS.find(([, own]) => own.length === said.size && own.every((one) => said.has(one)))?.[0];
}

/** `button-disabled` of `$--button-disabled-color` and `$--button-disabled-border`. */
function variablesOf(run: Run): string | undefined {
  const names = run.flatMap(({ said }) =>
    [...said.matchAll(/\$-*([\w-]+)/g)].map(([, name]) => name!.split(/[-_]+/)),
  );
  const [first = [], ...others] = names;
  if (others.length === 0) return undefined;
  let count = 0;
  while (count < first.length && others.every((other) => other[count] === first[count])) count++;
  const word = first.slice(0, count).join('-');
  return /^[a-z][a-z-]{3,}$/.test(word) ? word : undefined;
}

/** `slider-thumb` of `.hue-slider__thumb` and `.alpha-slider__thumb`. */
function wordOf(places: readonly Run[]): string | undefined {
  const classes = places.map(([first]) => [...first!.selector.matchAll(/\.([\w-]+)/g)].at(-1)?.[1]);
  if (classes.includes(undefined)) return undefined;
  const [first = [], ...others] = classes.map((name) => name!.split(/[-_]+/).filter((word) => word !== ''));
  let count = 0;
  while (
    count < first.length - 1 &&
    others.every((other) => other.at(-1 - count) === first.at(-1 - count) && count < other.length)
  )
    count++;
  const word = first.slice(first.length - count).join('-');
  return /^[a-z][a-z-]{3,}$/.test(word) ? word : undefined;
}
